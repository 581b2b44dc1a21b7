import { type FleetUnitView } from '../../application/views';
import type { depot, engineFamily, fleetUnit } from '../db/schema';

export const unitView = (
  u: typeof fleetUnit.$inferSelect,
  f: typeof engineFamily.$inferSelect,
  d: typeof depot.$inferSelect,
): FleetUnitView => ({
  id: u.id,
  fleetNumber: u.fleetNumber,
  kind: u.kind,
  depot: d.name,
  timeZone: d.timeZone,
  family: f.code,
  engine: f.engine,
  parts: u.parts,
});
