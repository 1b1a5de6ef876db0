import { computed, DestroyRef, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Title } from '@angular/platform-browser';
import { type Alarm, alarmsOf, due } from '@zaffet/workshop';
import { Sound } from '../data/sound';
import { BenchModel } from '../runs/bench-model';
import { alarmText, duration } from '@zaffet/words';
import { type ClockMessage } from '../workers/alarm-clock';
import { countdown } from './countdown';
import { RunBox } from '../runs/run-box';

/** Whether this device can be made to ring, and to stay awake. */
export interface AlarmMeans {
  readonly notices: 'granted' | 'denied' | 'not asked' | 'missing';
  readonly awake: boolean;
}

/** From so long after its moment on it is told how long ago that was [s]. */
const LATE = 60;
const BUZZ = [300, 150, 300];
/** It is kept this often until when alarms were heard [ms]. */
const NOTED_EVERY = 5000;

/** What an alarm says: what, on which part, how long ago. */
export interface Rung {
  readonly alarm: Alarm;
  readonly text: string;
}

/** Rings what is due: by sound, notice, title and vibration, as far as this browser lets it. */
@Injectable()
export class BenchAlarms {
  private readonly model = inject(BenchModel);
  private readonly sound = inject(Sound);
  private readonly box = inject(RunBox);
  private readonly title = inject(Title);
  private readonly rungAt = new Map<string, number>();
  /** Until when this device has listened; alarms of a time when the page was closed ring when it opens. */
  private since: number | null = null;
  private noted = 0;
  private lock: WakeLockSentinel | null = null;
  private readonly shared = sharedClock();
  readonly means = signal<AlarmMeans>({ notices: noticesOf(), awake: false });
  private readonly rung = signal<readonly Alarm[]>([]);
  /** What rang and still holds, the newest first. */
  readonly shown = computed(() => {
    const ids = new Set(this.alarms().map(({ id }) => id));
    return this.rung()
      .filter(({ id }) => ids.has(id))
      .map((alarm) => this.said(alarm));
  });
  private readonly alarms = computed(() => {
    const bench = this.model.bench();
    return bench === null || this.model.run()?.paused === true ? [] : alarmsOf(bench);
  });

  constructor() {
    const heard = signal(false);
    effect(() => {
      const runId = this.model.runId();
      heard.set(false);
      if (runId === null) return;
      void this.box.heardUntil(runId).then((until) => {
        this.since = until;
        heard.set(true);
      });
    });
    effect(() => {
      const [now, alarms] = [this.model.now(), this.alarms()];
      // How it stands is not known yet: what fell due is not to be missed for that.
      if (heard() && this.model.bench() !== null) untracked(() => this.ring(alarms, now));
    });
    // Still wanted when another room is opened: then the shared clock alone rings.
    effect(() => {
      const [runId, run, alarms, { offsetMs }] = [
        this.model.runId(),
        this.model.run(),
        this.alarms(),
        this.box.state(),
      ];
      if (runId === null || run === null || this.model.bench() === null) return;
      this.tell({
        kind: 'wanted',
        runId,
        rings: alarms.map((alarm) => ({
          id: alarm.id,
          at: alarm.at - offsetMs,
          text: alarmText(alarm, run.plan),
          to: location.pathname,
        })),
      });
    });
    effect(() => this.title.setTitle(this.titleNow()));
    const again = (): void => {
      if (document.visibilityState === 'visible' && this.means().awake) void this.stayAwake();
    };
    document.addEventListener('visibilitychange', again);
    inject(DestroyRef).onDestroy(() => {
      document.removeEventListener('visibilitychange', again);
      void this.lock?.release();
    });
  }

  private ring(alarms: readonly Alarm[], now: number): void {
    const since = this.since ?? now;
    this.since = now;
    const runId = this.model.runId();
    if (runId !== null && now - this.noted > NOTED_EVERY) {
      this.noted = now;
      void this.box.hear(runId, now);
    }
    // A window that moved rings again only where it moved into the future.
    const fresh = due(alarms, since, now).filter(({ id, at }) => (this.rungAt.get(id) ?? -Infinity) < at);
    if (fresh.length === 0) return;
    for (const { id } of fresh) this.rungAt.set(id, now);
    this.rung.update((before) => newestOfEach([...fresh.toReversed(), ...before]));
    if (runId !== null) this.tell({ kind: 'rung', runId, ids: fresh.map(({ id }) => id) });
    this.sound.ring();
    navigator.vibrate?.(BUZZ);
    if (this.means().notices === 'granted') for (const alarm of fresh) void this.notice(this.said(alarm));
  }

  private said(alarm: Alarm): Rung {
    const gone = (this.model.now() - alarm.at) / 1000;
    const late = gone > LATE ? `, ${duration(gone)} ago` : '';
    return { alarm, text: `${alarmText(alarm, this.model.run()!.plan)}${late}` };
  }

  private tell(message: ClockMessage): void {
    this.shared?.port.postMessage(message);
  }

  /** By the page's worker where there is one: a phone takes notices from nobody else. */
  private async notice({ alarm, text }: Rung): Promise<void> {
    const told = { body: text, tag: alarm.id, data: { to: location.pathname } };
    try {
      const registration = await navigator.serviceWorker?.getRegistration();
      if (registration?.active != null) await registration.showNotification('Zaffet', told);
      else new Notification('Zaffet', told);
    } catch {
      this.means.update((before) => ({ ...before, notices: 'missing' }));
    }
  }

  private readonly titleNow = computed(() => {
    const name = this.model.run()?.plan.name ?? 'Bench';
    const closing = this.model
      .cards()
      .flatMap(({ task }) => task?.closes ?? [])
      .filter(({ at }) => at > this.model.now())
      .sort((a, b) => a.at - b.at)[0];
    return closing === undefined
      ? `${name} · Zaffet`
      : `● ${countdown(closing.at - this.model.now())} left · Zaffet`;
  });

  drop(id: string): void {
    this.rung.update((before) => before.filter((alarm) => alarm.id !== id));
  }

  /** Asks the browser for notices, and keeps the screen awake: to be called by a press. */
  async arm(): Promise<void> {
    if ('Notification' in globalThis && Notification.permission === 'default')
      await Notification.requestPermission();
    this.means.update((before) => ({ ...before, notices: noticesOf() }));
    this.sound.ring();
    await this.stayAwake();
  }

  private async stayAwake(): Promise<void> {
    try {
      this.lock = await navigator.wakeLock.request('screen');
      this.means.update((before) => ({ ...before, awake: true }));
    } catch {
      this.means.update((before) => ({ ...before, awake: false }));
    }
  }
}

/** One alarm a task: a newer one says more than those before it. */
export const newestOfEach = (alarms: readonly Alarm[]): Alarm[] =>
  alarms.filter(({ task }, i) => alarms.findIndex((other) => other.task.key === task.key) === i);

/** A clock that goes on while pages sleep; none where the browser lacks it, or no page's worker could show its notices. */
function sharedClock(): SharedWorker | null {
  if (!('SharedWorker' in globalThis) || navigator.serviceWorker?.controller == null) return null;
  return new SharedWorker(new URL('../workers/alarm-clock.worker', import.meta.url), { type: 'module' });
}

function noticesOf(): AlarmMeans['notices'] {
  if (!('Notification' in globalThis)) return 'missing';
  return Notification.permission === 'default' ? 'not asked' : Notification.permission;
}
