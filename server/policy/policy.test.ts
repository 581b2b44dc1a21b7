import { v7 } from 'uuid';
import { type Action, POLICY, roleMay, rolesFor, ruleFor } from '../../application/policy';
import { ROLES, type Role } from '../../core/foundation/vocabulary';
import { workshopId } from '../testing/workshop';
import { openJob } from '../jobs/open-job';
import { findActor } from '../people/people';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { authorize, refusalFor, whoMay } from './authorize';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
  await openJob(test_.db, { id: JOB, unitId: workshopId('unit', 'PL-14'), complaint: 'x', by: 'Tobin Marsh' });
});
afterAll(() => test_.drop());

const QUAY = workshopId('depot', 'Quay Yard');
const NORTH = workshopId('depot', 'North Sluice');
const JOB = v7();
const actions = Object.keys(POLICY) as Action[];
const actor = (role: Role, depotId: string | null) => ({ id: v7(), name: 'x', role, depotId });

test.each<[Action, Role, string | null, boolean]>([
  ['look', 'viewer', QUAY, true],
  ['job.record-evidence', 'viewer', QUAY, false],
  ['job.release-with-open-checks', 'viewer', QUAY, false],
  ['job.record-evidence', 'technician', QUAY, true],
  ['job.release-with-open-checks', 'technician', QUAY, false],
  ['job.release-with-open-checks', 'lead', QUAY, true],
  ['job.record-evidence', 'technician', NORTH, false],
  ['job.release-with-open-checks', 'lead', NORTH, false],
  ['job.record-evidence', 'technician', null, true],
  ['job.release-with-open-checks', 'lead', null, true],
  ['job.record-evidence', 'viewer', null, false],
])('%s in a job of Quay Yard: a %s of %s: %s', async (action, role, depotId, may) => {
  const refused = await refusalFor(test_.db, actor(role, depotId), action, JOB);
  expect(refused === null).toBe(may);
  if (refused) expect(refused.errors[0]?.message).toMatch(/may\.$/);
});

test.each(actions)('%s: whoever may be refused reads what, and who may', async (action) => {
  const { what, of } = ruleFor(action);
  const refused = await refusalFor(test_.db, actor('viewer', NORTH), action, of === 'job' ? JOB : null);
  if (rolesFor(action).includes('viewer')) expect(refused).toBeNull();
  else expect(refused?.errors[0]?.message).toContain(what);
});
test('what is not in the table nobody may', () => {
  for (const role of ROLES)
    for (const action of ['job.florp', 'constructor', '__proto__', '']) expect(roleMay(role, action)).toBe(false);
  expect(roleMay(null, 'look')).toBe(false);
});
test('more rights include all that fewer have', () => {
  for (const action of actions) {
    expect(roleMay('viewer', action) && !roleMay('technician', action)).toBe(false);
    expect(roleMay('technician', action) && !roleMay('lead', action)).toBe(false);
  }
});
test('a refusal names who may', async () => {
  expect(await whoMay(test_.db, ['lead'], QUAY)).toBe('Odile Brandt and Runa Teller may.');
  expect(await whoMay(test_.db, ['lead'], NORTH)).toBe('Odile Brandt may.');
});
test('a person is who they are by id: a name that nobody has acts for nobody, and one that was freed gives no rights', async () => {
  expect(await findActor(test_.db, 'Nobody At All')).toBeNull();
  const jory = await findActor(test_.db, '  jory   THANE ');
  expect(jory).toMatchObject({ name: 'Jory Thane', role: 'technician', depotId: NORTH });
  if (!jory) return;
  // Whatever the name says: the depot of the id counts.
  const renamed = { ...jory, name: 'Odile Brandt' };
  expect(await authorize(test_.db, renamed, 'limits.draft-for-depot', QUAY)).toMatchObject({ ok: false });
  expect(await authorize(test_.db, renamed, 'limits.draft-for-depot', NORTH)).toBeNull();
});
