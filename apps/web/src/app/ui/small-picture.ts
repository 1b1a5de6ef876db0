/** Longest sides tried [px], the largest that fits is kept. */
const SIDES = [320, 240, 180, 120, 80];
const QUALITY = 0.72;

/**
 * A picture made small enough to travel inside a plan.
 * @param most - longest data URL it may become, in characters
 * @returns a JPEG as a data URL; null where the file is no picture the browser can read
 */
export async function smallPicture(file: Blob, most: number): Promise<string | null> {
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    return null;
  }
  const canvas = document.createElement('canvas');
  const context = canvas.getContext('2d');
  if (context === null) return null;
  for (const side of SIDES) {
    const scale = Math.min(1, side / Math.max(bitmap.width, bitmap.height));
    canvas.width = Math.max(1, Math.round(bitmap.width * scale));
    canvas.height = Math.max(1, Math.round(bitmap.height * scale));
    context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    const picture = canvas.toDataURL('image/jpeg', QUALITY);
    if (picture.length <= most) return picture;
  }
  return null;
}
