import { type Lane } from './lanes';

/** Words on a lane: where they begin [px] and how they look. */
export interface LaneLabel {
  readonly text: string;
  readonly x: number;
  readonly look: 'state-text' | 'window-text' | 'crack-text';
}

/** What a label may be: texts from the fullest to the shortest, each where it would like to stand, best place first. */
interface Wish {
  readonly look: LaneLabel['look'];
  readonly texts: readonly string[];
  readonly places: (width: number) => readonly number[];
  /** It stays left of this [px]. */
  readonly right: number;
}
type Span = readonly [number, number];

/** How wide a letter is at the size labels are written in [px]. */
const LETTER = 6.4;
const BOLD_LETTER = 6.9;
const GAP = 5;
/** Half of the handle by which a lane's start is dragged, and of the line that hangs from it into the lane above [px]. */
const HANDLE = 8;
const DROP = 3;
/** Half of the mark of the first cracks [px]. */
const MARK = 5;

const widthOf = (text: string, look: LaneLabel['look']): number =>
  text.length * (look === 'window-text' ? BOLD_LETTER : LETTER);

const clashes = ([from, to]: Span, taken: readonly Span[]): boolean =>
  taken.some(([a, b]) => from < b + GAP && a < to + GAP);

/**
 * Finds every label a place of its own on a lane, the more important first; one that finds none is left out.
 * @param x - place of a moment [px]
 * @param bounds - from where to where labels may stand [px]
 * @param below - the lane below, whose handle hangs into this one
 */
export function labelsOf(
  lane: Lane,
  below: Lane | undefined,
  x: (moment: number) => number,
  bounds: { readonly left: number; readonly right: number },
  clockText: (moment: number) => string,
): LaneLabel[] {
  const taken: Span[] = [];
  if (lane.index > 0) taken.push([x(lane.laidAt) - HANDLE, x(lane.laidAt) + HANDLE - GAP]);
  // The mark of the first cracks stands there whatever is written beside it.
  if (lane.firstCracksAt !== null)
    taken.push([x(lane.firstCracksAt) - MARK, x(lane.firstCracksAt) + MARK - GAP]);
  if (below !== undefined) taken.push([x(below.laidAt) - DROP, x(below.laidAt) + DROP]);
  return wishesOf(lane, x, bounds, clockText).flatMap((wish): LaneLabel[] => {
    for (const text of wish.texts) {
      const width = widthOf(text, wish.look);
      const place = wish
        .places(width)
        .find(
          (from) =>
            from >= bounds.left && from + width <= wish.right && !clashes([from, from + width], taken),
        );
      if (place === undefined) continue;
      taken.push([place, place + width]);
      return [{ text, x: place, look: wish.look }];
    }
    return [];
  });
}

/** What a lane has to say, the most important first: its window, its first cracks, its states. */
function wishesOf(
  lane: Lane,
  x: (moment: number) => number,
  { right }: { readonly right: number },
  clockText: (moment: number) => string,
): readonly Wish[] {
  const { window, firstCracksAt, segments } = lane;
  const wishes: Wish[] = [];
  if (window !== null) {
    const opens = x(window.opensAt) + GAP + 1;
    const closes = window.closesAt === null ? right : x(window.closesAt);
    wishes.push({
      look: 'window-text',
      texts: [window.label],
      places: (width) => [
        window.closesAt === null ? right - width - GAP : closes + GAP + 1,
        opens,
        opens - width - 2 * GAP,
        right - width - GAP,
      ],
      right,
    });
  }
  if (firstCracksAt !== null) {
    const at = x(firstCracksAt) + GAP + 2;
    wishes.push({
      look: 'crack-text',
      texts: [`first cracks ${clockText(firstCracksAt)}`, 'first cracks'],
      places: (width) => [at, at - width - 3 * GAP],
      right,
    });
  }
  for (const { key, label, from, to } of segments) {
    const at = x(from);
    wishes.push({
      look: 'state-text',
      texts:
        key === 'wet' ? [label] : key === 'work' ? [clockText(from)] : [`${label} ${clockText(from)}`, label],
      places: () => [at + (key === 'wet' ? HANDLE + 4 : GAP)],
      right: x(to) - GAP,
    });
  }
  return wishes;
}
