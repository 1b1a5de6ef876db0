import { inject, Injectable, type OnDestroy } from '@angular/core';
import {
  API,
  filePlan,
  migratePlan,
  type Plan,
  type PlanFile,
  type PlanSummary,
  unfilePlan,
} from '@zaffet/contract';
import equal from 'fast-deep-equal';
import { firstValueFrom } from 'rxjs';
import { lastWords } from './last-words';
import { Outbox, OUTBOX_PAUSES, type Sending } from './outbox';
import { currentOf, isFinal, PlansApi } from './plans.api';
import { Unsaved } from './unsaved';

/** A plan to be saved, and the revision it grew from. */
export interface PlanSave {
  readonly plan: Plan;
  readonly revision: number;
}

export type PlanSending = Sending<PlanSave, PlanSummary>;

/** Saves of plans on their way, of whichever plan is open. */
@Injectable({ providedIn: 'root' })
export class PlanOutbox extends Outbox<PlanSave, PlanSummary> implements OnDestroy {
  constructor() {
    const api = inject(PlansApi);
    super(
      inject(Unsaved),
      {
        box: 'plans',
        former: 'zaffet-draft-',
        send: (id, save, tried) => send(api, id, save, tried),
        sendLast: (id, { revision, plan }) =>
          lastWords('PUT', API.plan(id), { revision, plan: filePlan(plan) }),
        isFinal,
        merge: (_waiting, newer) => newer,
        follow: (waiting, sent, { revision }) =>
          waiting.revision === sent.revision ? { ...waiting, revision } : waiting,
        pack: ({ plan, revision }) => ({ plan: filePlan(plan), revision }),
        unpack: (stored) => {
          try {
            const { plan, revision } = stored as { plan: unknown; revision: number };
            return { plan: unfilePlan(migratePlan(plan) as PlanFile), revision };
          } catch {
            return null;
          }
        },
      },
      inject(OUTBOX_PAUSES),
    );
  }

  ngOnDestroy(): void {
    this.stop();
  }
}

/**
 * Saves a plan. A save that was taken while its answer was lost shows as a conflict with what this window sent itself:
 * then it goes on from there.
 */
async function send(
  api: PlansApi,
  id: string,
  { plan, revision }: PlanSave,
  tried: readonly PlanSave[],
): Promise<PlanSummary> {
  try {
    return await firstValueFrom(api.save(id, revision, plan));
  } catch (error) {
    const current = currentOf(error);
    if (current === null || !tried.some((before) => equal(before.plan, current.plan))) throw error;
    return firstValueFrom(api.save(id, current.revision, plan));
  }
}
