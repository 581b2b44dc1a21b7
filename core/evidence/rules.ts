import { entryShown } from '../locale/numbers';
import { entryWords } from '../limits/entry-for-reader';
import { tr } from '../locale/translate';
import { capital, uncapital } from '../foundation/text';
import type { TestDefinition } from '../catalogue/types';
import { namePositions, positionWords, verdictWord } from '../judge/words';
import { doubtedAt } from '../judge/doubts';
import { isOnlyByThumb } from '../judge/rule-of-thumb';
import type { JudgedReading, Position } from '../judge/types';
import { printValue } from '../quantity/print';
import { mechanics, ofPosition, part, path, say } from './kinds/definition';
import type { MeasuredRun, Ref, Statement, Target } from './types';

/**
 * Rules that say what evidence proves. Each looks at all of it and says what it can; which rule spoke is
 * kept.
 */

const fails = (r: JudgedReading): boolean => r.severity === 'fail';
const good = (r: JudgedReading): boolean => r.severity === 'pass' || r.verdict === 'watch';
const wordOf = (run: MeasuredRun, r: JudgedReading): string => verdictWord(r.verdict, run.judgement.limits);
const at = (run: MeasuredRun, position: Position): JudgedReading | undefined =>
  run.judgement.readings.find((r) => r.position === position);

export const runRef = (run: MeasuredRun, ...positions: readonly Position[]): Ref => {
  const read = positions.flatMap((p) => {
    const r = at(run, p);
    return r ? [tr`${positionWords(p)} ${entryWords(r.entry, run.judgement.limits)}, ${wordOf(run, r)}`] : [];
  });
  return {
    kind: 'run',
    id: run.id,
    label: read.length ? tr`${run.definition.name}: ${read.join('; ')}` : run.definition.name,
  };
};

/** "plug with its wire" is about the plug. */
export const partName = (test: TestDefinition): string => test.part.split(' with ')[0] ?? test.part;

/** A part measured by itself. */
export const isBare = (t: TestDefinition): boolean =>
  (t.connection === 'at-part' || t.connection === 'on the bench') && !isPath(t);
/** What is measured is wire, not part. */
export const isPath = (t: TestDefinition): boolean => PATHS.has(partName(t));
const throughWire = (t: TestDefinition): boolean => t.connection === 'through-harness';
/** What some tests measure is wire, not part. */
const PATHS: ReadonlySet<string> = new Set([
  'conductor',
  'pair',
  'stretch of loom',
  'terminal',
  'place',
  'feed',
  'feed or ground',
  'supply',
  'ground',
  'reference',
  'input',
  'pin',
  'driver',
]);

/** What some electrical readings tell of that is no electrical part. */
const MECHANICAL: ReadonlySet<string> = new Set(['compression']);

/** The cylinder of a reading; `null` where positions are states, pins or places. */
export const positionOf = (t: TestDefinition, position: Position): Position | null =>
  t.layout === 'cylinders' ? position : null;

/** Every reading that counts, as far as the reading alone goes. */
export function readingRules(runs: readonly MeasuredRun[]): Statement[] {
  return runs.flatMap((run) => [...passedRule(run), ...eachReading(run)]);
}

/** A test in its circuit whose every position is good: what it proves is written down, as what fails is. */
function passedRule(run: MeasuredRun): Statement[] {
  const { definition: t, judgement } = run;
  const isTold = t.layout === 'cylinders' || throughWire(t) || isPath(t) || isBare(t);
  if (isTold || judgement.pattern !== 'good') return [];
  const proven = uncapital(t.proves);
  return [
    say('measured', 'cleared', part(partName(t), null), tr`${t.name}: good. Proven: ${proven}`, [
      runRef(run, ...judgement.readings.map((r) => r.position)),
    ]),
  ];
}

/** Why a reading accuses and does not convict; `null`: it convicts. */
export function accusedOnly({ judgement: { doubts, limits } }: MeasuredRun, r: JudgedReading): string | null {
  const doubt = doubtedAt(doubts, r.position);
  if (doubt) return tr`it is suspected. ${doubt.say}`;
  return isOnlyByThumb(r, limits)
    ? 'it is suspected. The limit is a general rule of thumb, and parts of another type read so.'
    : null;
}

function eachReading(run: MeasuredRun): Statement[] {
  return run.judgement.readings.flatMap((r): Statement[] => {
    const t = run.definition;
    if (throughWire(t) || (!fails(r) && !good(r))) return [];
    const position = positionOf(t, r.position);
    if (PATHS.has(partName(t)))
      return [
        say(
          'measured',
          fails(r) ? 'suspect' : 'cleared',
          path(
            t.layout === 'cylinders' || t.layout === 'single' ? partName(t) : `${partName(t)} ${r.position}`,
            position,
          ),
          tr`${capital(partName(t))}${position === null ? ` ${r.position}` : ofPosition(position)} reads ${entryShown(r.entry)}: ${wordOf(run, r)}.`,
          [runRef(run, r.position)],
        ),
      ];
    if (isBare(t)) {
      // Ohms alone do not prove a part: it may fail hot, or under load. The catalogue says what a test
      // cannot prove.
      const it = tr`The ${partName(t)}${ofPosition(position)} by itself reads ${entryShown(r.entry)}`;
      const accusesOnly = fails(r) ? accusedOnly(run, r) : null;
      const text = fails(r)
        ? tr`${it}, ${wordOf(run, r)}: ${accusesOnly ?? 'it is bad.'}`
        : tr`${it}: good as far as this test goes.`;
      const stand = fails(r) ? (accusesOnly === null ? 'bad' : 'suspect') : 'cleared';
      return [say('bare-part', stand, part(partName(t), position), text, [runRef(run, r.position)])];
    }
    if (fails(r) && MECHANICAL.has(partName(t)))
      return [
        say(
          'measured',
          'suspect',
          mechanics(partName(t), position),
          tr`${capital(partName(t))}${ofPosition(position)}: ${entryShown(r.entry)}, ${wordOf(run, r)}. Mechanics there, nothing electrical.`,
          [runRef(run, r.position)],
        ),
      ];
    return fails(r)
      ? [
          say(
            'measured',
            'suspect',
            part(partName(t), position),
            tr`The ${partName(t)}${ofPosition(position)} in its circuit reads ${entryShown(r.entry)}, ${wordOf(run, r)}: the part, its wire or what feeds it.`,
            [runRef(run, r.position)],
          ),
        ]
      : [];
  });
}

/** At most this much may the wire add (trade practice: about 1 ohm more than the bare plug at most). */
const WIRE_MAY_ADD_ohm = 1;

/** In circuit minus bare: the same part measured at itself and through its wire. */
export function differenceRules(runs: readonly MeasuredRun[]): Statement[] {
  const bare = runs.filter((r) => isBare(r.definition) && r.definition.quantity === 'resistance');
  return runs
    .filter((r) => throughWire(r.definition))
    .flatMap((circuit) =>
      circuit.judgement.readings.flatMap((r): Statement[] => {
        const own = bare.findLast((b) => partName(b.definition) === partName(circuit.definition));
        const alone = own && at(own, r.position);
        const [name, position] = [partName(circuit.definition), positionOf(circuit.definition, r.position)];
        if (!own || !alone || r.verdict === 'not-measured') {
          return fails(r)
            ? [
                say(
                  'measured',
                  'suspect',
                  path(name, position),
                  tr`Through its wire the ${name}${ofPosition(position)} reads ${entryShown(r.entry)}, ${wordOf(circuit, r)}: the ${name} or its wire. Measure it by itself to tell them apart.`,
                  [runRef(circuit, r.position)],
                ),
              ]
            : [];
        }
        const from = [runRef(own, r.position), runRef(circuit, r.position)];
        const added = r.corrected !== null && alone.corrected !== null ? r.corrected - alone.corrected : null;
        const words = added === null ? '' : tr` The wire adds ${printValue(Math.max(0, added), 0.1)} ohm.`;
        if (good(alone) && fails(r))
          return [
            say(
              'in-circuit-minus-bare',
              accusedOnly(circuit, r) === null ? 'bad' : 'suspect',
              path(name, position),
              tr`By itself the ${name}${ofPosition(position)} is good (${entryShown(alone.entry)}), through its wire it reads ${entryShown(r.entry)}: ${accusedOnly(circuit, r) ?? 'the wire or its connector is bad.'}${words}`,
              from,
            ),
          ];
        if (added !== null && Math.abs(added) <= WIRE_MAY_ADD_ohm && (fails(alone) || good(r)))
          return [
            say(
              'in-circuit-minus-bare',
              'cleared',
              path(name, position),
              tr`By itself and through its wire the ${name}${ofPosition(position)} reads nearly the same (${entryShown(alone.entry)} and ${entryShown(r.entry)}): the wire is good.`,
              from,
            ),
          ];
        return [];
      }),
    );
}

/** What the pattern of a set proves of what its positions share. */
export function patternRules(runs: readonly MeasuredRun[]): Statement[] {
  return runs.flatMap((run): Statement[] => {
    const { shared } = run.definition;
    const read = run.judgement.readings.filter((r) => r.verdict !== 'not-measured');
    const [ok, bad] = [read.filter(good).map((r) => r.position), read.filter(fails).map((r) => r.position)];
    if (read.length < 2) return [];
    const out: Statement[] = [];
    if (run.judgement.pattern === 'group' && run.judgement.group !== null && !isBare(run.definition)) {
      out.push(
        say(
          'group-shares',
          'suspect',
          { kind: 'shared', name: run.judgement.group, position: null },
          tr`All of ${groupWords(run.judgement.group)} fail and nothing else does: look at what only they share.`,
          [runRef(run, ...bad)],
        ),
      );
    }
    if (!shared || run.definition.layout === 'states') return out;
    if (ok.length > 0)
      out.push(
        say(
          'shared-proven',
          'cleared',
          { kind: 'shared', name: shared, position: null },
          tr`${capital(namePositions(ok))} ${ok.length === 1 ? 'works' : 'work'}: ${shared} ${/ and /.test(shared) ? 'are' : 'is'} proven.`,
          [runRef(run, ...ok)],
        ),
      );
    else if (bad.length === read.length)
      out.push(
        say(
          'all-fail',
          'suspect',
          { kind: 'shared', name: shared, position: null },
          tr`All of them fail: ${shared} before any single ${partName(run.definition)}.`,
          [runRef(run, ...bad)],
        ),
      );
    return out;
  });
}

const groupWords = (group: string): string => (group.endsWith(' bank') ? tr`the ${group}` : `"${group}"`);

/** Tests whose outcome means more than their reading. Kept by id, as the catalogue that ships names them. */
export function namedTestRules(runs: readonly MeasuredRun[]): Statement[] {
  return runs.flatMap((run): Statement[] => {
    const read = run.judgement.readings.filter((r) => r.verdict !== 'not-measured');
    if (read.length === 0) return [];
    const [allGood, someFail] = [read.every(good), read.some(fails)];
    const from = [runRef(run, ...read.map((r) => r.position))];
    const input: Target = { kind: 'input', name: 'signal wire and controller input', position: null };
    if (run.definition.id === 'sensor-meter-scan' && (allGood || someFail)) {
      return [
        allGood
          ? say(
              'meter-equals-scan',
              'cleared',
              input,
              'Meter and scan tool agree: the signal wire and the controller’s input are good.',
              from,
            )
          : say(
              'meter-equals-scan',
              'bad',
              input,
              'Meter and scan tool disagree: the controller sees something else than the sensor sends. The wire or the input is bad.',
              from,
            ),
      ];
    }
    if (run.definition.id === 'sensor-bypass' && allGood) {
      return [
        say(
          'bypass',
          'cleared',
          input,
          'With a jumper in place of the sensor the controller sees what it should: wires, pins and input are good.',
          from,
        ),
        say(
          'bypass',
          'suspect',
          part('sensor', null),
          'Wires, pins and input are good by the jumper: the sensor is what is left.',
          from,
        ),
      ];
    }
    return [];
  });
}
