'use client';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { overAngle } from '../../application/traces/stored';
import { columnNames } from '../../application/traces/together';
import type { RecordingLimits, TraceView } from '../../application/views';
import type { Engine } from '../../core/engine/layout';
import type { LeadMap } from '../../core/signal/lead-map';
import type { TraceCapture } from '../../formats/requests/traces';
import type { Dialect } from '../../formats/trace/dialect';
import type { TraceQuestion } from '../../formats/trace-question';
import type { ReadCode } from '../../formats/trace/types';
import type { Understood } from '../../workers/trace.worker';
import { useRouter } from '../kit/router';
import { usePerson } from '../kit/session';
import { chosen, type ColumnDraft, proposed, remember, remembered } from './columns';
import { type FurtherDraft, furtherFile, isShiftWrong } from './further-files';
import { draftsFrom, readQuestion, tableOf, timeFrom } from './question-file';
import { lookAt, type Stage, uploadRecording } from './reader';

export interface ImportRecordingProps {
  readonly jobId: string;
  readonly traces: readonly TraceView[];
  /** Which lead was to go to which pin; `null`: nobody wrote it down. */
  readonly plan: LeadMap | null;
  readonly limits: readonly RecordingLimits[];
  readonly engine: Engine;
}

/** What has been chosen so far. */
interface Chosen {
  readonly file: File | null;
  readonly understood: Understood | null;
  readonly dialect: Dialect | null;
  readonly drafts: readonly ColumnDraft[];
  readonly further: readonly FurtherDraft[];
  readonly question: TraceQuestion | null;
  readonly condition: TraceCapture['condition'];
  readonly temperature: TraceCapture['temperature'];
  /** What stands in the way, as a whole. */
  readonly problem: string | null;
}
const NOTHING: Chosen = {
  file: null,
  understood: null,
  dialect: null,
  drafts: [],
  further: [],
  question: null,
  condition: 'cranking',
  temperature: undefined,
  problem: null,
};

/** The files and what their columns are connected to: chosen one after the other, corrected in any order. */
function useChosen({ plan, engine }: ImportRecordingProps) {
  const [state, setState] = useState(NOTHING);
  const change = (part: Partial<Chosen>): void => setState((before) => ({ ...before, ...part }));

  /** What a document says of the columns of a table, with what does not fit. */
  function asDocumentSays(said: TraceQuestion, table: Dialect | null, from: readonly ColumnDraft[]): void {
    const { drafts, missing } = draftsFrom(said, from);
    const other =
      said.engine && said.engine.cylinders !== engine.cylinders
        ? tr`The document is of an engine with ${said.engine.cylinders} cylinders, this one has ${engine.cylinders}.`
        : '';
    const lacking = missing.length ? tr`The table has no column ${missing.join(', ')}.` : '';
    change({
      drafts,
      ...(table ? { dialect: { ...table, time: timeFrom(said, table) } } : {}),
      ...(said.condition ? { condition: said.condition } : {}),
      temperature: said.temperature,
      ...(other || lacking ? { problem: [lacking, other].filter(Boolean).join(' ') } : {}),
    });
  }

  async function chooseTable(next: File, said: TraceQuestion | null): Promise<void> {
    change({ problem: null, understood: null });
    const looked = await lookAt(next);
    if (!looked.ok) {
      const where = looked.place ? `, ${looked.place}` : '';
      change({ problem: tr`${next.name}${where}: ${looked.message} Nothing was stored.` });
      return;
    }
    const { columns, kind, dialect } = looked.value;
    // What was planned for this job comes before what was chosen for another one.
    const before = plan && kind !== 'can' ? null : remembered(columns);
    change({
      file: next,
      further: [],
      understood: looked.value,
      dialect,
      drafts: before ?? proposed(columns, kind, plan),
    });
    if (said) asDocumentSays(said, dialect, proposed(columns, kind, null));
  }

  /** A document that came with a recording: its own samples, or the table that is chosen already or next. */
  async function chooseQuestion(next: File): Promise<void> {
    change({ problem: null });
    const read = await readQuestion(next);
    if (!read.ok) {
      const [first] = read.error;
      const where = first?.path ? `, ${first.path}` : '';
      change({ problem: tr`${next.name}${where}: ${first?.message ?? ''} Nothing was stored.` });
      return;
    }
    change({ question: read.value });
    const table = tableOf(read.value, next.name);
    if (table) await chooseTable(table, read.value);
    else if (state.understood) asDocumentSays(read.value, state.understood.dialect, state.drafts);
  }

  /** Columns of the files as they are called together; what was said of a column before stays. */
  function lay(next: readonly FurtherDraft[], isOther: boolean): void {
    change({ further: next });
    const { understood, drafts } = state;
    if (!isOther || !understood) return;
    const files = [understood, ...next];
    const names = columnNames(files);
    const all = files.flatMap(({ columns, kind }, i) =>
      proposed(columns, kind, i === 0 ? plan : null).map((d, k) => ({ ...d, column: names[i]?.[k] ?? d.column })),
    );
    change({ drafts: all.map((d) => drafts.find((o) => o.column === d.column) ?? d) });
  }

  const choose = (next: File): Promise<void> =>
    /\.json$/i.test(next.name) ? chooseQuestion(next) : chooseTable(next, state.question);
  return { state, change, choose, lay };
}

/** What the form shows and does: the files that were chosen, what is wrong, how far it is. */
export function useImportRecording(props: ImportRecordingProps) {
  const { jobId, traces, limits, engine } = props;
  const by = usePerson();
  const router = useRouter();
  const { state, change, choose, lay } = useChosen(props);
  const [wrong, setWrong] = useState<ReadonlyMap<string, string>>(new Map());
  const [progress, setProgress] = useState<{ stage: Stage; share: number } | null>(null);
  const [codes, setCodes] = useState<readonly ReadCode[]>([]);
  const isCapture = state.drafts.some((d) => d.isTaken && overAngle(d));

  async function take(): Promise<void> {
    const { file, understood, further, drafts, dialect, condition, temperature } = state;
    if (!file || !understood || further.some(isShiftWrong)) return;
    const choice = chosen(drafts, limits);
    if ('wrong' in choice) {
      setWrong(choice.wrong);
      return;
    }
    setWrong(new Map());
    change({ problem: null });
    remember(understood.columns, drafts.slice(0, understood.columns.length));
    const size = further.reduce((n, d) => n + d.file.size, file.size);
    const half = traces.find((t) => t.missing.length > 0 && t.head.file.startsWith(file.name) && t.head.size === size);
    const done = await uploadRecording(
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
      change({ problem: done.message });
      return;
    }
    change({ understood: null, file: null, question: null });
    if (done.codes.length) {
      setCodes(done.codes);
      router.refresh();
    } else router.push(`/traces/${done.id}`);
  }
  return { state, change, choose, lay, wrong, progress, codes, setCodes, isCapture, take };
}
