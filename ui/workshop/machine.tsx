'use client';
import { isoDayShown } from '../../core/locale/dates';
import { tr } from '../../core/locale/translate';
import type { WorkshopView } from '../../application/views';
import { useToday } from '../kit/on-client';

const DAY_ms = 24 * 3600 * 1000;
/** A backup that is older than this is said: one night may fail, two are too many. */
const OLD_days = 2;

/** The machine on which it runs: its backups, and how tablets come to it. */
export function Machine({ workshop: { backup, yard } }: { workshop: WorkshopView }) {
  const today = useToday();
  if (backup === null && yard === null) return null;
  const days =
    backup?.last == null || today === null ? null : Math.floor((Date.parse(today) - Date.parse(backup.last)) / DAY_ms);
  const isOld = backup !== null && (backup.last === null || (days !== null && days >= OLD_days));
  return (
    <section aria-label="The machine" className="mt-3 flex flex-wrap gap-4 rounded-xl bg-card p-4">
      {backup && (
        <p className={`flex-1 basis-72 ${isOld ? 'font-semibold text-ochre' : ''}`}>
          {backup.last === null
            ? 'There was never a backup. On the machine: ./mudflat nightly, or ./mudflat serve --boot for every night.'
            : tr`The last backup was restored and compared on ${isoDayShown(backup.last.slice(0, 10))}.`}
          {isOld && backup.last !== null && ' That is too long ago: on the machine ./mudflat doctor tells why.'}
        </p>
      )}
      {yard && (
        <div className="flex items-center gap-3">
          {/* Made by the server from the address, by the package that draws it. */}
          <div className="size-28 bg-white p-1 [&>svg]:size-full" dangerouslySetInnerHTML={{ __html: yard.code }} />
          <p>
            A new tablet begins at <b className="font-mono">{yard.address}</b>:<br />
            there it takes the workshop’s certificate, once.
          </p>
        </div>
      )}
    </section>
  );
}
