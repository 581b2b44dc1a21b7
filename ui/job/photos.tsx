'use client';
import { tr } from '../../core/locale/translate';
import { Camera } from 'lucide-react';
import Image from 'next/image';
import { useEffect, useId, useState } from 'react';
import type { PhotoView } from '../../application/views';
import { buttonLook } from '../kit/button';
import { useIsOnDevice } from '../kit/router';
import { read } from '../kit/send';
import { PHOTO_TYPES, sendPhoto } from './send-photo';

/** Takes photos into the job as they are chosen; `chosen` are the ids that this form names. */
export function PhotoField({
  jobId,
  chosen,
  onChange,
}: {
  jobId: string;
  chosen: readonly string[];
  onChange: (ids: readonly string[]) => void;
}) {
  const [busy, setBusy] = useState(0);
  const [error, setError] = useState<string | null>(null);
  const id = useId();
  async function take(files: FileList | null): Promise<void> {
    setError(null);
    let now = chosen;
    for (const file of files ?? []) {
      setBusy((n) => n + 1);
      const sent = await sendPhoto(jobId, file);
      setBusy((n) => n - 1);
      if ('id' in sent) onChange((now = [...now, sent.id]));
      else setError(`${file.name}: ${sent.problem}`);
    }
  }
  return (
    <div className="mb-3">
      <div className="flex flex-wrap items-center gap-2">
        {chosen.map((p) => (
          <Thumb key={p} id={p} label="photo of this entry" />
        ))}
        <label htmlFor={id} className={`${buttonLook()} cursor-pointer focus-within:outline-2`}>
          <Camera size={18} aria-hidden="true" />
          {busy ? tr`Sending ${busy}` : 'Photo'}
          <input
            id={id}
            type="file"
            accept={PHOTO_TYPES}
            capture="environment"
            multiple
            className="sr-only"
            onChange={(e) => {
              void take(e.target.files);
              e.target.value = '';
            }}
          />
        </label>
      </div>
      {error && (
        <p role="alert" className="mt-1 font-semibold text-rust">
          {error}
        </p>
      )}
    </div>
  );
}

export function Thumb({ id, label }: { id: string; label: string }) {
  const source = usePhoto(id);
  return (
    <a
      href={source.full}
      target="_blank"
      rel="noreferrer"
      className="block overflow-hidden rounded-lg border border-line"
    >
      {source.small && (
        <Image unoptimized src={source.small} alt={label} width={72} height={72} className="size-18 object-cover" />
      )}
    </a>
  );
}

/** Where a photo is: at the server, or in this device's copy, which has the small one only. */
function usePhoto(id: string): { readonly full: string; readonly small: string | null } {
  const isOnDevice = useIsOnDevice();
  const [here, setHere] = useState<string | null>(null);
  useEffect(() => {
    if (!isOnDevice) return undefined;
    let url: string | null = null;
    let isGone = false;
    void read(`/api/photos/${id}?small=1`)
      .then((r) => (r.ok ? r.blob() : null))
      .then((blob) => {
        if (!blob || isGone) return;
        url = URL.createObjectURL(blob);
        setHere(url);
      })
      .catch(() => undefined);
    return () => {
      isGone = true;
      if (url) URL.revokeObjectURL(url);
    };
  }, [id, isOnDevice]);
  if (isOnDevice) return { full: here ?? '#', small: here };
  return { full: `/api/photos/${id}`, small: `/api/photos/${id}?small=1` };
}

export function Thumbs({ ids, photos }: { ids: readonly string[] | undefined; photos: readonly PhotoView[] }) {
  const own = photos.filter((p) => ids?.includes(p.id));
  if (own.length === 0) return null;
  return (
    <div className="mt-2 flex flex-wrap gap-2">
      {own.map((p) => (
        <Thumb key={p.id} id={p.id} label={p.name} />
      ))}
    </div>
  );
}
