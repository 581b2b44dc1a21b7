import { entryShown } from '../../core/locale/numbers';
import { isoDayShown } from '../../core/locale/dates';
import { tr, word } from '../../core/locale/translate';
import { capital } from '../../core/foundation/text';
import { inOrder } from '../../core/catalogue/positions';
import type { Condition, JudgedReading, Reason } from '../../core/judge/types';
import { correctedWords, positionWords, rangeWords, reasonWords, verdictWord } from '../../core/judge/words';
import type { RunView } from '../views';
import { shownClock, shownTime } from './time';
import { currentReadings } from '../judging/corrections';

/** What a printed result says, in the same words on paper and in the PDF. */
export interface ReportFacts {
  readonly title: string;
  readonly facts: readonly (readonly [string, string])[];
  readonly unconfirmed: readonly string[];
  readonly rows: readonly ReportRow[];
  readonly corrections: readonly string[];
  readonly cautions: readonly string[];
}
export interface ReportRow {
  readonly reading: JudgedReading;
  readonly entry: string;
  readonly corrected: string;
  readonly verdict: string;
  readonly reasons: string;
  readonly taken: string;
}

const STATUS = {
  approved: 'approved',
  draft: 'draft, not approved',
  'rule-of-thumb': 'general rule of thumb',
  withdrawn: 'since taken off the shelf',
} as const;

/** What was seen beside the readings, in words. */
export const seenWords = ({ engineSeen, commandSeen }: Condition): string[] => [
  ...(engineSeen === undefined ? [] : [tr`engine ${engineSeen}`]),
  ...(commandSeen === undefined ? [] : [tr`command ${commandSeen} on the scan tool`]),
];

export function reportFacts(view: RunView): ReportFacts {
  const { unit, job, specification: s, circumstance: c, judgement } = view;
  const { definition: test } = view;
  const states = test.states;
  const said = (confirmed: boolean) => states.filter((x) => c.states.includes(x.id) === confirmed).map((x) => x.label);
  return {
    title: `${test.name}: ${unit.fleetNumber}`,
    facts: [
      ['Unit', `${unit.fleetNumber}, ${unit.kind}, ${unit.depot}`],
      [
        'Engine',
        [
          unit.family,
          tr`${unit.engine.cylinders} cylinders ${unit.engine.layout === 'vee' ? 'in a vee' : 'in line'}`,
          unit.engine.systemVoltage_V ? `${unit.engine.systemVoltage_V} V` : '',
        ]
          .filter(Boolean)
          .map(word)
          .join(', '),
      ],
      ['Job', `${job.number}, ${job.complaint}`],
      [
        'At',
        [job.hours === null ? '' : `${job.hours} h`, job.odometer_km === null ? '' : tr`${job.odometer_km} km`]
          .filter(Boolean)
          .map(word)
          .join(', ') || 'not noted',
      ],
      [
        'Conditions',
        [
          ...said(true),
          c.condition.partTemperature_degC === undefined
            ? 'temperature not noted'
            : tr`engine at ${c.condition.partTemperature_degC} °C`,
          ...seenWords(c.condition),
        ].join(', '),
      ],
      ['Meter', meterWords(view) || 'not noted'],
      ...(s.limits.quantity === 'resistance'
        ? [['Lead zero', c.leadZero === null ? 'leads not zeroed' : tr`${c.leadZero} Ω, subtracted`] as const]
        : []),
      ['Accepted by', DECISION[view.decision]],
      [
        'Limits',
        tr`${s.limits.byPosition ? 'by position' : s.limits.transfer ? 'by transfer function' : rangeWords(s.limits, s.limits)}; ${s.source}, shelf revision ${s.revision}, ${STATUS[s.status]}`,
      ],
      [
        'Read',
        `${shownTime(view.readings[0]?.takenAt ?? view.startedAt, unit.timeZone)}, ${[...new Set(view.readings.map((r) => r.takenBy))].join(', ') || view.startedBy}`,
      ],
      ['Judged by', tr`core ${judgement.core}`],
    ],
    unconfirmed: said(false),
    rows: rowsFor(view),
    corrections: correctionsOf(view),
    cautions: test.cautions.map((x) => x.text),
  };
}

const DECISION = {
  'three-way': 'conformance probability of 95 %, otherwise “cannot tell”',
  simple: 'simple acceptance: the value as it stands',
  guarded: 'guarded acceptance: only what is proven to conform at 95 %',
} as const;

/** All meters of the run, each with its zero and its calibration. */
function meterWords({ instruments, circumstance: c, readings, specification }: RunView): string {
  const used = [...new Set([c.instrumentId, ...readings.map((r) => r.instrumentId)].filter((id) => id !== null))];
  return used
    .flatMap((id) => {
      const meter = instruments.find((i) => i.id === id);
      if (!meter) return [];
      const zero =
        specification.limits.quantity === 'resistance' && used.length > 1
          ? tr`, leads ${(id === c.instrumentId ? c.leadZero : c.zeros[id]) ?? 'not zeroed'}`
          : '';
      return [
        `${meter.name}${meter.calibrationDue ? tr`, calibration due ${isoDayShown(meter.calibrationDue)}` : ''}${zero}`,
      ];
    })
    .join('; ');
}

function rowsFor(view: RunView): ReportRow[] {
  const {
    judgement,
    specification: { limits },
  } = view;
  const current = new Map(currentReadings(view.readings).map((r) => [r.position, r]));
  return inOrder(view.definition, judgement.readings).map((r) => {
    const stored = current.get(r.position);
    return {
      reading: r,
      entry: entryShown(r.entry) || '–',
      corrected: correctedWords(r, limits),
      verdict: verdictWord(r.verdict, limits),
      reasons: r.reasons
        .filter((x) => x.rule !== 'lead-zero-subtracted')
        .map((x) => reasonWords(withoutSource(x), limits, r.resolution))
        .join(' '),
      taken: stored ? `${shownClock(stored.takenAt, view.unit.timeZone)} ${stored.takenBy}` : '',
    };
  });
}

/** The source and the lead zero stand once over the table, not in every row. */
const withoutSource = (reason: Reason): Reason => ('source' in reason ? { ...reason, source: null } : reason);

function correctionsOf(view: RunView): string[] {
  const byId = new Map(view.readings.map((r) => [r.id, r]));
  return view.readings.flatMap((r) => {
    const before = r.supersedes ? byId.get(r.supersedes) : undefined;
    return before
      ? [
          tr`${capital(positionWords(r.position))}: ${entryShown(before.entry)} replaced by ${entryShown(r.entry)}, ${r.why ?? 'no reason given'} (${r.takenBy}).`,
        ]
      : [];
  });
}
