import { type FaceAnswer } from '../../workers/messages';

/** Height of the strip under the picture that holds scale and words [px]. */
const STRIP = 46;

/** What is written under a picture that leaves Zaffet. */
export interface Caption {
  readonly name: string;
  readonly detail: string;
  /** Scale bar: its text, and its length as a share of the picture's width. */
  readonly bar: { readonly text: string; readonly share: number } | null;
}

/** A face as a PNG file, with its scale and what it shows under it. */
export async function pictureFile(answer: FaceAnswer & { outcome: 'done' }, caption: Caption): Promise<Blob> {
  const { columns, rows, rgba } = answer;
  const canvas = new OffscreenCanvas(columns, rows + STRIP);
  const context = canvas.getContext('2d')!;
  context.fillStyle = '#f1f0ed';
  context.fillRect(0, 0, columns, rows + STRIP);
  context.putImageData(new ImageData(rgba, columns, rows), 0, 0);
  context.fillStyle = '#23262a';
  context.textBaseline = 'middle';
  context.font = '600 13px "Instrument Sans Variable", sans-serif';
  context.fillText(caption.name, 10, rows + 15, columns / 2);
  context.font = '12px "Instrument Sans Variable", sans-serif';
  context.fillText(caption.detail, 10, rows + 33, columns / 2);
  if (caption.bar !== null) {
    const length = caption.bar.share * columns;
    context.fillRect(columns - 10 - length, rows + 12, length, 4);
    context.textAlign = 'right';
    context.fillText(caption.bar.text, columns - 10, rows + 30);
  }
  return canvas.convertToBlob({ type: 'image/png' });
}
