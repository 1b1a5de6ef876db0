import { labelsOf, type LaneLabel } from './labels';
import { type Lane } from './lanes';

const BOUNDS = { left: 128, right: 1128 };
const x = (moment: number): number => 128 + moment;
const clockText = (moment: number): string => `12:${String(Math.round(moment) % 60).padStart(2, '0')}`;
const lane = (changes: Partial<Lane>): Lane => ({
  id: 'a',
  index: 1,
  kind: 'coat',
  top: 0,
  height: 34,
  title: 'Kelp',
  colour: '#5d6b4b',
  clear: false,
  laidAt: 0,
  waitsFrom: 0,
  until: 0,
  segments: [
    { key: 'wet', label: 'wet', from: 0, to: 90 },
    { key: 'set', label: 'sets', from: 90, to: 300 },
    { key: 'touch', label: 'touch-dry', from: 300, to: 1000 },
  ],
  window: null,
  firstCracksAt: null,
  ...changes,
});
const widthOf = ({ text }: LaneLabel): number => text.length * 6;
const overlap = (labels: readonly LaneLabel[]): boolean =>
  labels.some((a, i) => labels.some((b, k) => k > i && a.x < b.x + widthOf(b) && b.x < a.x + widthOf(a)));
const read = (of: Lane, below?: Lane): LaneLabel[] => labelsOf(of, below, x, BOUNDS, clockText);

describe('labels on a lane', () => {
  it('tell window, cracks and states, none over another', () => {
    for (let at = 0; at < 900; at += 13)
      for (const closesAt of [null, at + 60, at + 400]) {
        const labels = read(
          lane({ window: { opensAt: at, closesAt, label: 'top coat from 12:05 on' }, firstCracksAt: at + 7 }),
        );
        expect(overlap(labels)).withContext(`${at} ${closesAt}`).toBeFalse();
        expect(labels.some(({ look }) => look === 'window-text'))
          .withContext(`${at}`)
          .toBeTrue();
        for (const label of labels) {
          expect(label.x).toBeGreaterThanOrEqual(BOUNDS.left);
          expect(label.x + widthOf(label)).toBeLessThanOrEqual(BOUNDS.right);
        }
      }
  });

  it('leave the moment out where only the name has room, and the name where not even that has', () => {
    const short = { key: 'touch', label: 'touch-dry', from: 300 } as const;
    const texts = (to: number): string[] =>
      read(lane({ segments: [{ ...short, to }] })).map(({ text }) => text);
    expect(texts(700)).toEqual(['touch-dry 12:00']);
    expect(texts(375)).toEqual(['touch-dry']);
    expect(texts(320)).toEqual([]);
  });

  it('keep clear of the handle that hangs in from the lane below', () => {
    const window = { opensAt: 100, closesAt: null, label: 'top coat from 12:05 on' };
    const [label] = read(lane({ window, segments: [] }), lane({ laidAt: 940 }));
    expect(label!.x > 128 + 940 || label!.x + widthOf(label!) < 128 + 940).toBeTrue();
  });
});
