/// <reference path="./fontkit.d.ts" />
import * as fontkit from 'fontkit';

/** What a font can print. */
export interface Letters {
  /** A value with every text in it as the font can print it, and whether letters were lost to that. */
  print<T>(value: T): { printed: T; lost: boolean };
}

/** Raster data is numbers alone, and may be millions. */
const RASTERS: readonly string[] = ['map'];
const STANDS_FOR = '?';

/** Reads which letters a font file has. */
export function openFont(path: string): Letters {
  const font = fontkit.openSync(path);
  return {
    print: (value) => {
      let lost = false;
      const text = (whole: string): string =>
        [...whole]
          .map((letter) => {
            if (letter === '\n' || font.hasGlyphForCodePoint(letter.codePointAt(0)!)) return letter;
            lost = true;
            return STANDS_FOR;
          })
          .join('');
      const walk = (node: unknown): unknown => {
        if (typeof node === 'string') return text(node);
        if (Array.isArray(node)) return node.map(walk);
        if (typeof node !== 'object' || node === null) return node;
        return Object.fromEntries(
          Object.entries(node).map(([key, child]) => [key, RASTERS.includes(key) ? child : walk(child)]),
        );
      };
      return { printed: walk(value) as typeof value, lost };
    },
  };
}
