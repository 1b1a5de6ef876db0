import { type DBSchema, type IDBPDatabase, openDB } from 'idb';

/** A photograph on its way to the server, by the hash of its bytes. */
export interface WaitingPhoto {
  readonly hash: string;
  readonly original: Blob;
  /** No larger than a screen, as a JPEG. */
  readonly screen: Blob;
  /** Why the server did not take it; left out while it waits. */
  readonly refused?: string;
}

interface Store extends DBSchema {
  photos: { key: string; value: WaitingPhoto };
}

const NAME = 'zaffet-photos';

/**
 * Photographs the server has not got, written through to the disk. Where the browser's store refuses, they live in this
 * page alone, which has to say so.
 */
export class PhotoStore {
  private db: IDBPDatabase<Store> | null = null;
  private readonly here = new Map<string, WaitingPhoto>();

  async open(): Promise<void> {
    this.db = await openDB<Store>(NAME, 1, {
      upgrade: (to) => void to.createObjectStore('photos', { keyPath: 'hash' }),
      blocking: (_old, _new, event) => (event.target as IDBDatabase).close(),
    }).catch(() => null);
  }

  /** @returns whether the disk has it */
  async add(photo: WaitingPhoto): Promise<boolean> {
    this.here.set(photo.hash, photo);
    try {
      if (this.db === null) return false;
      const work = this.db.transaction('photos', 'readwrite', { durability: 'strict' });
      await Promise.all([work.store.put(photo), work.done]);
      return true;
    } catch {
      return false;
    }
  }

  /** All that the server has not got: what waits, and what it refused. */
  async all(): Promise<WaitingPhoto[]> {
    const stored = (await this.db?.getAll('photos').catch(() => [])) ?? [];
    const all = new Map([...stored, ...this.here.values()].map((photo) => [photo.hash, photo]));
    return [...all.values()];
  }

  async waiting(): Promise<WaitingPhoto[]> {
    return (await this.all()).filter(({ refused }) => refused === undefined);
  }

  /** Deletes one: the server has it, or a person wants it no more. */
  async drop(hash: string): Promise<void> {
    this.here.delete(hash);
    await this.db?.delete('photos', hash).catch(() => undefined);
  }
}
