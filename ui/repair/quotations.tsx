'use client';
import { useState } from 'react';
import { recordsOfKind } from '../../core/repair/proof';
import { moneyWords, toMinor } from '../../core/repair/money';
import { totalOf } from '../../core/repair/quotation';
import { ANSWERS, type Answer } from '../../core/repair/types';
import type { Problem } from '../../core/foundation/result';
import type { JobView } from '../../application/views';
import { Button } from '../kit/button';
import { Choice } from '../kit/chips';
import { errorAt } from '../kit/draft';
import { Field, inputLook, tie } from '../kit/field';
import { OtherProblems } from '../kit/form';
import { useMay } from '../kit/session';
import { shownTime } from '../kit/time';
import type { FoundFinding } from './found';
import { EMPTY, type LineDraft, linesFrom, problemsOf, readLines, totalOfRead } from './quotation-draft';
import { useRecord } from './use-record';

/** What the payer is asked, and what they said. */
export function Quotations({ view, findings }: { view: JobView; findings: readonly FoundFinding[] }) {
  const made = recordsOfKind(view.repair.records, 'quotation');
  const may = useMay('job.write-repair') && !view.job.closed;
  const [writing, setWriting] = useState(false);
  return (
    <div>
      {made.map((q) => {
        const answer = recordsOfKind(view.repair.records, 'answer').findLast((a) => a.body.quotation === q.id);
        return (
          <article
            key={q.id}
            className="mb-2 rounded-lg bg-panel p-3"
            aria-label={`Quotation of ${moneyWords(totalOf(q.body.lines), q.body.currency)}`}
          >
            <table className="w-full text-left">
              <tbody>
                {q.body.lines.map((l, i) => (
                  <tr key={i}>
                    <td>{l.text}</td>
                    <td className="text-right font-mono">
                      {l.quantity} × {moneyWords(l.price, q.body.currency)}
                    </td>
                    <td className="text-right font-mono">
                      {moneyWords(Math.round(l.quantity * l.price), q.body.currency)}
                    </td>
                  </tr>
                ))}
                <tr className="border-t border-line font-semibold">
                  <td>In all</td>
                  <td />
                  <td className="text-right font-mono">{moneyWords(totalOf(q.body.lines), q.body.currency)}</td>
                </tr>
              </tbody>
            </table>
            {q.body.note && <p>{q.body.note}</p>}
            <p className="text-sm text-soft">
              {shownTime(q.at, view.unit.timeZone)}, {q.by}
            </p>
            {answer && (
              <p className="font-semibold">
                {ANSWER_WORDS[answer.body.answer]}
                {answer.body.until && ` until ${answer.body.until}`}
                {answer.body.said && `: ${answer.body.said}`}{' '}
                <span className="text-sm font-normal text-soft">{answer.by}</span>
              </p>
            )}
            {may && (!answer || answer.body.answer === 'deferred') && q === made.at(-1) && (
              <AnswerForm view={view} quotation={q.id} />
            )}
          </article>
        );
      })}
      {may &&
        (writing || made.length === 0 ? (
          <QuotationForm view={view} findings={findings} onDone={() => setWriting(false)} />
        ) : (
          <Button onClick={() => setWriting(true)}>Another quotation</Button>
        ))}
    </div>
  );
}

const ANSWER_WORDS: Readonly<Record<Answer, string>> = {
  accepted: 'Accepted',
  declined: 'Declined',
  deferred: 'Deferred',
};

function QuotationForm({
  view,
  findings,
  onDone,
}: {
  view: JobView;
  findings: readonly FoundFinding[];
  onDone: () => void;
}) {
  const [finding, setFinding] = useState(findings[0]?.id ?? '');
  const chosen = findings.find((f) => f.id === finding) ?? findings[0];
  const [lines, setLines] = useState<readonly LineDraft[]>(() => (chosen ? linesFrom(view, chosen) : [EMPTY]));
  const [note, setNote] = useState('');
  const [wrong, setWrong] = useState<readonly Problem[]>([]);
  const { busy, problems, write } = useRecord(view.job.id);
  const { currency } = view.repair;
  const read = readLines(lines);
  const total = totalOfRead(read, currency);
  const set = (i: number, change: Partial<LineDraft>): void =>
    setLines(lines.map((l, n) => (n === i ? { ...l, ...change } : l)));
  async function save(): Promise<void> {
    const bad = problemsOf(read);
    setWrong(bad);
    if (bad.length || !chosen) return;
    if (
      await write({
        kind: 'quotation',
        finding: chosen.id,
        currency,
        note: note.trim(),
        lines: read.map(({ text, quantity, price }) => ({
          text,
          quantity: quantity ?? 0,
          price: toMinor(price ?? 0, currency),
        })),
      })
    )
      onDone();
  }
  const all = [...wrong, ...problems];
  return (
    <form
      noValidate
      aria-label="Quotation"
      onSubmit={(e) => {
        e.preventDefault();
        void save();
      }}
    >
      {findings.length > 1 && (
        <Choice
          label="For"
          value={finding}
          onChange={(id) => {
            setFinding(id);
            const f = findings.find((x) => x.id === id);
            if (f) setLines(linesFrom(view, f));
          }}
          options={findings.map((f) => [f.id, f.body.text] as const)}
        />
      )}
      {lines.map((l, i) => (
        <Line key={i} place={i} line={l} currency={currency} problems={all} onChange={(change) => set(i, change)} />
      ))}
      <p className="mt-2 flex items-center justify-between">
        <button type="button" className="min-h-10 underline" onClick={() => setLines([...lines, EMPTY])}>
          Add a line
        </button>
        <span className="font-mono font-semibold">{moneyWords(total, currency)}</span>
      </p>
      <Field id="quotation-note" label="Note for the payer">
        <input
          id="quotation-note"
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

interface LineProps {
  readonly place: number;
  readonly line: LineDraft;
  readonly currency: string;
  readonly problems: readonly Problem[];
  readonly onChange: (change: Partial<LineDraft>) => void;
}

function Line({ place, line, currency, problems, onChange }: LineProps) {
  return (
    <div>
      <div className="grid grid-cols-[minmax(0,1fr)_5rem_7rem] gap-2">
        <input
          aria-label={`Line ${place + 1}, what`}
          className={inputLook}
          value={line.text}
          maxLength={200}
          aria-invalid={errorAt(problems, `/record/lines/${place}/text`) !== undefined}
          onChange={(e) => onChange({ text: e.target.value })}
        />
        <input
          aria-label={`Line ${place + 1}, how many`}
          className={`${inputLook} font-mono`}
          inputMode="decimal"
          value={line.quantity}
          aria-invalid={errorAt(problems, `/record/lines/${place}/quantity`) !== undefined}
          onChange={(e) => onChange({ quantity: e.target.value })}
        />
        <input
          aria-label={`Line ${place + 1}, price, ${currency}`}
          className={`${inputLook} font-mono`}
          inputMode="decimal"
          value={line.price}
          aria-invalid={errorAt(problems, `/record/lines/${place}/price`) !== undefined}
          onChange={(e) => onChange({ price: e.target.value })}
        />
      </div>
      {errorAt(problems, `/record/lines/${place}`) && (
        <p role="alert" className="font-semibold text-rust">
          {errorAt(problems, `/record/lines/${place}`)}
        </p>
      )}
    </div>
  );
}

function AnswerForm({ view, quotation }: { view: JobView; quotation: string }) {
  const [answer, setAnswer] = useState<Answer>('accepted');
  const [until, setUntil] = useState('');
  const [said, setSaid] = useState('');
  const { busy, problems, write } = useRecord(view.job.id);
  const error = errorAt(problems, '/record/until');
  return (
    <form
      noValidate
      aria-label="Answer of the payer"
      className="mt-2"
      onSubmit={(e) => {
        e.preventDefault();
        void write({
          kind: 'answer',
          quotation,
          answer,
          said: said.trim(),
          ...(answer === 'deferred' && until ? { until } : {}),
        });
      }}
    >
      <Choice<Answer>
        label="The payer says"
        value={answer}
        onChange={setAnswer}
        options={ANSWERS.map((a) => [a, ANSWER_WORDS[a]] as const)}
      />
      {answer === 'deferred' && (
        <Field id="answer-until" label="Until" error={error}>
          <input
            type="date"
            className={inputLook}
            value={until}
            onChange={(e) => setUntil(e.target.value)}
            {...tie('answer-until', error)}
          />
        </Field>
      )}
      <Field id="answer-said" label="Who, and what they said">
        <input
          id="answer-said"
          className={inputLook}
          value={said}
          maxLength={2000}
          onChange={(e) => setSaid(e.target.value)}
        />
      </Field>
      <OtherProblems problems={problems} paths={['/record/until']} />
      <Button type="submit" disabled={busy}>
        Note the answer
      </Button>
    </form>
  );
}
