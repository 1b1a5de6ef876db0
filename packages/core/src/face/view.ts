import { type CrackLaw, crackPattern, MAX_ISLANDS } from '../crack';
import { type Panel } from '../plan';

/** How close the eye is: the width of panel shown [mm], or all of it. */
export const FACE_VIEWS = { close: 60, arm: 150, whole: Infinity } as const;
export type FaceViewKey = keyof typeof FACE_VIEWS;

/** The part of a panel that is drawn, in mm, centred on the panel; never larger than the panel. */
export interface FaceView {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly leftMm: number;
  readonly topMm: number;
  /** Edges of the view that are edges of the panel. */
  readonly edges: {
    left: 'free' | 'pinned';
    right: 'free' | 'pinned';
    top: 'free' | 'pinned';
    bottom: 'free' | 'pinned';
  };
  /** True when the wish was cut down because so many islands would take too long to grow. */
  readonly reduced: boolean;
}

/**
 * Which part of the panel to grow and draw for a wish, at the picture's aspect.
 * A fine web on a whole panel would hold too many islands: then the middle of the panel is shown.
 * @param aspect - picture width over height
 */
export function faceView(
  panel: Panel,
  key: FaceViewKey,
  aspect: number,
  laws: readonly CrackLaw[],
): FaceView {
  const panelW = panel.width * 1000;
  const panelH = panel.height * 1000;
  let widthMm = Math.min(FACE_VIEWS[key], panelW);
  let heightMm = key === 'whole' ? panelH : Math.min(widthMm / aspect, panelH);
  if (key !== 'whole') widthMm = Math.min(widthMm, heightMm * aspect);
  let reduced = false;
  // Every pattern is grown: together they may hold so many islands.
  const islands = laws.reduce((sum, law) => {
    const spacing = Math.max(0.3, crackPattern(law).spacingUm / 1000);
    return sum + (widthMm * heightMm) / (spacing * spacing);
  }, 0);
  if (islands > MAX_ISLANDS) {
    const shrink = Math.sqrt(MAX_ISLANDS / islands);
    widthMm *= shrink;
    heightMm *= shrink;
    reduced = true;
  }
  const leftMm = 0.5 * (panelW - widthMm);
  const topMm = 0.5 * (panelH - heightMm);
  const side = (gap: number): 'free' | 'pinned' => (gap < 0.5 ? 'free' : 'pinned');
  return {
    widthMm,
    heightMm,
    leftMm,
    topMm,
    edges: { left: side(leftMm), right: side(leftMm), top: side(topMm), bottom: side(topMm) },
    reduced,
  };
}
