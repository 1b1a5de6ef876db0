import { ChangeDetectionStrategy, Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { type ComponentFixture, TestBed } from '@angular/core/testing';
import { type CellReading } from '@zaffet/core/board';
import { type Correction } from '@zaffet/core/photo';
import { type CellTool, CellView } from './cell-view';

const SIDE = 100;
/** Ten pixels a millimetre, with a crack down the middle. */
const CELL = {
  pxPerMm: 10,
  seen: { width: SIDE, height: SIDE, data: new Uint8ClampedArray(4 * SIDE * SIDE).fill(255) },
  cracks: {
    columns: SIDE,
    rows: SIDE,
    mask: Uint8Array.from({ length: SIDE * SIDE }, (_, i) => (Math.abs((i % SIDE) - 50) < 4 ? 1 : 0)),
  },
} as unknown as CellReading;

@Component({
  imports: [CellView],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<zf-cell-view
    style="display: block; width: 200px"
    label="Cell 1"
    [cell]="cell"
    [tool]="tool()"
    [widthMm]="2"
    (stroked)="strokes.push($event)"
  />`,
})
class Host {
  readonly cell = CELL;
  readonly tool = signal<CellTool>('look');
  readonly strokes: Correction[] = [];
}

describe('a cell that is put right by hand', () => {
  let host: ComponentFixture<Host>;
  let canvas: HTMLCanvasElement;
  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    host = TestBed.createComponent(Host);
    document.body.append(host.nativeElement as HTMLElement);
    await host.whenStable();
    canvas = (host.nativeElement as HTMLElement).querySelector('canvas')!;
  });
  afterEach(() => (host.nativeElement as HTMLElement).remove());

  const press = async (key: string, shiftKey = false): Promise<void> => {
    canvas.dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey }));
    await host.whenStable();
  };

  it('outlines what was taken for crack', () => {
    const at = (x: number): number[] => [...canvas.getContext('2d')!.getImageData(x, 50, 1, 1).data];
    expect(at(20)).toEqual([255, 255, 255, 255]);
    expect(at(47)).toEqual([226, 60, 38, 255]);
    expect(at(50)).toEqual([255, 255, 255, 255]);
  });

  it('tells a stroke of the keys in millimetres, from where it began to where it ended', async () => {
    await press('Enter');
    expect(host.componentInstance.strokes).toEqual([]);
    host.componentInstance.tool.set('erase');
    await host.whenStable();
    for (const key of ['ArrowUp', 'Enter', 'ArrowRight', 'ArrowRight', 'Enter']) await press(key);
    expect(host.componentInstance.strokes).toEqual([
      {
        kind: 'erase',
        widthMm: 2,
        points: [
          { x: 5, y: 4.5 },
          { x: 5.5, y: 4.5 },
          { x: 6, y: 4.5 },
        ],
      },
    ]);
  });

  it('never leaves the cell, and goes further with Shift', async () => {
    host.componentInstance.tool.set('draw');
    await host.whenStable();
    await press('ArrowLeft', true);
    await press('ArrowLeft', true);
    await press('Enter');
    await press('Enter');
    expect(host.componentInstance.strokes[0]!.points[0]).toEqual({ x: 0, y: 5 });
  });
});
