import { HttpClient } from '@angular/common/http';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import {
  API,
  BACKUP_KINDS,
  type BackupKind,
  type KeptBackup,
  type PhotosRoom,
  type RestoreReport,
  type RestoreWay,
  RESTORE_WAYS,
} from '@zaffet/contract';
import { figures } from '@zaffet/words';
import { firstValueFrom } from 'rxjs';
import { LogApi } from '../data/log.api';
import { faultOf } from '../data/plans.api';

const KIND_WORDS: Readonly<Record<BackupKind, string>> = {
  plans: 'Plans',
  runs: 'Runs and log entries',
  photos: 'Photographs',
  shelf: 'Things on the shelf',
  calibrations: 'What was learned of the paints',
  settings: 'Shop and measures',
  air: 'Readings of the air',
};
const WAY_WORDS: Readonly<Record<RestoreWay, { readonly name: string; readonly how: string }>> = {
  mine: { name: 'Keep what is here', how: 'Only what is not here yet is brought in.' },
  theirs: { name: 'Take the backup’s', how: 'Where both have it, the backup’s takes its place.' },
  both: {
    name: 'Keep both',
    how: 'The backup’s plans and things come beside those here, under names of their own.',
  },
};
const GB = 1e9;
const MB = 1e6;
const inMb = (bytes: number): string => `${figures(Math.max(0.1, bytes / MB))} MB`;
const takenBackWords = ({ count, bytes }: PhotosRoom): string =>
  count === 1
    ? `One photograph was taken back and still takes ${inMb(bytes)}.`
    : `${count} photographs were taken back and still take ${inMb(bytes)}.`;

/** All of the shop as one file: taken out, and brought in once it was seen what that changes. */
@Component({
  selector: 'zf-backup-page',
  imports: [MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './backup.page.html',
  styleUrl: './backup.page.scss',
})
export class BackupPage {
  private readonly http = inject(HttpClient);
  private readonly log = inject(LogApi);
  protected readonly address = API.backup;
  protected readonly ways = RESTORE_WAYS.map((way) => ({ way, ...WAY_WORDS[way] }));
  protected readonly way = signal<RestoreWay>('mine');
  protected readonly file = signal<File | null>(null);
  protected readonly report = signal<RestoreReport | null>(null);
  protected readonly busy = signal(false);
  protected readonly trouble = signal<string | null>(null);
  protected readonly room = signal<string | null>(null);
  /** Photographs that were taken back, and still take room. */
  protected readonly unshown = signal<string | null>(null);

  protected readonly kept = signal<
    readonly { readonly name: string; readonly size: string; readonly href: string }[]
  >([]);

  constructor() {
    void firstValueFrom(this.http.get<KeptBackup[]>(API.backups))
      .then((all) =>
        this.kept.set(
          all.map(({ name, bytes }) => ({
            name,
            size: inMb(bytes),
            href: API.keptBackup(name),
          })),
        ),
      )
      .catch(() => undefined);
    void this.readRoom();
  }

  private async readRoom(): Promise<void> {
    try {
      const { count, bytes, most } = await firstValueFrom(this.log.photosKept());
      const gb = (value: number): string => `${figures(Math.max(value, 1e6) / GB)} GB`;
      this.room.set(
        `${count} ${count === 1 ? 'photograph takes' : 'photographs take'} ${gb(bytes)}; they may take ${gb(most)}.`,
      );
      const gone = await firstValueFrom(this.log.photosUnshown());
      this.unshown.set(gone.count === 0 ? null : takenBackWords(gone));
    } catch {
      // It is told beside what the page is for.
    }
  }

  /** Photographs that nothing shows any more leave the database. */
  protected async clear(): Promise<void> {
    this.busy.set(true);
    this.trouble.set(null);
    try {
      await firstValueFrom(this.log.clearUnshown());
    } catch (error) {
      this.trouble.set(faultOf(error).message);
    }
    this.busy.set(false);
    await this.readRoom();
  }

  protected readonly rows = computed(() => {
    const kinds = this.report()?.kinds;
    return kinds === undefined
      ? []
      : BACKUP_KINDS.map((kind) => ({ kind, name: KIND_WORDS[kind], ...kinds[kind] })).filter(
          ({ fresh, same, other }) => fresh + same + other > 0,
        );
  });
  /** Something in it is here otherwise, so that it matters what is done. */
  protected readonly differs = computed(() =>
    this.rows().some(({ other, kind }) => other > 0 && kind !== 'runs'),
  );

  protected choose(input: HTMLInputElement): void {
    const file = input.files?.[0] ?? null;
    input.value = '';
    if (file === null) return;
    this.file.set(file);
    void this.send(true);
  }

  protected async send(look: boolean): Promise<void> {
    const file = this.file();
    if (file === null) return;
    this.busy.set(true);
    this.trouble.set(null);
    try {
      this.report.set(
        await firstValueFrom(
          this.http.post<RestoreReport>(API.restore(this.way(), look), file, {
            headers: { 'content-type': 'application/zip' },
          }),
        ),
      );
    } catch (error) {
      this.report.set(null);
      this.trouble.set(faultOf(error).message);
    }
    this.busy.set(false);
  }
}
