/** A panel's size [m]; oval ones fill an ellipse in it, round where it is as wide as high. */
export interface PanelSize {
  readonly width: number;
  readonly height: number;
  readonly oval?: boolean;
}

/** Area of a panel [m²]. */
export const panelArea = ({ width, height, oval }: PanelSize): number =>
  (oval === true ? Math.PI / 4 : 1) * width * height;

/**
 * How far a place lies inside the rim, below 0 outside; in the unit of the size. Of an ellipse the distance along the
 * line to its middle, put upright on the rim: exact for a circle and at the rim, else to first order.
 */
export function fromRim({ width, height, oval }: PanelSize, x: number, y: number): number {
  if (oval !== true) return Math.min(x, y, width - x, height - y);
  const [a, b] = [0.5 * width, 0.5 * height];
  const [dx, dy] = [x - a, y - b];
  const out = Math.hypot(dx / a, dy / b);
  // In the very middle every way out is as good: the shortest one counts.
  return out < 1e-9
    ? Math.min(a, b)
    : Math.min(Math.min(a, b), ((1 - out) * out) / Math.hypot(dx / (a * a), dy / (b * b)));
}
