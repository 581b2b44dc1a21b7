import { saveFile } from './save-file';
import { sealedQueue } from './vault';

export const QUEUE_FILE = 'waiting-entries-for-a-lead.json';

/** All that waits, as a file that a lead can take in on another device. */
export async function saveQueue(): Promise<void> {
  const text = await sealedQueue();
  if (text !== null) saveFile(text, QUEUE_FILE);
}
