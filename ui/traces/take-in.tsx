'use client';
import { FileUp } from 'lucide-react';
import { useRouter } from '../kit/router';
import { useState } from 'react';
import type { RecordingLimits, TraceView } from '../../application/views';
import type { LeadMap } from '../../core/signal/lead-map';
import { overAngle } from '../../application/traces/stored';
import type { Engine } from '../../core/engine/layout';
import type { TraceCapture } from '../../formats/requests/traces';
import type { TraceQuestion } from '../../formats/trace-question';
import { columnNames } from '../../application/traces/together';
import type { Dialect } from '../../formats/trace/dialect';
import type { ReadCode } from '../../formats/trace/types';
import type { Understood } from '../../workers/trace.worker';
import { Button, buttonLook } from '../kit/button';
import { usePerson } from '../kit/session';
import { CodesOfLog } from './codes-of-log';
import { ConditionFields } from './condition-fields';
import { ColumnTable } from './column-table';
import { chosen, type ColumnDraft, proposed, remember, remembered } from './columns';
import { FurtherFiles, type FurtherDraft, furtherFile, isShiftWrong } from './further-files';
import { draftsFrom, readQuestion, tableOf, timeFrom } from './question-file';
import { TimeField } from './time-field';
import { cancelReading, lookAt, type Stage, takeIn } from './reader';

const STAGE_WORDS: Readonly<Record<Stage, string>> = { reading: 'Reading and searching', sending: 'Sending' };

interface TakeInProps {
  readonly jobId: string;
  readonly traces: readonly TraceView[];
  /** Which lead was to go to which pin; `null`: nobody wrote it down. */
  readonly plan: LeadMap | null;
  readonly limits: readonly RecordingLimits[];
  readonly engine: Engine;
}

/** Takes a recording into a job: the file, what was understood of it, what the columns were connected to. */
export function TakeIn({ jobId, traces, plan, limits, engine }: TakeInProps) {
  const by = usePerson();
  const router = useRouter();
  const [file, setFile] = useState<File | null>(null);
  const [understood, setUnderstood] = useState<Understood | null>(null);
  const [dialect, setDialect] = useState<Dialect | null>(null);
  const [drafts, setDrafts] = useState<readonly ColumnDraft[]>([]);
  const [wrong, setWrong] = useState<ReadonlyMap<string, string>>(new Map());
  const [problem, setProblem] = useState<string | null>(null);
  const [progress, setProgress] = useState<{ stage: Stage; share: number } | null>(null);
  const [codes, setCodes] = useState<readonly ReadCode[]>([]);
  const [condition, setCondition] = useState<TraceCapture['condition']>('cranking');
  const [temperature, setTemperature] = useState<TraceCapture['temperature']>(undefined);
  const [question, setQuestion] = useState<TraceQuestion | null>(null);
  const [further, setFurther] = useState<readonly FurtherDraft[]>([]);

  const isCapture = drafts.some((d) => d.isTaken && overAngle(d));

  /** A document that came with a recording: its own samples, or the table that is chosen already or next. */
  async function chooseQuestion(next: File): Promise<void> {
    setProblem(null);
    const read = await readQuestion(next);
    if (!read.ok) {
      const [first] = read.error;
      setProblem(`${next.name}${first?.path ? `, ${first.path}` : ''}: ${first?.message ?? ''} Nothing was stored.`);
      return;
    }
    setQuestion(read.value);
    const table = tableOf(read.value, next.name);
    if (table) await chooseTable(table, read.value);
    else if (understood) asTheDocumentSays(read.value, understood.dialect, drafts);
  }

  function asTheDocumentSays(said: TraceQuestion, table: Dialect | null, from: readonly ColumnDraft[]): void {
    const { drafts: filled, missing } = draftsFrom(said, from);
    setDrafts(filled);
    if (table) setDialect({ ...table, time: timeFrom(said, table) });
    if (said.condition) setCondition(said.condition);
    setTemperature(said.temperature);
    const other =
      said.engine && said.engine.cylinders !== engine.cylinders
        ? `The document is of an engine with ${said.engine.cylinders} cylinders, this one has ${engine.cylinders}.`
        : '';
    const lacking = missing.length ? `The table has no column ${missing.join(', ')}.` : '';
    if (other || lacking) setProblem([lacking, other].filter(Boolean).join(' '));
  }

  async function choose(next: File | undefined): Promise<void> {
    if (!next) return;
    await (/\.json$/i.test(next.name) ? chooseQuestion(next) : chooseTable(next, question));
  }

  async function chooseTable(next: File, said: TraceQuestion | null): Promise<void> {
    setProblem(null);
    setUnderstood(null);
    const looked = await lookAt(next);
    if (!looked.ok) {
      setProblem(
        `${next.name}${looked.path ? `, ${looked.path.slice(1)}` : ''}: ${looked.message} Nothing was stored.`,
      );
      return;
    }
    setFile(next);
    setFurther([]);
    setUnderstood(looked.value);
    setDialect(looked.value.dialect);
    // What was planned for this job comes before what was chosen for another one.
    const before = plan && looked.value.kind !== 'can' ? null : remembered(looked.value.columns);
    const found = before ?? proposed(looked.value.columns, looked.value.kind, plan);
    if (said) asTheDocumentSays(said, looked.value.dialect, proposed(looked.value.columns, looked.value.kind, null));
    else setDrafts(found);
  }

  /** Columns of the files as they are called together; what was said of a column before stays. */
  function laid(next: readonly FurtherDraft[], isOther: boolean): void {
    setFurther(next);
    if (!isOther || !understood) return;
    const files = [understood, ...next];
    const names = columnNames(files);
    const all = files.flatMap(({ columns, kind }, i) =>
      proposed(columns, kind, i === 0 ? plan : null).map((d, k) => ({ ...d, column: names[i]?.[k] ?? d.column })),
    );
    setDrafts(all.map((d) => drafts.find((o) => o.column === d.column) ?? d));
  }

  async function take(): Promise<void> {
    if (!file || !understood || further.some(isShiftWrong)) return;
    const choice = chosen(drafts, limits);
    if ('wrong' in choice) {
      setWrong(choice.wrong);
      return;
    }
    setWrong(new Map());
    setProblem(null);
    remember(understood.columns, drafts.slice(0, understood.columns.length));
    const size = further.reduce((n, d) => n + d.file.size, file.size);
    const half = traces.find((t) => t.missing.length > 0 && t.head.file.startsWith(file.name) && t.head.size === size);
    const done = await takeIn(
      jobId,
      file,
      dialect,
      further.map(furtherFile),
      choice.choices,
      isCapture ? { engine, condition, ...(temperature ? { temperature } : {}) } : null,
      file.name.replace(/\.\w+$/, ''),
      by,
      half ? { id: half.id, sha256: half.head.sha256, missing: half.missing } : null,
      (stage, share) => setProgress({ stage, share }),
    );
    setProgress(null);
    if (!done.ok) {
      setProblem(done.message);
      return;
    }
    setUnderstood(null);
    setFile(null);
    setQuestion(null);
    if (done.codes.length) {
      setCodes(done.codes);
      router.refresh();
    } else router.push(`/traces/${done.id}`);
  }

  return (
    <section className="rounded-xl bg-card p-4" aria-label="Take a recording in">
      <div className="flex flex-wrap items-center gap-3">
        <label className={`${buttonLook(understood ? 'plain' : 'strong')} cursor-pointer focus-within:outline-2`}>
          <FileUp size={18} aria-hidden="true" />
          Choose a recording
          <input
            type="file"
            className="sr-only"
            accept=".csv,.txt,.log,.tsv,.asc,.wav,.json,text/csv,text/plain,audio/wav,application/json"
            disabled={progress !== null}
            onChange={(e) => {
              void choose(e.target.files?.[0]);
              e.target.value = '';
            }}
          />
        </label>
        <p className="min-w-0 flex-1 text-sm text-soft">
          A table of any logger or scope, WAV, or a CAN log in text form; or the question document that came with one.
          It is read on this device; a day of four channels takes some seconds.
        </p>
      </div>
      {question && (
        <p role="status" className="mt-3">
          {understood
            ? 'The columns are as the question document says.'
            : `The document says what was connected. Now choose its table${typeof question.data === 'string' ? `, ${question.data}` : ''}.`}
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-3 font-semibold text-rust">
          {problem}
        </p>
      )}
      {understood && file && (
        <form
          className="mt-4"
          onSubmit={(e) => {
            e.preventDefault();
            void take();
          }}
        >
          <h3 className="text-lg font-bold">{file.name}</h3>
          {dialect && <Shape dialect={dialect} size={file.size} />}
          {dialect && <TimeField dialect={dialect} onChange={(time) => setDialect({ ...dialect, time })} />}
          <ColumnTable drafts={drafts} wrong={wrong} limits={limits} onChange={setDrafts} />
          <FurtherFiles first={file} dialect={dialect} further={further} disabled={progress !== null} onChange={laid} />
          {isCapture && (
            <ConditionFields
              condition={condition}
              temperature={temperature}
              onCondition={setCondition}
              onTemperature={setTemperature}
            />
          )}
          {wrong.get('') && (
            <p role="alert" className="mt-2 font-semibold text-rust">
              {wrong.get('')}
            </p>
          )}
          <div className="mt-3 flex flex-wrap items-center gap-3">
            {progress ? (
              <>
                <progress
                  className="h-4 w-64"
                  value={progress.share}
                  max={1}
                  aria-label={STAGE_WORDS[progress.stage]}
                />
                <span role="status">
                  {STAGE_WORDS[progress.stage]}, {Math.round(progress.share * 100)} %
                </span>
                {progress.stage === 'reading' && <Button onClick={() => cancelReading()}>Cancel</Button>}
              </>
            ) : (
              <Button type="submit" tone="strong">
                Take it in
              </Button>
            )}
          </div>
        </form>
      )}
      {codes.length > 0 && <CodesOfLog jobId={jobId} codes={codes} onDone={() => setCodes([])} />}
    </section>
  );
}

const WORDS: Readonly<Record<string, string>> = {
  ',': 'commas',
  ';': 'semicolons',
  '\t': 'tabs',
  '|': 'bars',
  ' ': 'blanks',
};

/** What was understood of a table, with its first lines as they are. */
function Shape({ dialect, size }: { dialect: Dialect; size: number }) {
  return (
    <div className="mt-1 text-sm">
      <p>
        {Math.max(1, Math.round(size / 1000)).toLocaleString('en')} kB; cells between {WORDS[dialect.delimiter]},
        decimal {dialect.decimal === ',' ? 'comma' : 'point'}, data from line {dialect.firstDataLine}
        {dialect.headerLine ? `, names in line ${dialect.headerLine}` : ', without names'}
        {dialect.unitsLine ? `, units in line ${dialect.unitsLine}` : ''}.
      </p>
      <details>
        <summary className="min-h-8 cursor-pointer underline">Its first lines</summary>
        <pre
          tabIndex={0}
          aria-label="First lines of the file"
          className="max-h-52 overflow-auto rounded-lg bg-panel p-2 font-mono text-xs"
        >
          {dialect.sample.join('\n')}
        </pre>
      </details>
    </div>
  );
}
