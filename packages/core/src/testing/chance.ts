/** Numbers by chance between 0 and 1 from a generator of the checks' own, so that they are not the core's (Lehmer 1951). */
export function chanceFrom(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48271) % 2147483647) / 2147483647;
}
