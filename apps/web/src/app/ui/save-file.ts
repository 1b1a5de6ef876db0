/** How long a browser may take to fetch what it was handed [ms]. */
const FETCHED = 10_000;

/** Hands a file out, named after what it is of. */
export function saveFile(blob: Blob, name: string, ending: string): void {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(blob);
  link.download = `${name.replace(/[^\p{L}\p{N} -]/gu, '').trim() || 'zaffet'}${ending}`;
  link.click();
  setTimeout(() => URL.revokeObjectURL(link.href), FETCHED);
}
