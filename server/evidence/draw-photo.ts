import sharp from 'sharp';

/** Enough to read a stamped number by; kept at this size. */
const LONGEST_EDGE_px = 2000;
const SMALL_px = 240;
/** More is no photo of a phone: a picture made to fill the memory. */
const MOST_PIXELS = 80e6;
const PHOTO_FORMATS: ReadonlySet<string> = new Set(['jpeg', 'png', 'webp', 'heif']);

/** A photo as it is kept. */
export interface DrawnPhoto {
  readonly full: Buffer;
  readonly small: Buffer;
  readonly width: number;
  readonly height: number;
}

/** Draws it anew as JPEG, with a small one beside it; `null`: it is no photo. */
export async function drawPhoto(bytes: Buffer): Promise<DrawnPhoto | null> {
  try {
    const source = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
    if (!PHOTO_FORMATS.has((await source.metadata()).format)) return null;
    const { data: full, info } = await source
      .rotate()
      .resize({ width: LONGEST_EDGE_px, height: LONGEST_EDGE_px, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#fff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true });
    const small = await sharp(full)
      .resize({ width: SMALL_px, height: SMALL_px, fit: 'cover' })
      .jpeg({ quality: 75 })
      .toBuffer();
    return { full, small, width: info.width, height: info.height };
  } catch {
    return null;
  }
}
