import { v7 } from 'uuid';
import { sendFile } from '../kit/send';

const UPLOAD_TIMEOUT_ms = 120_000;
export const PHOTO_TYPES = 'image/jpeg,image/png,image/webp,image/heif,image/heic';

/**
 * Sends a photo into a job: its id, or why it was not kept. `reading`: the reading whose display it shows.
 */
export async function sendPhoto(
  jobId: string,
  file: File,
  { name = file.name, reading }: { readonly name?: string; readonly reading?: string } = {},
): Promise<{ readonly id: string } | { readonly problem: string }> {
  const id = v7();
  const of = reading === undefined ? '' : `&reading=${reading}`;
  const sent = await sendFile(
    `/api/jobs/${jobId}/photos?id=${id}&name=${encodeURIComponent(name)}${of}`,
    file,
    file.type || 'application/octet-stream',
    UPLOAD_TIMEOUT_ms,
  );
  if (sent.ok) return { id };
  const { error } = sent;
  if (error.kind === 'refused') return { problem: error.problem.errors[0]?.message ?? error.problem.title };
  return { problem: error.kind === 'unreachable' ? 'No server. Choose it again.' : error.message };
}
