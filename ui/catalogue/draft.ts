import { tr } from '../../core/locale/translate';
import { CAUTIONS, STATES } from '../../core/catalogue/shared';
import type { Caution, RequiredState, TestDefinition } from '../../core/catalogue/types';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import { type Draft, DraftReader, numberShown, pruned } from '../kit/draft';

/** What has no field of its own stands as JSON. */
const MORE = [
  'advice',
  'rules',
  'probes',
  'groups',
  'firstLine',
  'hardware',
  'asks',
  'alternatives',
  'pair',
  'stimulus',
] as const;
const TEXTS = [
  'id',
  'name',
  'purpose',
  'part',
  'area',
  'quantity',
  'unit',
  'layout',
  'connection',
  'probe',
  'proves',
  'cannotProve',
] as const;

/** States and cautions that can be named by their id alone. */
const KNOWN_STATES: ReadonlyMap<string, RequiredState> = new Map(Object.values(STATES).map((s) => [s.id, s]));
const KNOWN_CAUTIONS: ReadonlyMap<string, Caution> = new Map(Object.values(CAUTIONS).map((c) => [c.id, c]));

const stateLine = (s: RequiredState): string =>
  KNOWN_STATES.get(s.id)?.why === s.why && KNOWN_STATES.get(s.id)?.label === s.label
    ? s.id
    : `${s.id}: ${s.label}: ${s.why}`;
const cautionLine = (c: Caution): string => (KNOWN_CAUTIONS.get(c.id)?.text === c.text ? c.id : `${c.id}: ${c.text}`);

export function draftOfTest(t: TestDefinition): Draft {
  const more = Object.fromEntries(MORE.filter((f) => t[f] !== undefined).map((f) => [f, t[f]]));
  return {
    ...Object.fromEntries(TEXTS.map((f) => [f, t[f]])),
    shared: t.shared ?? '',
    positions: t.positions === 'cylinders' ? '' : t.positions.join('\n'),
    steps: t.steps.join('\n'),
    toolKind: t.tool.kind,
    toolMode: t.tool.mode,
    key: t.condition.key,
    engine: t.condition.engine,
    minutes: numberShown(t.minutes),
    people: numberShown(t.people),
    states: t.states.map(stateLine).join('\n'),
    cautions: t.cautions.map(cautionLine).join('\n'),
    uses: (t.uses ?? []).map((u) => `${u.what}; ${u.worth_min}`).join('\n'),
    more: JSON.stringify(more, null, 1),
  };
}

/** "id", or "id: label: why" for one that is not known. */
function readState(line: string): RequiredState | null {
  const known = KNOWN_STATES.get(line);
  if (known) return known;
  const [id = '', label = '', ...why] = line.split(':').map((p) => p.trim());
  return id && label && why.length ? { id, label, why: why.join(': ') } : null;
}

function readCaution(line: string): Caution | null {
  const known = KNOWN_CAUTIONS.get(line);
  if (known) return known;
  const cut = line.indexOf(':');
  return cut > 0 && line.slice(cut + 1).trim()
    ? { id: line.slice(0, cut).trim(), text: line.slice(cut + 1).trim() }
    : null;
}

/** "sealing washers; 5": what is used up, and the minutes of work that it is worth. */
function readUse(line: string): NonNullable<TestDefinition['uses']>[number] | null {
  const [, what = '', minutes = ''] = /^(.+?)\s*[;:]\s*(\d+(?:\.\d+)?)\s*(?:min)?$/.exec(line) ?? [];
  return what ? { what, worth_min: Number(minutes) } : null;
}

/**
 * The test of a draft, or what cannot be read, by the server's paths. What the server checks beyond this it
 * says by the same paths.
 */
export function testOfDraft(draft: Draft): Result<TestDefinition> {
  const read = new DraftReader(draft);
  const problems: Problem[] = [];
  const texts = Object.fromEntries(
    TEXTS.map((f) => {
      const text = read.text(f);
      if (text === undefined) problems.push({ path: `/test/${f}`, message: 'This must be said.' });
      return [f, text ?? ''];
    }),
  );
  const listed = <T>(field: string, readLine: (line: string) => T | null, help: string): T[] =>
    read.lines(field).flatMap((line) => {
      const item = readLine(line);
      if (item === null) problems.push({ path: `/test/${field}`, message: tr`"${line}" is not known here; ${help}` });
      return item === null ? [] : [item];
    });
  const positions = read.lines('positions');
  const test = {
    ...texts,
    positions: draft.layout === 'cylinders' ? 'cylinders' : positions,
    steps: read.lines('steps'),
    shared: read.text('shared'),
    tool: { kind: draft.toolKind, mode: read.text('toolMode') ?? '' },
    condition: { key: read.text('key') ?? '', engine: read.text('engine') ?? '' },
    minutes: read.number('minutes', '/test/minutes') ?? 0,
    people: read.number('people', '/test/people') ?? 1,
    states: listed('states', readState, 'write “id: label: why”.'),
    cautions: listed('cautions', readCaution, 'write “id: text”.'),
    ...(read.lines('uses').length ? { uses: listed('uses', readUse, 'write “what; minutes that it is worth”.') } : {}),
    ...read.json('more', '/test/more'),
  };
  if (draft.layout !== 'cylinders' && positions.length === 0)
    problems.push({ path: '/test/positions', message: 'Name the positions, one per line.' });
  const all = [...problems, ...read.problems];
  return all.length ? fail(all) : ok(pruned(test) as unknown as TestDefinition);
}

/** A copy to be changed: its id and name say that it is one. */
export const copyOf = (t: TestDefinition): TestDefinition => ({ ...t, id: `${t.id}-copy`, name: `${t.name}, our own` });
