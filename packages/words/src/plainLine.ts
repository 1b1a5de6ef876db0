/** Control characters and separators of lines: a name from a file may hold them, a line of another format may not. */
const BREAKS = /[\p{Cc}\u2028\u2029]+/gu;

/** A text as one line. */
export const oneLine = (text: string): string => text.replace(BREAKS, ' ').trim();

/** A text of several lines, parted by line feeds alone. */
export const plainLines = (text: string): string =>
  text
    .split(/\r\n|[\n\r\u2028\u2029]/)
    .map(oneLine)
    .join('\n');
