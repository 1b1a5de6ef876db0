/**
 * Reads how something answers to a factor, between the factors tried: straight lines in logarithms, level beyond.
 * @param nodes - factors tried, rising, above 0
 * @param ratios - the answers, above 0
 */
export function answerAt(nodes: readonly number[], ratios: readonly number[], factor: number): number {
  if (nodes.length < 2) return ratios[0] ?? 1;
  let k = 1;
  while (k < nodes.length - 1 && factor > nodes[k]!) k++;
  const from = Math.log(nodes[k - 1]!);
  const share = (Math.log(Math.max(1e-3, factor)) - from) / (Math.log(nodes[k]!) - from);
  return ratios[k - 1]! * (ratios[k]! / ratios[k - 1]!) ** Math.min(1, Math.max(0, share));
}
