import { tr } from '../../core/locale/translate';
import { desc } from 'drizzle-orm';
import { checkLibraryCircuit } from '../../core/circuits/check';
import { CIRCUITS } from '../../core/circuits/library';
import type { LibraryCircuit } from '../../core/circuits/types';
import { prepare } from '../../core/diagnosis/diagnose';
import { type Problem } from '../../core/foundation/result';
import type { Db, Tx } from '../db/connection';
import { type Done, refuse } from '../db/refusal';
import { circuitDefinition } from '../db/schema';
import { allTests } from './tests';
import type { KeepCircuit } from '../../formats/requests/catalogue';
import { keepCircuitRevision } from './revisions';

/** The workshop's own circuits: the newest revision of each, those that were taken away left out. */
export async function ownCircuits(db: Db | Tx): Promise<readonly LibraryCircuit[]> {
  const rows = await db
    .selectDistinctOn([circuitDefinition.circuitId], {
      definition: circuitDefinition.definition,
      revision: circuitDefinition.revision,
    })
    .from(circuitDefinition)
    .orderBy(circuitDefinition.circuitId, desc(circuitDefinition.revision));
  return rows.flatMap((r) => (r.definition ? [{ ...r.definition, revision: r.revision }] : []));
}

/** All circuits: a workshop's own before those that ship, the same id instead of it. */
export async function allCircuits(db: Db | Tx): Promise<readonly LibraryCircuit[]> {
  const own = await ownCircuits(db);
  const ids = new Set(own.map((c) => c.id));
  return [...own, ...CIRCUITS.filter((c) => !ids.has(c.id))];
}

/** Those that an engine family can have: those that name it, then those for any. */
export function circuitsFor(all: readonly LibraryCircuit[], family: string): readonly LibraryCircuit[] {
  const named = all.filter((c) => c.families?.includes(family));
  return [...named, ...all.filter((c) => !c.families?.length)];
}

/**
 * Keeps a workshop's own circuit as its next revision; `circuit` null takes it away. The same id twice keeps
 * it once.
 */
export async function keepCircuit(db: Db, body: KeepCircuit): Promise<Done> {
  const problems = body.circuit ? await checkCircuit(db, body) : [];
  if (problems.length) return refuse('This circuit cannot be used.', problems);
  const nothing = refuse(
    'There is nothing to take away.',
    [{ path: '/circuitId', message: 'The workshop has no circuit of its own by that name; those that ship stay.' }],
    404,
  );
  const { id, circuitId: name, circuit: definition, by } = body;
  return db.transaction((tx) => keepCircuitRevision(tx, { id, name, definition, by }, nothing));
}

/** Its names and values, and whether it can be solved at all. */
async function checkCircuit(db: Db, { circuit, circuitId }: KeepCircuit): Promise<Problem[]> {
  if (!circuit) return [];
  const problems = checkLibraryCircuit(circuit, '/circuit', await allTests(db));
  if (circuit.id !== circuitId)
    problems.push({ path: '/circuit/id', message: tr`The circuit is kept as "${circuitId}".` });
  if (problems.length) return problems;
  const { predictions: p } = prepare({ circuit, cylinders: 4 });
  const lost = p.instances.find((_, i) => Number.isNaN(p.mean[i]));
  return lost
    ? [
        {
          path: '/circuit/elements',
          message: tr`It cannot be solved: nothing says what would be read at "${lost.position}" of ${lost.test}.`,
        },
      ]
    : [];
}
