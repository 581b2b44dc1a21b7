'use client';
import { tr } from '../../core/locale/translate';
import { Camera } from 'lucide-react';
import { useState } from 'react';
import { positionWords } from '../../core/judge/words';
import type { RunView } from '../../application/views';
import { useRouter } from '../kit/router';
import { PHOTO_TYPES, sendPhoto } from '../job/send-photo';
import type { Line } from './use-run';

/**
 * A photo of the meter's display, kept with the reading that it shows: of the framed position, or of what was
 * read last. Nobody reads it for a value.
 */
export function DisplayPhoto({ view, line, look }: { view: RunView; line: Line | null; look: string }) {
  const router = useRouter();
  const [said, setSaid] = useState<string | null>(null);
  const [isBusy, setIsBusy] = useState(false);
  if (!line) return null;
  const where = positionWords(line.position);
  // What is just being kept has reached the server before anybody has taken a photo of it.
  const canHaveOne = line.state === 'saved' || line.state === 'keeping';
  async function take(file: File | undefined, of: Line): Promise<void> {
    if (!file) return;
    setIsBusy(true);
    const sent = await sendPhoto(view.job.id, file, { name: `display, ${where}, ${of.entry}`, reading: of.id });
    setIsBusy(false);
    setSaid('id' in sent ? tr`The photo is kept with ${where}.` : tr`The photo was not kept: ${sent.problem}`);
    if ('id' in sent) router.refresh();
  }
  return (
    <>
      <label className={`${look} cursor-pointer focus-within:outline-2`} title={tr`Photo of the display, ${where}`}>
        <Camera size={16} aria-hidden="true" />
        {isBusy ? 'Sending' : 'Photo'}
        <input
          type="file"
          accept={PHOTO_TYPES}
          capture="environment"
          className="sr-only"
          aria-label={tr`Photo of the display, ${where}`}
          disabled={isBusy || !canHaveOne}
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
