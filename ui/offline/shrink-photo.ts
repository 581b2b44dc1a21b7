/** As the server would keep it: a photo that waits takes no more room than that. */
const LONGEST_EDGE_px = 2000;
const QUALITY = 0.85;

/**
 * The photo, no larger than the server keeps it; as it is where it cannot be drawn, which the server then
 * says.
 */
export async function shrinkPhoto(bytes: ArrayBuffer): Promise<ArrayBuffer> {
  try {
    const picture = await createImageBitmap(new Blob([bytes]), { imageOrientation: 'from-image' });
    const shrink = LONGEST_EDGE_px / Math.max(picture.width, picture.height);
    if (shrink >= 1) return bytes;
    const canvas = new OffscreenCanvas(Math.round(picture.width * shrink), Math.round(picture.height * shrink));
    canvas.getContext('2d')?.drawImage(picture, 0, 0, canvas.width, canvas.height);
    return await (await canvas.convertToBlob({ type: 'image/jpeg', quality: QUALITY })).arrayBuffer();
  } catch {
    return bytes;
  }
}
