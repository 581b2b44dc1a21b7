import { tr } from '../locale/translate';
import { CATALOGUE } from '../catalogue/catalogue';
import type { TestDefinition } from '../catalogue/types';
import type { Problem } from '../foundation/result';
import type { LibraryCircuit } from './types';

const escape = (name: string): string => name.replaceAll('~', '~0').replaceAll('/', '~1');

/**
 * All that is wrong with a circuit's data beyond its schema, each with its path below `base`: names that lead
 * nowhere, tests and positions that the catalogue has not, values that no part has.
 */
export function checkLibraryCircuit(
  c: LibraryCircuit,
  base = '',
  catalogue: readonly TestDefinition[] = CATALOGUE,
): Problem[] {
  const problems: Problem[] = [];
  const say = (path: string, message: string): void => void problems.push({ path: `${base}/${path}`, message });
  const lists = [
    ['elements', c.elements],
    ['perCylinder', c.perCylinder],
  ] as const;
  const all = lists.flatMap(([, list]) => list);
  const ids = new Set(all.map((e) => e.id));
  const nodes = new Set(all.flatMap((e) => [e.from, e.to]));
  for (const [field, list] of lists)
    for (const [i, e] of list.entries()) {
      const value = c.values[e.value];
      if (!value) say(`${field}/${i}/value`, tr`There is no value "${e.value}".`);
      else if ((value.unit === 'V') !== (e.kind === 'source'))
        say(`${field}/${i}/value`, e.kind === 'source' ? 'A source has volts.' : 'It has ohms.');
      if (all.filter((o) => o.id === e.id).length > 1) say(`${field}/${i}/id`, tr`There are two elements "${e.id}".`);
      if (e.from === e.to) say(`${field}/${i}/to`, 'It is joined to itself.');
      if (e.kind === 'source' && e.to !== c.reference)
        say(`${field}/${i}/to`, tr`A source stands on the reference, "${c.reference}".`);
      if ((field === 'perCylinder') !== e.id.includes('{}'))
        say(`${field}/${i}/id`, 'What is there once per cylinder has {} in its id, and nothing else has.');
    }
  for (const [key, v] of Object.entries(c.values))
    if (!(v.value > 0)) say(`values/${escape(key)}/value`, 'It must be above 0.');
  for (const node of nodes)
    if (!c.drawing[node]) say(`drawing/${escape(node)}`, tr`"${node}" has no place on the drawing.`);
  if (!nodes.has(c.reference)) say('reference', tr`Nothing is joined to "${c.reference}".`);
  for (const [i, s] of c.suspects.entries()) {
    if (!ids.has(s.element)) say(`suspects/${i}/element`, tr`There is no element "${s.element}".`);
    if ((s.fault === 'open') === (s.sizes !== undefined))
      say(`suspects/${i}/sizes`, s.fault === 'open' ? 'What is open has no sizes.' : 'In which sizes, in ohms?');
  }
  for (const [i, p] of c.probes.entries()) {
    const test = catalogue.find((t) => t.id === p.test);
    if (!test) say(`probes/${i}/test`, tr`The catalogue has no test "${p.test}".`);
    else if (
      p.position === '{}'
        ? test.positions !== 'cylinders'
        : test.positions === 'cylinders' || !test.positions.includes(p.position)
    )
      say(`probes/${i}/position`, tr`The test has no position "${p.position}".`);
    for (const end of ['red', 'black'] as const) {
      const node = p[end];
      if (node !== undefined && !nodes.has(node)) say(`probes/${i}/${end}`, tr`There is no node "${node}".`);
    }
    if (p.mode === 'current' ? p.element === undefined : p.red === undefined || p.black === undefined)
      say(
        `probes/${i}/mode`,
        p.mode === 'current' ? 'Current is read in an element.' : 'It is read between red and black.',
      );
    for (const e of [...(p.opened ?? []), ...(p.element === undefined ? [] : [p.element])])
      if (!ids.has(e)) say(`probes/${i}`, tr`There is no element "${e}".`);
  }
  return problems;
}
