import { desc, eq, or, sql } from 'drizzle-orm';
import { ok } from '../../core/foundation/result';
import { canonical } from '../../formats/canonical';
import type { Tx } from '../db/connection';
import type { Done } from '../db/refusal';
import { circuitDefinition, testDefinition } from '../db/schema';
import { append } from '../journal/append';

/** A workshop's own definition of something by name; `definition` null takes it away. */
interface OwnDefinition<T> {
  readonly id: string;
  readonly name: string;
  readonly definition: T | null;
  readonly by: string;
}
type OwnTest = NonNullable<(typeof testDefinition.$inferSelect)['definition']>;
type OwnCircuit = NonNullable<(typeof circuitDefinition.$inferSelect)['definition']>;

/** Keeps a test as the next revision of its name. `nothing`: the refusal where there is none to take away. */
export const keepTestRevision = (tx: Tx, own: OwnDefinition<OwnTest>, nothing: Done): Promise<Done> =>
  keepRevision(tx, 'test', own, nothing, {
    before: () =>
      tx
        .select()
        .from(testDefinition)
        .where(or(eq(testDefinition.testId, own.name), eq(testDefinition.id, own.id)))
        .orderBy(desc(testDefinition.revision)),
    append: (row) => append(tx, testDefinition, { ...row, testId: own.name }),
  });

/** The same of a circuit. */
export const keepCircuitRevision = (tx: Tx, own: OwnDefinition<OwnCircuit>, nothing: Done): Promise<Done> =>
  keepRevision(tx, 'circuit', own, nothing, {
    before: () =>
      tx
        .select()
        .from(circuitDefinition)
        .where(or(eq(circuitDefinition.circuitId, own.name), eq(circuitDefinition.id, own.id)))
        .orderBy(desc(circuitDefinition.revision)),
    append: (row) => append(tx, circuitDefinition, { ...row, circuitId: own.name }),
  });

interface Revisions<T> {
  /** Of this name or id, the newest first. */
  readonly before: () => Promise<readonly Revision[]>;
  readonly append: (row: { id: string; revision: number; definition: T | null; recordedBy: string }) => Promise<Done>;
}

async function keepRevision<T>(
  tx: Tx,
  kind: 'test' | 'circuit',
  own: OwnDefinition<T>,
  nothing: Done,
  revisions: Revisions<T>,
): Promise<Done> {
  await lockName(tx, kind, own.name);
  const rows = await revisions.before();
  const { id, definition, by } = own;
  return (
    settledBy(rows, own, nothing) ??
    (await revisions.append({ id, revision: nextOf(rows), definition, recordedBy: by }))
  );
}

/** Two people at one name come one after the other. */
const lockName = (tx: Tx, kind: string, name: string) =>
  tx.execute(sql`select pg_advisory_xact_lock(hashtext(${`${kind}/${name}`}))`);

interface Revision {
  readonly id: string;
  readonly revision: number;
  readonly definition: unknown;
}
const nextOf = ([newest]: readonly Revision[]): number => (newest?.revision ?? 0) + 1;

/**
 * What needs no new revision: sent before, nothing to take away, or the same as what is there. `null` where
 * one is to be made.
 */
function settledBy<T>(rows: readonly Revision[], own: OwnDefinition<T>, nothing: Done): Done | null {
  const [newest] = rows;
  if (rows.some((r) => r.id === own.id)) return ok({ id: own.id, duplicate: true });
  if (!own.definition && !newest?.definition) return nothing;
  return newest && canonical(newest.definition) === canonical(own.definition)
    ? ok({ id: newest.id, duplicate: true })
    : null;
}
