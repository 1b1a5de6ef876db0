declare module 'fontkit' {
  /** A font file; the library ships no types of its own. */
  export interface Font {
    hasGlyphForCodePoint(codePoint: number): boolean;
  }
  export function openSync(path: string): Font;
}
