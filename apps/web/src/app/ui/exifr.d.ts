/** The smallest build of exifr 7.1, which ships types of the full one alone. */
declare module 'exifr/dist/mini.esm.mjs' {
  /** @returns the tags asked for by number; nothing where there are none */
  export function parse(
    file: Blob,
    tags: readonly number[],
  ): Promise<Readonly<Record<string, unknown>> | undefined>;
}
