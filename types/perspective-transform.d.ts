/** The part of perspective-transform 1.1 that the checks use; it brings no types. */
declare function perspective(
  from: readonly number[],
  to: readonly number[],
): { transform(x: number, y: number): [number, number] };
export default perspective;
