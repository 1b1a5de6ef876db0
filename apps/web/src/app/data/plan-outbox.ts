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

/** A plan to be saved, and the save it grew from. */
export interface PlanSave {
  readonly plan: Plan;
  readonly saveId: string;
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
        sendLast: (id, { saveId, plan }) => lastWords('PUT', API.plan(id), { saveId, plan: filePlan(plan) }),
        isFinal,
        merge: (_waiting, newer) => newer,
        follow: (waiting, sent, { saveId }) =>
          waiting.saveId === sent.saveId ? { ...waiting, saveId } : waiting,
        pack: ({ plan, saveId }) => ({ plan: filePlan(plan), saveId }),
        unpack: (stored) => {
          try {
            // A page from before 0.2 kept no save's id: what it left is sent, and a person decides.
            const { plan, saveId = '' } = stored as { plan: unknown; saveId?: string };
            return { plan: unfilePlan(migratePlan(plan) as PlanFile), saveId };
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
  { plan, saveId }: PlanSave,
  tried: readonly PlanSave[],
): Promise<PlanSummary> {
  try {
    return await firstValueFrom(api.save(id, saveId, plan));
  } catch (error) {
    const current = currentOf(error);
    if (current === null || !tried.some((before) => equal(before.plan, current.plan))) throw error;
    return firstValueFrom(api.save(id, current.saveId, plan));
  }
}
