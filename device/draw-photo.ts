/**
 * Stands in for `server/evidence/draw-photo.ts` on a device: drawn by the browser, for this device's screens
 * only. The server gets the photo as it was taken and draws it itself.
 */
import type { DrawnPhoto } from '../server/evidence/draw-photo';

const LONGEST_EDGE_px = 1200;
const SMALL_px = 240;

export async function drawPhoto(bytes: Uint8Array): Promise<DrawnPhoto | null> {
  try {
    const picture = await createImageBitmap(new Blob([new Uint8Array(bytes)]), { imageOrientation: 'from-image' });
    const shrink = Math.min(1, LONGEST_EDGE_px / Math.max(picture.width, picture.height));
    const [width, height] = [Math.round(picture.width * shrink), Math.round(picture.height * shrink)];
    const full = await jpeg(picture, width, height, [0, 0, picture.width, picture.height], 0.82);
    const edge = Math.min(picture.width, picture.height);
    const corner = [(picture.width - edge) / 2, (picture.height - edge) / 2] as const;
    const small = await jpeg(picture, SMALL_px, SMALL_px, [...corner, edge, edge], 0.75);
    return { full, small, width, height };
  } catch {
    return null;
  }
}

async function jpeg(
  picture: ImageBitmap,
  width: number,
  height: number,
  [x, y, w, h]: readonly [number, number, number, number],
  quality: number,
): Promise<Buffer> {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')?.drawImage(picture, x, y, w, h, 0, 0, width, height);
  const blob = await canvas.convertToBlob({ type: 'image/jpeg', quality });
  return Buffer.from(await blob.arrayBuffer());
}
