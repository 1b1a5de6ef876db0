/** Mixes three whole numbers into an unsigned 32-bit hash; the finaliser is that of MurmurHash3 (public domain). */
export function hash3(a: number, b: number, c: number): number {
  let h = Math.imul(a | 0, 0x9e3779b1) ^ Math.imul(b | 0, 0x85ebca77) ^ Math.imul(c | 0, 0xc2b2ae3d);
  h ^= h >>> 16;
  h = Math.imul(h, 0x85ebca6b);
  h ^= h >>> 13;
  h = Math.imul(h, 0xc2b2ae35);
  h ^= h >>> 16;
  return h >>> 0;
}

/** A stateless uniform value in (0, 1): the same for the same index, seed and channel. */
export function uniform(index: number, seed: number, channel: number): number {
  return (hash3(index, seed, channel) + 0.5) / 4294967296;
}

/** FNV-1a over the bytes of numbers as 32-bit floats: a fingerprint of a field. */
export function fingerprint(values: Float32Array, count: number): number {
  const words = new Uint32Array(values.buffer, values.byteOffset, count);
  let h = 0x811c9dc5;
  for (let i = 0; i < count; i++) {
    const word = words[i]!;
    for (let shift = 0; shift < 32; shift += 8) {
      h ^= (word >>> shift) & 255;
      h = Math.imul(h, 0x01000193);
    }
  }
  return h >>> 0;
}
