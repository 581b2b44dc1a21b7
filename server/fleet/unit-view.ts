import { type UnitView } from '../../application/views';
import type { depot, engineFamily, unit } from '../db/schema';

export const unitView = (
  u: typeof unit.$inferSelect,
  f: typeof engineFamily.$inferSelect,
  d: typeof depot.$inferSelect,
): UnitView => ({
  id: u.id,
  fleetNumber: u.fleetNumber,
  kind: u.kind,
  depot: d.name,
  timeZone: d.timeZone,
  family: f.code,
  engine: f.engine,
  parts: u.parts,
});
