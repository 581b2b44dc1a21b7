'use client';
import { isoDayShown } from '../../core/locale/dates';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { quotationOf, type RecordOf, recordsOfKind } from '../../core/repair/proof';
import { moneyWords, toMinor } from '../../core/repair/money';
import { totalOf } from '../../core/repair/quotation';
import type { Answer } from '../../core/repair/types';
import type { Problem } from '../../core/foundation/result';
import type { JobView } from '../../application/views';
import { useBegun } from '../kit/begun';
import { Button } from '../kit/button';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { useMay } from '../kit/session';
import { shownTime } from '../kit/time';
import type { FoundFinding } from './found';
import { EMPTY, type LineDraft, linesFrom, problemsOf, readLines, totalOfRead } from './quotation-draft';
import { useRecord } from './use-record';

/** What the payer is asked for each finding, and what they said. */
export function Quotations({ view, findings }: { view: JobView; findings: readonly FoundFinding[] }) {
  return (
    <div className="flex flex-col gap-3">
      {findings.map((f) => (
        <OfFinding key={f.id} view={view} finding={f} isOne={findings.length === 1} />
      ))}
    </div>
  );
}

function OfFinding({ view, finding, isOne }: { view: JobView; finding: FoundFinding; isOne: boolean }) {
  const { records } = view.repair;
  const made = recordsOfKind(records, 'quotation').filter((q) => q.body.finding === finding.id);
  const current = quotationOf(finding.id, records);
  const decision = recordsOfKind(records, 'decision').findLast((d) => d.body.finding === finding.id);
  const start = view.repair.decisions.find((d) => d.finding === finding.id);
  const may = useMay('job.write-repair') && !view.job.closed;
  const [writing, setWriting] = useState(false);
  const undecided = start?.isChoice === true && !decision && !current;
  return (
    <section aria-label={tr`Quotation: ${finding.body.text}`}>
      {!isOne && <h3 className="font-semibold">{finding.body.text}</h3>}
      {made.map((q) => (
        <Made key={q.id} view={view} quotation={q} isCurrent={q.id === current?.id} may={may} />
      ))}
      {may && (writing || (!current && !undecided)) && (
        // The lines follow the decision: another one begins them anew.
        <QuotationForm key={decision?.id ?? ''} view={view} finding={finding} onDone={() => setWriting(false)} />
      )}
      {may && !writing && (current || undecided) && (
        <button type="button" className="min-h-12 px-2 underline" onClick={() => setWriting(true)}>
          {undecided ? 'Quote it without deciding' : 'Another quotation'}
        </button>
      )}
    </section>
  );
}

interface MadeProps {
  readonly view: JobView;
  readonly quotation: RecordOf<'quotation'>;
  /** Not the newest of its finding, or of before the decision: it counts no more. */
  readonly isCurrent: boolean;
  readonly may: boolean;
}

function Made({ view, quotation: q, isCurrent, may }: MadeProps) {
  const answer = recordsOfKind(view.repair.records, 'answer').findLast((a) => a.body.quotation === q.id);
  const { currency, lines, note } = q.body;
  return (
    <article
      className={`mb-2 rounded-lg bg-panel p-3 ${isCurrent ? '' : 'text-soft'}`}
      aria-label={tr`Quotation of ${moneyWords(totalOf(lines), currency)}`}
    >
      {!isCurrent && <p className="font-semibold">Counts no more.</p>}
      <table className="w-full text-left">
        <tbody>
          {lines.map((l, i) => (
            <tr key={i}>
              <td>
                {l.text}
                {l.partNumber && <span className="ml-2 font-mono text-sm">{l.partNumber}</span>}
              </td>
              <td className="text-right font-mono">
                {l.quantity} × {moneyWords(l.price, currency)}
              </td>
              <td className="text-right font-mono">{moneyWords(Math.round(l.quantity * l.price), currency)}</td>
            </tr>
          ))}
          <tr className="border-t border-line font-semibold">
            <td>In all</td>
            <td />
            <td className="text-right font-mono">{moneyWords(totalOf(lines), currency)}</td>
          </tr>
        </tbody>
      </table>
      {note && <p>{note}</p>}
      <p className="text-sm text-soft">
        {shownTime(q.at, view.unit.timeZone)}, {q.by}
      </p>
      {answer && (
        <p className="font-semibold">
          {ANSWER_WORDS[answer.body.answer]}
          {answer.body.until &&
            tr`${answer.body.answer === 'accepted' ? ', for' : ' until'} ${isoDayShown(answer.body.until)}`}
          {answer.body.said && `: ${answer.body.said}`}{' '}
          <span className="text-sm font-normal text-soft">{answer.by}</span>
        </p>
      )}
      {may && isCurrent && (!answer || answer.body.answer === 'deferred') && (
        <AnswerForm view={view} quotation={q.id} />
      )}
    </article>
  );
}

const ANSWER_WORDS: Readonly<Record<Answer, string>> = {
  accepted: 'Accepted',
  declined: 'Declined',
  deferred: 'Deferred',
};

interface FormProps {
  readonly view: JobView;
  readonly finding: FoundFinding;
  readonly onDone: () => void;
}

/** A quotation as it is typed, and how it is made. */
function useQuotation({ view, finding, onDone }: FormProps) {
  const [lines, setLines] = useState<readonly LineDraft[]>(() => linesFrom(view, finding));
  const [note, setNote] = useState('');
  const [wrong, setWrong] = useState<readonly Problem[]>([]);
  const { busy, problems, write } = useRecord(view.job.id);
  const { currency } = view.repair;
  const read = readLines(lines);
  const total = totalOfRead(read, currency);
  async function save(): Promise<void> {
    const bad = problemsOf(read);
    setWrong(bad);
    if (bad.length) return;
    const record = {
      kind: 'quotation',
      finding: finding.id,
      currency,
      note: note.trim(),
      lines: read.map(({ text, partNumber, quantity, price }) => ({
        text,
        quantity: quantity ?? 0,
        price: toMinor(price ?? 0, currency),
        ...(partNumber ? { partNumber } : {}),
      })),
    } as const;
    if (await write(record)) onDone();
  }
  const all = [...wrong, ...placed(problems, read)];
  return { lines, setLines, note, setNote, currency, total, all, problems, busy, save };
}

function QuotationForm(props: FormProps) {
  const { lines, setLines, note, setNote, currency, total, all, problems, busy, save } = useQuotation(props);
  useBegun(true);
  const noteId = `quotation-note-${props.finding.id}`;
  return (
    <form
      noValidate
      aria-label="Quotation"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      <div
        aria-hidden="true"
        className="hidden gap-2 text-sm text-soft sm:grid sm:grid-cols-[minmax(0,1fr)_8rem_5rem_7rem_3rem]"
      >
        <span>What</span>
        <span>Part number</span>
        <span>How many</span>
        <span>Price, {currency}</span>
      </div>
      {lines.map((l, i) => (
        <Line
          key={i}
          place={i}
          line={l}
          currency={currency}
          problems={all}
          onChange={(change) => setLines(lines.map((x, n) => (n === i ? { ...x, ...change } : x)))}
          onRemove={() => setLines(lines.filter((_, n) => n !== i))}
        />
      ))}
      {lines.length === 0 && errorAt(all, '/record/lines/0/text') && (
        <p role="alert" className="font-semibold text-rust">
          {errorAt(all, '/record/lines/0/text')}
        </p>
      )}
      <p className="mt-1 flex items-center justify-between">
        <button type="button" className="min-h-12 underline" onClick={() => setLines([...lines, EMPTY])}>
          Add a line
        </button>
        <span className="font-mono font-semibold">{moneyWords(total, currency)}</span>
      </p>
      <Field id={noteId} label="Note for the payer">
        <input
          id={noteId}
          className={inputLook}
          value={note}
          maxLength={2000}
          onChange={(e) => setNote(e.target.value)}
        />
      </Field>
      <OtherProblems problems={problems} paths={['/record/lines']} />
      <Button type="submit" tone="strong" disabled={busy}>
        Make the quotation
      </Button>
    </form>
  );
}

/** What the server says of the lines that were sent, at the lines as they were typed. */
const placed = (problems: readonly Problem[], read: ReturnType<typeof readLines>): Problem[] =>
  problems.map((p) => ({
    ...p,
    path: p.path.replace(/^\/record\/lines\/(\d+)/, (_, n: string) => `/record/lines/${read[Number(n)]?.place ?? n}`),
  }));

interface LineProps {
  readonly place: number;
  readonly line: LineDraft;
  readonly currency: string;
  readonly problems: readonly Problem[];
  readonly onChange: (change: Partial<LineDraft>) => void;
  readonly onRemove: () => void;
}

function Line({ place, line, currency, problems, onChange, onRemove }: LineProps) {
  const field = (
    of: keyof LineDraft,
    label: string,
    more: { mono?: boolean; numeric?: boolean; most?: number } = {},
  ) => (
    <input
      aria-label={tr`Line ${place + 1}, ${label}`}
      className={`${inputLook} ${more.mono ? 'font-mono' : ''}`}
      {...(more.numeric ? { inputMode: 'decimal' as const } : {})}
      value={line[of]}
      maxLength={more.most ?? 200}
      aria-invalid={errorAt(problems, `/record/lines/${place}/${of}`) !== undefined}
      onChange={(e) => onChange({ [of]: e.target.value })}
    />
  );
  return (
    <div>
      <div className="grid grid-cols-2 items-center gap-2 sm:grid-cols-[minmax(0,1fr)_8rem_5rem_7rem_3rem]">
        {field('text', 'what')}
        {field('partNumber', 'part number', { mono: true, most: 60 })}
        {field('quantity', 'how many', { mono: true, numeric: true })}
        {field('price', tr`price, ${currency}`, { mono: true, numeric: true })}
        <button
          type="button"
          className="min-h-12 underline"
          aria-label={tr`Remove line ${place + 1}`}
          onClick={onRemove}
        >
          off
        </button>
      </div>
      {errorAt(problems, `/record/lines/${place}`) && (
        <p role="alert" className="font-semibold text-rust">
          {errorAt(problems, `/record/lines/${place}`)}
        </p>
      )}
    </div>
  );
}

/** What the payer says, at one press; who said it and for which day may stand beside it. */
function AnswerForm({ view, quotation }: { view: JobView; quotation: string }) {
  const [until, setUntil] = useState('');
  const [said, setSaid] = useState('');
  const { busy, problems, write } = useRecord(view.job.id);
  const error = errorAt(problems, '/record/until');
  useBegun(said.trim() !== '' || until !== '');
  const note = (answer: Answer): void =>
    void write({
      kind: 'answer',
      quotation,
      answer,
      said: said.trim(),
      ...(answer !== 'declined' && until ? { until } : {}),
    });
  return (
    <div role="group" aria-label="Answer of the payer" className="mt-2">
      <div className="grid gap-x-3 sm:grid-cols-[minmax(0,1fr)_12rem]">
        <Field id={`said-${quotation}`} label="Who, and what they said">
          <input
            id={`said-${quotation}`}
            className={inputLook}
            value={said}
            maxLength={2000}
            onChange={(e) => setSaid(e.target.value)}
          />
        </Field>
        <Field id={`until-${quotation}`} label="Day" hint="for, or until" error={error}>
          <input
            type="date"
            className={inputLook}
            value={until}
            onChange={(e) => setUntil(e.target.value)}
            {...tie(`until-${quotation}`, error)}
          />
        </Field>
      </div>
      <OtherProblems problems={problems} paths={['/record/until']} />
      <div className="flex flex-wrap gap-2">
        <Button tone="strong" disabled={busy} onClick={() => note('accepted')}>
          {until ? tr`Accepted, for ${isoDayShown(until)}` : 'Accepted'}
        </Button>
        <Button disabled={busy} onClick={() => note('deferred')}>
          {until ? tr`Deferred until ${isoDayShown(until)}` : 'Deferred'}
        </Button>
        <Button disabled={busy} onClick={() => note('declined')}>
          Declined
        </Button>
      </div>
    </div>
  );
}
