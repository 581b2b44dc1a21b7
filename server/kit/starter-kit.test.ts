import { v7 } from 'uuid';
import type { StarterKit } from '../../formats/starter-kit';
import { schema } from '../../formats/schemas';
import { validate } from '../../formats/validate';
import { engineFamily, specification } from '../db/schema';
import type { Actor } from '../policy/actor';
import { DEMO } from '../../demo/testing';
import { EMPTY, makeTestDatabase, type TestDatabase } from '../testing/database';
import { importKit, starterKit } from './starter-kit';

let old: TestDatabase;
let fresh: TestDatabase;
let kit: StarterKit;
const LEAD: Actor = { id: v7(), name: 'Odile Brandt', role: 'lead', depotId: null };
beforeAll(async () => {
  [old, fresh] = await Promise.all([makeTestDatabase(DEMO), makeTestDatabase(EMPTY)]);
  // Through a file, as it travels.
  kit = JSON.parse(JSON.stringify(await starterKit(old.db))) as StarterKit;
});
afterAll(() => Promise.all([old.drop(), fresh.drop()]));

const value = <T>(result: { ok: true; value: T } | { ok: false; error: unknown }): T => {
  if (!result.ok) throw new Error(JSON.stringify(result.error));
  return result.value;
};

test('a kit is what its schema says, and holds no depot, unit, person or job', () => {
  expect(value(validate(schema<StarterKit>('urn:mudflat:starter-kit:1'), kit)).families.length).toBeGreaterThan(3);
  expect(kit.limits.length).toBeGreaterThan(5);
  expect(kit.limits.filter((l) => l.scope === 'depot')).toEqual([]);
  expect(JSON.stringify(kit)).not.toMatch(/PL-14|Quay Yard|Ines Varga/);
});

test('a look does nothing; then all of it is there, and a second time nothing is new', async () => {
  const looked = value(await importKit(fresh.db, kit, null, LEAD));
  expect(looked.rows.every((r) => r.action === 'new')).toBe(true);
  expect(await fresh.db.select().from(engineFamily)).toEqual([]);
  const taken = value(await importKit(fresh.db, kit, v7(), LEAD));
  expect(taken.rows).toEqual(looked.rows);
  expect(taken.stored).toBe(
    kit.families.length +
      kit.tests.length +
      kit.circuits.length +
      kit.limits.length +
      kit.fittingValues.length +
      kit.connectors.length,
  );
  const limits = await fresh.db.select().from(specification);
  expect(limits.some((l) => !l.ships && l.status === 'approved')).toBe(false);
  const again = value(await importKit(fresh.db, kit, null, LEAD));
  expect(again.rows.filter((r) => r.action !== 'unchanged')).toEqual([]);
});

test('another engine under a name that is taken is said, and nothing of the kit stays', async () => {
  const [first, ...rest] = kit.families;
  if (!first) throw new Error('no family');
  const wrong: StarterKit = {
    ...kit,
    families: [
      { code: 'NEW-1', engine: first.engine },
      { ...first, engine: { ...first.engine, cylinders: first.engine.cylinders + 1 } },
      ...rest,
    ],
  };
  const done = await importKit(old.db, wrong, v7(), LEAD);
  expect(done).toMatchObject({ ok: false, error: { errors: [{ path: '/families/1/engine' }] } });
  expect((await old.db.select().from(engineFamily)).map((f) => f.code)).not.toContain('NEW-1');
});
