'use client';
import type { DisplayPhotoView } from '../../application/views';
import { Thumb } from '../job/photos';

/** Photos of displays that were kept with a reading. */
export function DisplayPhotos({ photos }: { photos: readonly DisplayPhotoView[] }) {
  if (photos.length === 0) return null;
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      {photos.map((p) => (
        <Thumb key={p.id} id={p.id} label={p.name} />
      ))}
    </div>
  );
}
