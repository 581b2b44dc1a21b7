/**
 * How much a job may hold in photos. A bundle carries all of them, so that what is written here can be read
 * back: its own limits follow from these (server/bundle/limits.ts).
 */
export const MOST_PHOTOS = 60;
/** Of one file, as it is sent and as it is kept. */
export const MOST_PHOTO_BYTES = 12e6;
/** Of all photos of a job together, as they are kept. */
export const MOST_PHOTOS_BYTES = 100e6;
