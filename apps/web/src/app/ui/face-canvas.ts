import { ChangeDetectionStrategy, Component, effect, type ElementRef, input, viewChild } from '@angular/core';
import { type FaceAnswer } from '../workers/messages';

/** Shows a drawn face as large as it fits; a coarse one at the same size. */
@Component({
  selector: 'zf-face-canvas',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '<canvas #canvas role="img" [attr.aria-label]="label()"></canvas>',
  // An upright part stands in a broad frame: its picture is never stretched to it.
  styles:
    ':host { display: block; } canvas { display: block; width: 100%; height: 100%; object-fit: contain; }',
})
export class FaceCanvas {
  readonly answer = input.required<FaceAnswer | null>();
  readonly label = input.required<string>();
  private readonly canvas = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');

  constructor() {
    effect(() => {
      const answer = this.answer();
      if (answer?.outcome !== 'done') return;
      const canvas = this.canvas().nativeElement;
      if (canvas.width !== answer.columns || canvas.height !== answer.rows) {
        canvas.width = answer.columns;
        canvas.height = answer.rows;
      }
      canvas.getContext('2d')?.putImageData(new ImageData(answer.rgba, answer.columns, answer.rows), 0, 0);
      canvas.dataset['quality'] = answer.quality;
      canvas.dataset['fingerprint'] = String(answer.fingerprint);
    });
  }
}
