import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { INNER_PATH, type Invitation, type SignedIn } from '@zaffet/contract';
import { Clock } from '../data/clock';
import { DoorApi } from '../data/door.api';
import { PhotoBox } from '../data/photo-box';
import { PlanOutbox } from '../data/plan-outbox';
import { faultOf } from '../data/plans.api';
import { missingHere } from '../data/secure';
import { ShelfOutbox } from '../data/shelf-outbox';
import { RunBox } from '../runs/run-box';

/** Pairs of a fingerprint on a line. */
const PAIRS = 8;
/** How long what waits may take to be sent before it is told: so many looks, so far apart [ms]. */
const LOOKS = 20;
const LOOK_AFTER = 100;
const asPicture = (svg: string): string => `data:image/svg+xml,${encodeURIComponent(svg)}`;

/** Devices of the workshop: how another one comes in, which are in, and how they are shut out. */
@Component({
  selector: 'zf-tablets-page',
  imports: [MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './tablets.page.html',
  styleUrl: './tablets.page.scss',
})
export class TabletsPage {
  private readonly door = inject(DoorApi);
  private readonly runs = inject(RunBox);
  private readonly photos = inject(PhotoBox);
  private readonly plans = inject(PlanOutbox);
  private readonly shelf = inject(ShelfOutbox);
  protected readonly clock = inject(Clock);
  /** Where an invitation leads. */
  readonly to = input<string>();

  protected readonly network = signal<boolean | null>(null);
  protected readonly devices = signal<readonly SignedIn[]>([]);
  protected readonly invitation = signal<Invitation | null>(null);
  protected readonly trouble = signal<string | null>(null);
  /** How many things would wait here once this device is out. */
  protected readonly waiting = signal<number | null>(null);
  protected readonly missing = missingHere();

  protected readonly leadsTo = computed(() => {
    const to = this.to() ?? '/plans';
    return INNER_PATH.test(to) ? to : '/plans';
  });
  protected readonly leads = computed(() =>
    this.leadsTo().startsWith('/bench/') ? 'to this run' : 'to the plans',
  );
  protected readonly pictures = computed(() => {
    const made = this.invitation();
    return (
      made && {
        door: asPicture(made.picture),
        trust: made.trust && asPicture(made.trust.picture),
        until: this.clock.time(Date.parse(made.until)),
        fingerprint: (made.trust?.fingerprint.split(':') ?? []).flatMap((_, i, all) =>
          i % PAIRS === 0 ? [all.slice(i, i + PAIRS).join(':')] : [],
        ),
      }
    );
  });

  constructor() {
    void this.look();
  }

  private async trying(work: () => Promise<void>): Promise<void> {
    try {
      await work();
      this.trouble.set(null);
    } catch (error) {
      this.trouble.set(faultOf(error).message);
    }
  }

  protected look(): Promise<void> {
    return this.trying(async () => {
      const { network } = await this.door.stands();
      if (network) this.devices.set(await this.door.devices());
      this.network.set(network);
    });
  }

  protected invite(): Promise<void> {
    return this.trying(async () => this.invitation.set(await this.door.invite(this.leadsTo())));
  }

  protected shutOut({ id }: SignedIn): Promise<void> {
    return this.trying(async () => {
      await this.door.shutOut(id);
      await this.look();
    });
  }

  protected shutOthersOut(): Promise<void> {
    return this.trying(async () => {
      await this.door.shutOthersOut();
      await this.look();
    });
  }

  private unsent(): number {
    return (
      this.plans.all().length +
      this.shelf.all().length +
      this.runs.state().unsent +
      this.photos.state().unsent
    );
  }

  /** What waits is sent first, and told where some of it still waits. */
  protected signOut(sure: boolean): Promise<void> {
    return this.trying(async () => {
      for (const box of [this.plans, this.shelf]) box.flush();
      for (const box of [this.runs, this.photos]) box.poke();
      for (let look = 0; look < LOOKS && this.unsent() > 0 && !sure; look++)
        await new Promise((resolve) => setTimeout(resolve, LOOK_AFTER));
      const waiting = this.unsent();
      this.waiting.set(waiting);
      if (waiting === 0 || sure) await this.door.signOut();
    });
  }

  protected readonly seen = ({ seenAt }: SignedIn): string => this.clock.dayTime(Date.parse(seenAt));
  protected readonly since = ({ since }: SignedIn): string => this.clock.dayTime(Date.parse(since));
}
