import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { type FaceAnswer } from '../workers/messages';
import { FaceCanvas } from './face-canvas';

describe('the picture of an upright part', () => {
  it('keeps its proportions in a broad frame', () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(FaceCanvas);
    const [columns, rows] = [40, 60];
    const answer = {
      outcome: 'done',
      rgba: new Uint8ClampedArray(4 * columns * rows),
      columns,
      rows,
      quality: 'full',
      fingerprint: 1,
    } as unknown as FaceAnswer;
    fixture.componentRef.setInput('answer', answer);
    fixture.componentRef.setInput('label', 'Left cheek');
    fixture.detectChanges();
    const canvas = (fixture.nativeElement as HTMLElement).querySelector('canvas')!;
    expect([canvas.width, canvas.height]).toEqual([columns, rows]);
    expect(getComputedStyle(canvas).objectFit).toBe('contain');
  });
});
