'use client';
import { Camera } from 'lucide-react';
import { useState } from 'react';
import { v7 } from 'uuid';
import { positionWords } from '../../core/judge/words';
import type { RunView } from '../../application/views';
import { useRouter } from '../kit/router';
import { sendFile } from '../kit/send';
import type { Line } from './use-run';

const UPLOAD_TIMEOUT_ms = 120_000;

/**
 * A photo of the meter's display, kept with the reading that it shows: of the framed position, or of what was read last. Nobody
 * reads it for a value.
 */
export function DisplayPhoto({ view, line, look }: { view: RunView; line: Line | null; look: string }) {
  const router = useRouter();
  const [said, setSaid] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  if (!line) return null;
  const where = positionWords(line.position);
  async function take(file: File | undefined, of: Line): Promise<void> {
    if (!file) return;
    setIsBusy(true);
    const name = `display, ${where}, ${of.entry}`;
    const sent = await sendFile(
      `/api/jobs/${view.job.id}/photos?id=${v7()}&reading=${of.id}&name=${encodeURIComponent(name)}`,
      file,
      file.type || 'application/octet-stream',
      UPLOAD_TIMEOUT_ms,
    );
    setIsBusy(false);
    if (sent.ok) {
      setSaid(`The photo is kept with ${where}.`);
      router.refresh();
    } else
      setSaid(
        sent.error.kind === 'refused'
          ? (sent.error.problem.errors[0]?.message ?? sent.error.problem.title)
          : sent.error.kind === 'unreachable'
            ? 'No server: the photo was not kept. Take it again.'
            : sent.error.message,
      );
  }
  return (
    <>
      <label className={`${look} cursor-pointer focus-within:outline-2`} title={`Photo of the display, ${where}`}>
        <Camera size={16} aria-hidden="true" />
        {isBusy ? 'Sending' : 'Photo'}
        <input
          type="file"
          accept="image/jpeg,image/png,image/webp,image/heif,image/heic"
          capture="environment"
          className="sr-only"
          aria-label={`Photo of the display, ${where}`}
          disabled={isBusy || line.state !== 'saved'}
          onChange={(e) => {
            void take(e.target.files?.[0], line);
            e.target.value = '';
          }}
        />
      </label>
      <span role="status" className="text-sm text-soft">
        {said}
      </span>
    </>
  );
}
