import { inject, Injectable, InjectionToken, signal } from '@angular/core';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import { API, type Fault, PHOTO_TYPES, SCREEN_SIDE } from '@zaffet/contract';
import { Door, isPassing } from './door';
import { PhotoStore, type WaitingPhoto } from './photo-store';

/** Waits [ms]: after a failure, doubling, up to the longest; and how long one photograph may take. */
export interface PhotoPauses {
  readonly first: number;
  readonly longest: number;
  readonly patience: number;
}
export const PHOTO_PAUSES = new InjectionToken<PhotoPauses>('photo pauses', {
  providedIn: 'root',
  factory: () => ({ first: 1000, longest: 60_000, patience: 120_000 }),
});

/** How it stands with photographs that were taken here. */
export interface PhotosState {
  /** Photographs the server has not got. */
  readonly unsent: number;
  /** False where only this page keeps them. */
  readonly kept: boolean;
  /** What the server did not take: it stays here until a person has decided. */
  readonly refused: readonly WaitingPhoto[];
}

/** Of a JPEG for a screen, and of one that stands for a file the server cannot keep. */
const SCREEN_QUALITY = 0.82;
const FULL_QUALITY = 0.95;

/** A picture as a JPEG, its longest side no longer than that. */
async function asJpeg(file: Blob, longest: number, quality: number): Promise<Blob> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, longest / Math.max(bitmap.width, bitmap.height));
  const canvas = new OffscreenCanvas(
    Math.max(1, Math.round(bitmap.width * scale)),
    Math.max(1, Math.round(bitmap.height * scale)),
  );
  const context = canvas.getContext('2d')!;
  context.imageSmoothingQuality = 'high';
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  return canvas.convertToBlob({ type: 'image/jpeg', quality });
}

/** The way of photographs to the server: kept on the device first, sent again and again while the server is away. */
@Injectable({ providedIn: 'root' })
export class PhotoBox {
  private readonly pauses = inject(PHOTO_PAUSES);
  private readonly door = inject(Door);
  private readonly store = new PhotoStore();
  private readonly stands = signal<PhotosState>({ unsent: 0, kept: true, refused: [] });
  readonly state = this.stands.asReadonly();
  private readonly ready = this.start();
  private wait = this.pauses.first;
  private timer: ReturnType<typeof setTimeout> | undefined;
  /** Addresses of photographs that only this device has. */
  private readonly here = signal<ReadonlyMap<string, string>>(new Map());

  private async start(): Promise<void> {
    await this.store.open();
    for (const photo of await this.store.all()) this.show(photo);
    addEventListener('online', () => this.poke());
    this.poke();
  }

  private show({ hash, screen }: WaitingPhoto): void {
    this.here.update((known) => new Map(known).set(hash, URL.createObjectURL(screen)));
  }

  /** Keeps a photograph as it is. @returns the hash it goes by @throws where the browser cannot open it */
  async keep(file: Blob): Promise<string> {
    await this.ready;
    const known = (PHOTO_TYPES as readonly string[]).includes(file.type);
    const original = known ? file : await asJpeg(file, Infinity, FULL_QUALITY);
    const screen = await asJpeg(original, SCREEN_SIDE, SCREEN_QUALITY);
    const hash = bytesToHex(sha256(new Uint8Array(await original.arrayBuffer())));
    const photo = { hash, original, screen };
    const kept = await this.store.add(photo);
    this.show(photo);
    this.stands.update((now) => ({ ...now, unsent: now.unsent + 1, kept: now.kept && kept }));
    this.poke();
    return hash;
  }

  /** Where a photograph is shown from: this device as long as only it has it. */
  address(hash: string): string {
    return this.here().get(hash) ?? API.photoScreen(hash);
  }

  /** Sends at once, however often it failed before. */
  poke(): void {
    this.wait = this.pauses.first;
    this.soon(0);
  }

  private soon(after: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.turn(), after);
  }

  private async turn(): Promise<void> {
    await this.ready;
    const waiting = await this.store.waiting();
    // Counted after: what another page marks as refused meanwhile is either still among these, or counted.
    await this.count();
    try {
      for (const photo of waiting) await this.send(photo);
      this.wait = this.pauses.first;
    } catch {
      this.soon(this.wait * (0.5 + Math.random()));
      this.wait = Math.min(this.pauses.longest, this.wait * 2);
    }
  }

  private async count(): Promise<void> {
    const all = await this.store.all();
    const refused = all.filter((photo) => photo.refused !== undefined);
    const unsent = all.length - refused.length;
    this.stands.update(({ kept }) => ({ unsent, refused, kept: kept || unsent === 0 }));
  }

  /** Deletes a photograph that the server did not take. */
  async drop(hash: string): Promise<void> {
    await this.store.drop(hash);
    this.hide(hash);
    await this.count();
  }

  /** @throws where the server cannot be reached, is too busy, or has no room */
  private async send(photo: WaitingPhoto): Promise<void> {
    const { hash, original, screen } = photo;
    for (const [address, body] of [
      [API.photo(hash), original],
      [API.photoScreen(hash), screen],
    ] as const) {
      const answer = await fetch(address, {
        method: 'PUT',
        headers: { 'content-type': body.type },
        body,
        signal: AbortSignal.timeout(this.pauses.patience),
      });
      if (answer.ok) continue;
      this.door.heard(answer.status);
      if (answer.status >= 500 || isPassing(answer.status)) throw new Error(String(answer.status));
      // It is sent no more, and stays on the device: nothing that was taken is thrown away.
      const { message } = (await answer.json()) as Fault;
      await this.store.add({ ...photo, refused: message });
      await this.count();
      return;
    }
    await this.store.drop(hash);
    this.hide(hash);
    await this.count();
  }

  private hide(hash: string): void {
    const url = this.here().get(hash);
    this.here.update((known) => new Map([...known].filter(([one]) => one !== hash)));
    if (url !== undefined) URL.revokeObjectURL(url);
  }
}
