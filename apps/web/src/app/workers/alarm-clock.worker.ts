import { AlarmClock, type ClockMessage, RING_ADDRESS } from './alarm-clock';

const clock = new AlarmClock();
let timer: ReturnType<typeof setTimeout> | undefined;

/** Rings what is due by way of the page's worker: a phone takes notices from nobody else. */
function turn(): void {
  clearTimeout(timer);
  for (const ring of clock.due(Date.now()))
    void fetch(RING_ADDRESS, { method: 'POST', body: JSON.stringify(ring) }).catch(() => undefined);
  timer = setTimeout(turn, clock.sleeps(Date.now()));
}

(globalThis as unknown as SharedWorkerGlobalScope).onconnect = ({ ports: [port] }): void => {
  port!.onmessage = ({ data }: MessageEvent<ClockMessage>): void => {
    clock.hear(data, Date.now());
    turn();
  };
};
