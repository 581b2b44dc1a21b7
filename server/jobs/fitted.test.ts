import { v7 } from 'uuid';
import { workshopId } from '../testing/workshop';
import { recordCodes } from '../evidence/codes';
import { setPart } from '../fleet/fleet';
import { makeTestDatabase, type TestDatabase } from '../testing/database';
import { openJob } from './open-job';
import { viewJob } from './view-job';

let test_: TestDatabase;
beforeAll(async () => {
  test_ = await makeTestDatabase();
});
afterAll(() => test_.drop());

const BY = 'Ines Varga';
async function jobWithInjectorCode(): Promise<{ id: string; unit: string }> {
  const [id, unit] = [v7(), workshopId('unit', 'PL-14')];
  await openJob(test_.db, { id, unitId: unit, complaint: 'Misfires', by: BY });
  await recordCodes(test_.db, id, { id: v7(), by: BY, phase: 'as-found', status: 'active', codes: ['P0203'] });
  return { id, unit };
}
async function offered(id: string) {
  const view = await viewJob(test_.db, id);
  return {
    asks: view?.plan.asks?.map((q) => q.kind),
    planned: view?.plan.steps.map((s) => s.test) ?? [],
    unfit: view?.tests.flatMap((t) => (t.isUnfit ? [t.id] : [])) ?? [],
    circuits: view?.circuits.map((c) => c.circuit.id) ?? [],
  };
}

test('what is fitted, said once, chooses among plan, catalogue and circuits; taken back, it is asked again', async () => {
  const { id, unit } = await jobWithInjectorCode();
  const say = (code: string) => setPart(test_.db, unit, { by: BY, part: 'injector type', code });
  await say('');
  expect(await offered(id)).toMatchObject({ asks: ['injector'], unfit: [] });

  await say('piezo');
  const piezo = await offered(id);
  expect(piezo).toMatchObject({ asks: [], unfit: ['injector-resistance'] });
  expect(piezo.planned).not.toContain('injector-resistance');
  expect(piezo.circuits).toEqual(['injectors-piezo']);

  await say('solenoid');
  const solenoid = await offered(id);
  expect(solenoid.unfit).toEqual(['injector-resistance-piezo']);
  expect(solenoid.circuits).not.toContain('injectors-piezo');
  expect(solenoid.circuits.length).toBeGreaterThan(0);
});
