import { Injectable } from '@angular/core';
import { chosenOf } from './chosen';

export const SOUNDS = ['on', 'off'] as const;

/** Two tones, the second higher: heard over a sander, and no word in any language [Hz, s]. */
const TONES = [
  { hertz: 660, from: 0, lasts: 0.22 },
  { hertz: 880, from: 0.26, lasts: 0.34 },
];
const LOUD = 0.25;

/** What this device rings with; silent where it was told to be, and where the browser lets nothing be heard. */
@Injectable({ providedIn: 'root' })
export class Sound {
  private readonly chosen = chosenOf('zaffet.sound', SOUNDS);
  readonly state = this.chosen.value;
  readonly choose = this.chosen.choose;
  private context: AudioContext | null = null;

  ring(): void {
    if (this.state() === 'off') return;
    this.context ??= new AudioContext();
    const { context } = this;
    // A browser lets a page be heard once somebody has touched it.
    void context.resume().then(() => {
      for (const { hertz, from, lasts } of TONES) {
        const [tone, volume] = [context.createOscillator(), context.createGain()];
        const at = context.currentTime + from;
        tone.frequency.value = hertz;
        volume.gain.setValueAtTime(LOUD, at);
        volume.gain.exponentialRampToValueAtTime(0.001, at + lasts);
        tone.connect(volume).connect(context.destination);
        tone.start(at);
        tone.stop(at + lasts);
      }
    });
  }
}
