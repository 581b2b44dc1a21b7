import { tr } from '../locale/translate';
import { checkLimits } from '../limits/check';
import { requireUnit } from '../quantity/units';
import type { Problem } from '../foundation/result';
import type { TestDefinition } from './types';

const ID = /^[a-z0-9]+(-[a-z0-9]+)*$/;
const escape = (name: string): string => name.replaceAll('~', '~0').replaceAll('/', '~1');

/**
 * All that is wrong with a test's data beyond its schema, each with its path below `base`: names that clash,
 * probes of places that there are not, rules that cannot judge, an ohms test that does not ask for a dead
 * circuit.
 */
export function checkDefinition(t: TestDefinition, base = ''): Problem[] {
  const problems: Problem[] = [];
  const say = (field: string, message: string): void => void problems.push({ path: `${base}/${field}`, message });
  if (!ID.test(t.id)) say('id', 'An id is of lower-case letters, digits and hyphens, such as glow-plug-resistance.');
  const unit = requireUnit(t.unit, t.quantity);
  if (!unit.ok) say('unit', unit.error);
  checkPlaces(t, say);
  if (t.quantity === 'resistance') {
    if (t.condition.key !== 'off') say('condition/key', 'Ohms are read with the key off.');
    if (!t.states.some((s) => s.id === 'key-off'))
      say('states', 'An ohms test asks for a dead circuit: add the state "key-off".');
    if (!t.cautions.some((c) => c.id === 'dead-circuit'))
      say('cautions', 'An ohms test carries the caution "dead-circuit".');
  }
  if (!t.cautions.some((c) => c.id === 'defer'))
    say('cautions', 'Every test defers to the maker’s service information: keep the caution "defer".');
  for (const [i, rule] of t.rules.entries()) {
    if (rule.limits.quantity !== t.quantity) say(`rules/${i}/limits/quantity`, tr`The test reads ${t.quantity}.`);
    problems.push(...checkLimits(rule.limits, `${base}/rules/${i}/limits`));
    for (const place of Object.keys(rule.limits.byPosition ?? {}))
      if (!isPlace(t, place))
        say(`rules/${i}/limits/byPosition/${escape(place)}`, tr`The test has no position "${place}".`);
  }
  return problems;
}

const isPlace = (t: TestDefinition, place: string): boolean =>
  t.positions === 'cylinders' ? /^\d+$/.test(place) : t.positions.includes(place);

function checkPlaces(t: TestDefinition, say: (field: string, message: string) => void): void {
  if ((t.layout === 'cylinders') !== (t.positions === 'cylinders'))
    say('layout', 'Layout "cylinders" goes with positions "cylinders", and with nothing else.');
  if (t.positions !== 'cylinders') {
    for (const [i, p] of t.positions.entries()) {
      if (t.positions.indexOf(p) !== i) say(`positions/${i}`, tr`"${p}" is there twice.`);
      if (/^\d+$/.test(p)) say(`positions/${i}`, 'A bare number is a cylinder: write "pin 26".');
    }
  }
  for (const place of Object.keys(t.probes ?? {}))
    if (!isPlace(t, place)) say(`probes/${escape(place)}`, tr`The test has no position "${place}".`);
  for (const [name, members] of Object.entries(t.groups ?? {})) {
    for (const [i, member] of members.entries())
      if (!isPlace(t, member)) say(`groups/${escape(name)}/${i}`, tr`The test has no position "${member}".`);
  }
}
