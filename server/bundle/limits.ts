import { MOST_BLOCK_BYTES, MOST_BUNDLED_BLOCKS, MOST_BUNDLED_BYTES } from '../traces/trace-limits';
import { MOST_PHOTO_BYTES, MOST_PHOTOS, MOST_PHOTOS_BYTES } from '../evidence/photo-limits';

/** Beside its photos: manifest, job and readings. */
const OTHER_FILES = 3;
/**
 * Jobs of before there were these limits may hold more photos than can be added now: they travel all the
 * same.
 */
const ROOM_FOR_OLDER = 10;
export const MOST_ENTRIES = MOST_PHOTOS * ROOM_FOR_OLDER + MOST_BUNDLED_BLOCKS + OTHER_FILES;
export const MOST_FILE_BYTES = { manifest: 2e6, json: 40e6, photo: MOST_PHOTO_BYTES, block: MOST_BLOCK_BYTES } as const;
/** Of all files together, unpacked. */
export const MOST_UNPACKED_BYTES = MOST_PHOTOS_BYTES + MOST_BUNDLED_BYTES + 2 * MOST_FILE_BYTES.json;
/** Of a bundle as it is sent. Photos are packed as they are, so it is hardly smaller than its content. */
export const MOST_BUNDLE_BYTES = MOST_UNPACKED_BYTES;
