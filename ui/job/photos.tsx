'use client';
import { Camera } from 'lucide-react';
import Image from 'next/image';
import { useId, useState } from 'react';
import { v7 } from 'uuid';
import type { PhotoView } from '../../application/views';
import { buttonLook } from '../kit/button';
import { sendBody } from '../kit/send';

const UPLOAD_TIMEOUT_ms = 120_000;
const TYPES = 'image/jpeg,image/png,image/webp,image/heif,image/heic';

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
      const photo = v7();
      setBusy((n) => n + 1);
      const sent = await sendBody(
        `/api/jobs/${jobId}/photos?id=${photo}&name=${encodeURIComponent(file.name)}`,
        file,
        file.type || 'application/octet-stream',
        UPLOAD_TIMEOUT_ms,
      );
      setBusy((n) => n - 1);
      if (sent.ok) onChange((now = [...now, photo]));
      else
        setError(
          `${file.name}: ${sent.error.kind === 'refused' ? (sent.error.problem.errors[0]?.message ?? sent.error.problem.title) : sent.error.kind === 'unreachable' ? 'No server. Choose it again.' : sent.error.message}`,
        );
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
          {busy ? `Sending ${busy}` : 'Photo'}
          <input
            id={id}
            type="file"
            accept={TYPES}
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

export const Thumb = ({ id, label }: { id: string; label: string }) => (
  <a
    href={`/api/photos/${id}`}
    target="_blank"
    rel="noreferrer"
    className="block overflow-hidden rounded-lg border border-line"
  >
    <Image
      unoptimized
      src={`/api/photos/${id}?small=1`}
      alt={label}
      width={72}
      height={72}
      className="size-18 object-cover"
    />
  </a>
);

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
