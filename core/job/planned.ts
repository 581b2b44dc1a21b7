import { tr } from '../locale/translate';
import { capital, uncapital } from '../foundation/text';
import type { TestDefinition } from '../catalogue/types';
import { isCold } from '../plan/plan';
import type { Plan } from '../plan/types';
import type { Position } from '../judge/types';
import { positionWords } from '../judge/words';
import type { PlannedTest } from './inputs';

/** What a meter would show at a point, if all were well and under each leading suspect. */
export interface Foreseen {
  readonly test: string;
  readonly position: Position;
  readonly readings: readonly { readonly when: string; readonly shown: string }[];
}

const ENGINE: Readonly<Record<string, string>> = {
  running: 'engine running',
  cranking: 'engine turned by the starter',
  'self-test': 'scan tool for the self-test',
  'each state in turn': 'engine stopped, cranked and running in turn',
};

/** The tests of a plan that are to be done, with what must be true first and what each will tell. */
export function plannedTests(
  plan: Plan,
  tests: readonly TestDefinition[],
  foreseen: readonly Foreseen[],
): PlannedTest[] {
  const byId = new Map(tests.map((t) => [t.id, t]));
  return plan.steps.flatMap((s): PlannedTest[] => {
    const t = byId.get(s.test);
    if (!t || s.state !== 'to do') return [];
    return [
      {
        test: s.test,
        name: s.name,
        minutes: s.minutes,
        why: s.why,
        ...(s.run === undefined ? {} : { run: s.run }),
        ...(s.doubt === undefined ? {} : { doubt: s.doubt }),
        needs: needsOf(t),
        tells: tellsOf(t, foreseen),
        isCold: isCold(t),
      },
    ];
  });
}

const needsOf = (t: TestDefinition): string[] => [
  ...t.states.map((s) => s.label),
  ...(ENGINE[t.condition.engine] === undefined ? [] : [ENGINE[t.condition.engine] ?? '']),
  ...(t.people > 1 ? [tr`${t.people} people`] : []),
];

/** "Cylinder 2: 0.7 Ω if all is well, OL if the plug is open." Else what the test proves. */
function tellsOf(t: TestDefinition, foreseen: readonly Foreseen[]): string {
  const point = foreseen.find((f) => f.test === t.id);
  if (!point || point.readings.length < 2) return tr`It proves: ${uncapital(t.proves)}`;
  const [well, ...others] = point.readings;
  const said = [well, ...others.slice(0, 2)].flatMap((r) => (r ? [tr`${r.shown} ${r.when}`] : []));
  const at = t.layout === 'single' ? '' : `${positionWords(point.position)}: `;
  return `${capital(at)}${said.join('; ')}.`;
}
