import { valueForReader } from '../../core/repair/values';
import { isoDayShown } from '../../core/locale/dates';
import { tr, word } from '../../core/locale/translate';
import { capital } from '../../core/foundation/text';
import { evidenceWords } from '../../core/evidence/kinds/kinds';
import { findingWords } from '../../core/evidence/finding';
import { positionWords } from '../../core/judge/words';
import { groupedCode } from '../../core/repair/coding';
import { codesKept, quotationOf, recordsOfKind } from '../../core/repair/proof';
import { moneyWords } from '../../core/repair/money';
import { totalOf } from '../../core/repair/quotation';
import { SEQUENCES } from '../../core/repair/sequences';
import type { ProofCheck, Recorded } from '../../core/repair/types';
import type { RecordingReport, TracePicture } from '../traces/picture';
import type { JobView, RunView, Verified } from '../views';
import { shownTime } from './time';

/** A job with everything that its report needs. */
export interface ReportView {
  readonly job: JobView;
  readonly runs: readonly RunView[];
  readonly verified: Verified;
  readonly recordings: readonly RecordingReport[];
}

export type Voice = 'payer' | 'file';

export interface Section {
  readonly title: string;
  readonly lines: readonly string[];
}

/** What the payer is told: plain sentences, no jargon, one picture. */
export interface PayerReport {
  /** Name and address of the workshop, a line each; without one, its depot. */
  readonly letterhead: readonly string[];
  readonly title: string;
  readonly unit: string;
  readonly sections: readonly Section[];
  readonly cost: {
    readonly lines: readonly (readonly [string, string, string])[];
    readonly total: string;
    readonly answer: string;
  } | null;
  /** Who signs, and when; `null` while the job is open. */
  readonly signed: string | null;
  /** Id of the photo that shows it best. */
  readonly picture: string | null;
  /** Of a recording, where no photo shows it and something of it was taken as evidence. */
  readonly recording: TracePicture | null;
}

export function payerReport({ job: view, recordings }: ReportView): PayerReport {
  const { job, unit, repair } = view;
  const found = view.findings.flatMap((f) => (f.body.kind === 'found' ? [f.body] : []));
  const released = recordsOfKind(repair.records, 'release').at(-1);
  // Each finding by itself: what is quoted for it, and what the payer said.
  const quoted = view.findings.flatMap((f) => quotationOf(f.id, repair.records) ?? []);
  const answers = quoted.map((q) => recordsOfKind(repair.records, 'answer').findLast((a) => a.body.quotation === q.id));
  const [quotation] = quoted;
  const picture =
    view.evidence.find((e) => e.body.kind === 'visual' && e.body.damaged && e.body.photos?.length)?.body.photos?.[0] ??
    view.evidence.flatMap((e) => e.body.photos ?? [])[0] ??
    view.intake.photos[0] ??
    null;
  const answer = answers.find((a) => a !== undefined && a.body.answer !== 'accepted') ?? answers[0];
  return {
    letterhead: (view.letterhead ?? unit.depot).split('\n'),
    title: tr`${unit.fleetNumber}: what was wrong, and what was done`,
    unit: tr`${unit.fleetNumber}, ${unit.kind}, ${unit.depot}; job ${job.number}, ${shownTime(job.openedAt, unit.timeZone)}`,
    sections: [
      { title: 'What you told us', lines: [job.complaint, ...(view.intake.when ? [view.intake.when] : [])] },
      {
        title: 'What was wrong',
        lines: view.findings.length ? view.findings.map((f) => `${findingWords(f.body)}.`) : ['It is not found yet.'],
      },
      { title: 'How we know', lines: howWeKnow(view) },
      { title: 'What was done', lines: doneLines(view) },
      {
        title: 'How it was proven',
        lines: repair.checks
          .filter((c) => c.state === 'done' && PROVES.has(c.id))
          .map((c) => `${c.label}: ${sentence(c.why)}`),
      },
      {
        title: 'What we advise',
        lines: [
          ...found.flatMap((f) => (f.advice ? [sentence(f.advice)] : [])),
          ...(answer && answer.body.answer !== 'accepted'
            ? [
                tr`The work that was quoted is ${answer.body.answer}${answer.body.until ? tr` until ${isoDayShown(answer.body.until)}` : ''}; the unit goes on at that risk.`,
              ]
            : []),
        ],
      },
      {
        title: 'Where it stands',
        lines: [
          released && job.closed
            ? tr`Released by ${released.by}: ${sentence(released.body.said)}`
            : 'The job is open; the unit is not released.',
        ],
      },
    ].filter((s) => s.lines.length > 0),
    cost: quotation
      ? {
          lines: quoted.flatMap((q) =>
            q.body.lines.map((l): readonly [string, string, string] => [
              l.partNumber ? `${l.text} (${l.partNumber})` : l.text,
              `${l.quantity} × ${moneyWords(l.price, q.body.currency)}`,
              moneyWords(Math.round(l.quantity * l.price), q.body.currency),
            ]),
          ),
          total: moneyWords(totalOf(quoted.flatMap((q) => q.body.lines)), quotation.body.currency),
          answer: answers
            .map((a) =>
              a
                ? tr`${capital(a.body.answer)}${a.body.until ? tr` ${a.body.answer === 'accepted' ? 'for' : 'until'} ${isoDayShown(a.body.until)}` : ''}${a.body.said ? `: ${a.body.said}` : ''}`
                : 'Not answered yet',
            )
            .join('; '),
        }
      : null,
    signed: released && job.closed ? `${released.by}, ${shownTime(released.at, unit.timeZone)}` : null,
    picture,
    recording: picture === null ? (recordings.find((r) => r.isEvidence && r.picture)?.picture ?? null) : null,
  };
}

const PROVES: ReadonlySet<string> = new Set(['measured-again', 'codes-cleared', 'road-test', 'vehicle-scan']);
const sentence = (t: string): string => (/[.!?]$/.test(t) ? t : `${t}.`);

/** What convicts, in the order of its weight: at most four sentences. */
function howWeKnow(view: JobView): string[] {
  const convicting = [...view.known.mended, ...view.known.statements]
    .filter((s) => s.stand === 'bad')
    .map((s) => sentence(s.text));
  const readings = view.job.runs.flatMap((r) =>
    r.judgement && r.judgement.suspects.length > 0 ? [`${r.name}: ${r.judgement.summary}`] : [],
  );
  return [...new Set([...convicting, ...readings])].slice(0, 4);
}

function doneLines(view: JobView): string[] {
  const { records } = view.repair;
  const steps = recordsOfKind(records, 'step');
  const bySequence = SEQUENCES.flatMap((s) => {
    const own = steps.filter((x) => x.body.sequence === s.id);
    const places = [
      ...new Set(own.flatMap((x) => (x.body.position === undefined ? [] : [positionWords(x.body.position)]))),
    ];
    return own.length
      ? [
          tr`${s.name}${places.length ? `, ${places.join(', ')}` : ''}: ${new Set(own.map((x) => x.body.step)).size} of ${s.steps.length} steps done and signed.`,
        ]
      : [];
  });
  const repairs = view.evidence.flatMap((e) =>
    e.body.kind === 'repair' || e.body.kind === 'new-part' ? [sentence(evidenceWords(e.body))] : [],
  );
  const codings = [...codesKept(records).values()];
  return [
    ...repairs,
    ...bySequence,
    ...(codings.length
      ? [tr`New codes entered for ${[...new Set(codings.map((c) => tr`cylinder ${c.body.position}`))].join(', ')}.`]
      : []),
  ];
}

/** What the file is told: everything, by whom and when. */
export interface FileReport {
  readonly title: string;
  readonly facts: readonly (readonly [string, string])[];
  readonly sections: readonly Section[];
  readonly checks: readonly ProofCheck[];
  readonly trail: readonly string[];
  readonly head: string;
}

export function fileReport({ job: view, verified }: ReportView): FileReport {
  const { job, unit, intake, repair } = view;
  const when = (at: string, by: string): string => `${shownTime(at, unit.timeZone)}, ${by}`;
  return {
    title: tr`Job ${job.number}: ${unit.fleetNumber}, for the file`,
    facts: [
      ['Unit', `${unit.fleetNumber}, ${unit.kind}, ${unit.depot}`],
      [
        'Engine',
        tr`${unit.family}, ${unit.engine.cylinders} cylinders${unit.engine.systemVoltage_V ? `, ${unit.engine.systemVoltage_V} V` : ''}`,
      ],
      ['Opened', when(job.openedAt, job.openedBy)],
      [
        'At',
        [job.hours === null ? '' : `${job.hours} h`, job.odometer_km === null ? '' : tr`${job.odometer_km} km`]
          .filter(Boolean)
          .map(word)
          .join(', ') || 'not noted',
      ],
      ['Complaint', job.complaint],
      ['Shows itself', [...intake.conditions, intake.when ?? ''].filter(Boolean).map(word).join(', ') || 'not noted'],
      ['Before', intake.replaced.map((r) => `${r.what}${r.by ? ` (${r.by})` : ''}`).join('; ') || 'nothing noted'],
      ['Signs', intake.signs.join('; ') || 'none noted'],
      ...(repair.comebackOf ? [['Comeback', tr`of job ${repair.comebackOf.number}`] as const] : []),
      ...repair.comebacks.map((c) => ['Came back', tr`as job ${c.number}`] as const),
    ],
    sections: fileSections(view, when).filter((s) => s.lines.length > 0),
    checks: repair.checks,
    trail: view.auditTrail.map((e) => tr`${e.number} ${e.kind}, ${when(e.at, e.by)}`),
    head: verified.intact
      ? tr`The trail of ${verified.events} events is intact; its last hash is ${verified.head}.`
      : tr`The trail is NOT intact: ${verified.faults.map((f) => f.what).join(' ')}`,
  };
}

/** All that was recorded, by what it is; also what nothing was recorded of. */
const fileSections = (view: JobView, when: (at: string, by: string) => string): Section[] => [
  {
    title: 'Codes',
    lines: view.codes.map(
      (c) =>
        tr`${c.code ?? 'none'}, ${c.phase}, ${c.status}; ${when(c.at, c.by)}${c.freezeFrame.length ? `; ${c.freezeFrame.map((f) => `${f.name} ${f.value}`).join(', ')}` : ''}`,
    ),
  },
  {
    title: 'Findings',
    lines: view.findings.flatMap((f) => [
      tr`${findingWords(f.body)}${f.body.kind === 'found' ? `, ${f.body.confidence}` : ''}; ${when(f.at, f.by)}`,
      ...(f.body.kind === 'found' && f.body.supports.length
        ? [tr`For: ${f.body.supports.map((r) => r.label).join('; ')}`]
        : []),
      ...(f.body.kind === 'found' && f.body.against.length
        ? [tr`Against: ${f.body.against.map((r) => r.label).join('; ')}`]
        : []),
      ...(f.body.ruledOut.length
        ? [tr`Ruled out: ${f.body.ruledOut.map((r) => `${r.what} (${r.by})`).join('; ')}`]
        : []),
    ]),
  },
  {
    title: 'What is known',
    lines: [
      ...view.known.statements.map((s) => tr`${s.stand}: ${s.text}`),
      ...view.known.mended.map((s) => tr`before the repair, ${s.stand}: ${s.text}`),
    ],
  },
  { title: 'Does not go together', lines: view.known.contradictions.map((c) => c.text) },
  {
    title: 'Suspects by circuit',
    lines: view.circuits.flatMap((c) =>
      c.diagnosis.suspects
        .slice(0, 4)
        .map((s) => tr`${c.circuit.name}: ${s.words}, ${Math.round(100 * s.probability)} %`),
    ),
  },
  {
    title: 'Seen and tried',
    lines: view.evidence.map(
      (e) => `${evidenceWords(e.body)}${e.body.note ? `; ${e.body.note}` : ''}; ${when(e.at, e.by)}`,
    ),
  },
  { title: 'Noted', lines: view.notes.map((n) => `${n.title}: ${n.lines.join(' ')}; ${when(n.at, n.by)}`) },
  {
    title: 'Decision, quotation, repair',
    lines: view.repair.records.map((r) => `${recordWords(r)}; ${when(r.at, r.by)}`),
  },
];

/** A record in a sentence. */
export function recordWords({ body: r }: Recorded): string {
  switch (r.kind) {
    case 'decision':
      return tr`Decided: ${r.school === 'one' ? tr`only ${r.inputs ? tr`the ${r.inputs.failed}` : 'those'} that failed` : tr`the whole set${r.inputs ? tr` of ${r.inputs.positions}` : ''}`}${r.why ? `, ${r.why}` : ''}`;
    case 'quotation':
      return tr`Quoted ${moneyWords(totalOf(r.lines), r.currency)}: ${r.lines.map((l) => `${l.text}${l.partNumber ? ` (${l.partNumber})` : ''} ${l.quantity} × ${moneyWords(l.price, r.currency)}`).join('; ')}${r.note ? `; ${r.note}` : ''}`;
    case 'answer':
      return tr`The payer: ${r.answer}${r.until ? tr` ${r.answer === 'accepted' ? 'for' : 'until'} ${isoDayShown(r.until)}` : ''}${r.said ? `, ${r.said}` : ''}`;
    case 'step': {
      const step = SEQUENCES.find((s) => s.id === r.sequence)?.steps.find((s) => s.id === r.step);
      return `${r.position === undefined ? '' : `${capital(positionWords(r.position))}: `}${(step?.say ?? r.step).replace(/\.$/, '')}${r.value ? ` ${valueForReader(r.value)}` : ''}${r.left ? ` (${r.left})` : ''}${r.tool ? tr` with ${r.tool}` : ''}${r.note ? `, ${r.note}` : ''}`;
    }
    case 'ticks':
      return tr`${r.ticks.length} steps done${r.value ? `, ${valueForReader(r.value)}` : ''}`;
    case 'own-step':
      return r.say;
    case 'coding':
      return tr`Code of ${r.part} ${r.position}, ${r.how}: ${groupedCode(r.code, 4)}${r.old ? tr` (before ${groupedCode(r.old, 4)})` : ''}${r.because ? tr`; kept although of another length: ${r.because}` : ''}`;
    case 'coding-withdrawn':
      return tr`Code of ${r.part} ${r.position} withdrawn: ${r.because}`;
    case 'scan':
      return tr`Scan of the whole vehicle: ${r.outcome === 'clean' ? 'no codes' : 'codes'}${r.said ? `, ${r.said}` : ''}`;
    case 'release':
      return tr`Released: ${r.said}${r.waived.map((w) => tr`; without ${w.check}, ${w.because}`).join('')}`;
    case 'reopen':
      return tr`Reopened: ${r.because}`;
    case 'comeback':
      return 'Marked as a comeback';
  }
}
