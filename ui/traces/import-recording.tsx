'use client';
import { grouped } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import { FileUp } from 'lucide-react';
import type { Dialect } from '../../formats/trace/dialect';
import { Button, buttonLook } from '../kit/button';
import { CodesOfLog } from './codes-of-log';
import { ColumnTable } from './column-table';
import { ConditionFields } from './condition-fields';
import { FurtherFiles } from './further-files';
import { cancelReading, type Stage } from './reader';
import { TimeField } from './time-field';
import { type ImportRecordingProps, useImportRecording } from './use-import-recording';

const STAGE_WORDS: Readonly<Record<Stage, string>> = { reading: 'Reading and searching', sending: 'Sending' };
const ACCEPTED = '.csv,.txt,.log,.tsv,.asc,.wav,.json,text/csv,text/plain,audio/wav,application/json';

/** Takes a recording into a job: the file, what was understood of it, what the columns were connected to. */
export function ImportRecording(props: ImportRecordingProps) {
  const form = useImportRecording(props);
  const { understood, file, question, problem } = form.state;
  return (
    <section className="rounded-xl bg-card p-4" aria-label="Take a recording in">
      <ChooseFile isStrong={!understood} disabled={form.progress !== null} onChoose={(f) => void form.choose(f)} />
      {question && (
        <p role="status" className="mt-3">
          {understood
            ? 'The columns are as the question document says.'
            : tr`The document says what was connected. Now choose its table${typeof question.data === 'string' ? `, ${question.data}` : ''}.`}
        </p>
      )}
      {problem && (
        <p role="alert" className="mt-3 font-semibold text-rust">
          {problem}
        </p>
      )}
      {understood && file && <Columns form={form} file={file} limits={props.limits} />}
      {form.codes.length > 0 && <CodesOfLog jobId={props.jobId} codes={form.codes} onDone={() => form.setCodes([])} />}
    </section>
  );
}

function ChooseFile(props: { isStrong: boolean; disabled: boolean; onChoose: (file: File) => void }) {
  return (
    <div className="flex flex-wrap items-center gap-3">
      <label className={`${buttonLook(props.isStrong ? 'strong' : 'plain')} cursor-pointer focus-within:outline-2`}>
        <FileUp size={18} aria-hidden="true" />
        Choose a recording
        <input
          type="file"
          className="sr-only"
          accept={ACCEPTED}
          disabled={props.disabled}
          onChange={(e) => {
            const next = e.target.files?.[0];
            if (next) props.onChoose(next);
            e.target.value = '';
          }}
        />
      </label>
      <p className="min-w-0 flex-1 text-sm text-soft">
        A table of any logger or scope, WAV, or a CAN log in text form; or the question document that came with one. It
        is read on this device; a day of four channels takes some seconds.
      </p>
    </div>
  );
}

type Form = ReturnType<typeof useImportRecording>;

/** What was understood of the file, and what a person says of its columns. */
function Columns({ form, file, limits }: { form: Form; file: File; limits: ImportRecordingProps['limits'] }) {
  const { state, change, wrong, progress } = form;
  const { dialect } = state;
  return (
    <form
      className="mt-4"
      onSubmit={(e) => {
        e.preventDefault();
        void form.take();
      }}
    >
      <h3 className="text-lg font-bold">{file.name}</h3>
      {dialect && <Shape dialect={dialect} size={file.size} />}
      {dialect && <TimeField dialect={dialect} onChange={(time) => change({ dialect: { ...dialect, time } })} />}
      <ColumnTable drafts={state.drafts} wrong={wrong} limits={limits} onChange={(drafts) => change({ drafts })} />
      <FurtherFiles
        first={file}
        dialect={dialect}
        further={state.further}
        disabled={progress !== null}
        onChange={form.lay}
      />
      {form.isCapture && (
        <ConditionFields
          condition={state.condition}
          temperature={state.temperature}
          onCondition={(condition) => change({ condition })}
          onTemperature={(temperature) => change({ temperature })}
        />
      )}
      {wrong.get('') && (
        <p role="alert" className="mt-2 font-semibold text-rust">
          {wrong.get('')}
        </p>
      )}
      <Submit progress={progress} />
    </form>
  );
}

function Submit({ progress }: { progress: Form['progress'] }) {
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3">
      {progress ? (
        <>
          <progress className="h-4 w-64" value={progress.share} max={1} aria-label={STAGE_WORDS[progress.stage]} />
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
        {grouped(Math.max(1, Math.round(size / 1000)))} kB; cells between {WORDS[dialect.delimiter]}, decimal{' '}
        {dialect.decimal === ',' ? 'comma' : 'point'}, data from line {dialect.firstDataLine}
        {dialect.headerLine ? tr`, names in line ${dialect.headerLine}` : ', without names'}
        {dialect.unitsLine ? tr`, units in line ${dialect.unitsLine}` : ''}.
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
