import { grouped } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { jobName } from '../../application/job-number';
import { Link } from './link';
import type { JobBrief, FleetUnitView } from '../../application/views';

/** Unit, engine and job on one line of the top bar. */
export function UnitHeading({
  unit,
  job,
  complaint = false,
}: {
  unit: FleetUnitView;
  job: JobBrief;
  complaint?: boolean;
}) {
  const voltage = unit.engine.systemVoltage_V;
  const facts = [
    unit.kind,
    unit.family,
    voltage ? `${voltage} V` : '',
    job.hours === null ? '' : `${grouped(job.hours)} h`,
    job.odometer_km === null ? '' : tr`${grouped(job.odometer_km)} km`,
  ];
  return (
    <>
      <h1 className="text-lg font-bold text-ink">{unit.fleetNumber}</h1>
      <span className="min-w-0 truncate">{facts.filter(Boolean).join(' · ')}</span>
      {complaint && (
        <Link href={`/jobs/${job.id}`} className="flex min-w-16 flex-1 underline decoration-line underline-offset-4">
          <span className="shrink-0">{jobName(job.number)}</span>
          <span className="min-w-0 truncate">, {job.complaint}</span>
        </Link>
      )}
    </>
  );
}
