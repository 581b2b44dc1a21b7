'use client';
import { tr } from '../../core/locale/translate';
import { Camera } from 'lucide-react';
import { Link } from '../kit/link';
import { useId, useState } from 'react';
import { checkCode, type CodingRule, GENERAL_RULE, groupedCode, plainCode } from '../../core/repair/coding';
import { codesKept, renewedPositions } from '../../core/repair/proof';
import type { JobView } from '../../application/views';
import { useBegun } from '../kit/begun';
import { Button, buttonLook } from '../kit/button';
import { errorAt } from '../kit/draft';
import { inputLook } from '../kit/field';
import { useMay } from '../kit/session';
import { CodingRuleForm } from './keep-data';
import { useRecord } from './use-record';

const PART = 'injector';

/** Trim codes of new injectors: typed, pasted, or from a photo of the code on the part. */
export function Coding({ view }: { view: JobView }) {
  const newest = codesKept(view.repair.records, PART);
  const rule =
    (view.repair.service.find((s) => s.kind === 'coding' && s.key === PART)?.body as CodingRule | undefined) ??
    GENERAL_RULE;
  const may = useMay('job.write-repair') && !view.job.closed;
  const [all, setAll] = useState(false);
  const positions = Array.from({ length: view.unit.engine.cylinders }, (_, i) => i + 1);
  // Those that were renewed; the others at a tap.
  const renewed = new Set(
    view.findings.flatMap((f) =>
      f.body.kind === 'found' && f.body.name === PART
        ? renewedPositions(f.id, f.body, { records: view.repair.records, cylinders: positions.length })
        : [],
    ),
  );
  const shown = positions.filter((p) => all || renewed.size === 0 || renewed.has(p) || newest.has(p));
  const isLead = useMay('service-data.change');
  const [editing, setEditing] = useState(false);
  return (
    <div>
      <p className="text-sm text-soft">
        {rule === GENERAL_RULE
          ? 'How these codes look is not entered for this engine: only letters and digits are checked.'
          : tr`${rule.lengths.join(' or ')} characters${rule.check === 'none' ? '' : ', the last one checks the others'}.`}{' '}
        Each code belongs to its cylinder, exactly.
        {isLead && (
          <button type="button" className="ml-2 min-h-8 underline" onClick={() => setEditing(!editing)}>
            how they look
          </button>
        )}
      </p>
      {editing && <CodingRuleForm family={view.unit.family} part={PART} rule={rule} onDone={() => setEditing(false)} />}
      <ul className="mt-1 flex flex-col gap-2">
        {shown.map((p) => (
          <li key={p}>
            <OneCode
              view={view}
              position={p}
              rule={rule}
              now={newest.get(p)?.body.code ?? null}
              before={newest.get(p)?.body.old ?? view.repair.oldCodes[String(p)] ?? null}
              may={may}
            />
          </li>
        ))}
      </ul>
      {shown.length < positions.length && (
        <button type="button" className="min-h-12 underline" onClick={() => setAll(true)}>
          Codes of the other cylinders
        </button>
      )}
      {newest.size > 0 && (
        <Link className={`${buttonLook()} mt-2`} href={`/jobs/${view.job.id}/codes`}>
          Print, large and to be scanned
        </Link>
      )}
    </div>
  );
}

/** Where a code came from. */
type How = 'typed' | 'pasted' | 'photo';

interface CodeProps {
  readonly view: JobView;
  readonly position: number;
  readonly rule: CodingRule;
  readonly now: string | null;
  readonly before: string | null;
}

/**
 * The code of one cylinder while it is typed, pasted or read from a photo, what is wrong with it, and its
 * keeping.
 */
function useCodeEntry({ view, position, rule, now, before }: CodeProps) {
  const [text, setText] = useState('');
  useBegun(text.trim() !== '');
  const [how, setHow] = useState<How>('typed');
  const [said, setSaid] = useState<string | null>(null);
  const [sure, setSure] = useState('');
  const [because, setBecause] = useState('');
  const { busy, problems, write } = useRecord(view.job.id);
  const faults = text.trim() ? checkCode(text, rule, how) : [];
  const isLength = faults.some((f) => f.is === 'length');
  const wrong = faults.filter((f) => !f.doubt && !(f.is === 'length' && because.trim() !== ''));
  const doubts = faults.filter((f) => f.doubt);
  const error = errorAt(problems, '/record/code') ?? said;
  async function read(file: File | undefined): Promise<void> {
    if (!file) return;
    setSaid('Reading the photo …');
    const { readPhoto } = await import('./read-photo');
    const found = await readPhoto(file).catch(() => [] as string[]);
    const [code] = found;
    setSaid(
      code === undefined
        ? 'No code was found on the photo. Closer, straight above, light from the side; or type it.'
        : found.length > 1
          ? tr`${found.length} codes are on the photo; this is the first one.`
          : null,
    );
    if (code === undefined) return;
    setText(code);
    setHow('photo');
  }
  async function save(): Promise<void> {
    const code = plainCode(text);
    // Doubtful characters are looked at once more before the code counts.
    if (doubts.length && sure !== code) {
      setSure(code);
      setSaid(tr`Look once more, then keep it: ${doubts.map((d) => d.text).join(' ')}`);
      return;
    }
    if (
      await write({
        kind: 'coding',
        part: PART,
        position,
        code,
        how,
        ...((now ?? before) ? { old: now ?? before ?? '' } : {}),
        ...(isLength && because.trim() ? { because: because.trim() } : {}),
      })
    ) {
      setText('');
      setBecause('');
      setSaid(null);
      setHow('typed');
    }
  }
  function type(next: string): void {
    setText(next);
    setSaid(null);
    if (how === 'photo' || next === '') setHow('typed');
  }
  const withdraw = (): void =>
    void write({ kind: 'coding-withdrawn', part: PART, position, because: because.trim() || 'a slip' });
  return {
    text,
    isLength,
    because,
    setBecause,
    withdraw,
    wrong,
    doubts: sure === plainCode(text) ? [] : doubts,
    error,
    busy,
    type,
    paste: () => setHow('pasted'),
    read,
    save,
  };
}

function OneCode({ may, ...props }: CodeProps & { readonly may: boolean }) {
  const { position, rule, now, before } = props;
  const entry = useCodeEntry(props);
  const id = useId();
  return (
    <div className="grid gap-2 sm:grid-cols-[5rem_minmax(0,1fr)]">
      <label htmlFor={id} className="pt-3 font-semibold">
        Cylinder {position}
      </label>
      <div>
        {now && (
          <p className="font-mono text-xl break-all">
            {groupedCode(now, rule.groups)}
            {may && (
              <button
                type="button"
                className="ml-3 min-h-12 font-sans text-sm underline"
                disabled={entry.busy}
                onClick={entry.withdraw}
              >
                withdraw<span className="sr-only"> the code of cylinder {position}</span>
              </button>
            )}
          </p>
        )}
        {before && before !== now && (
          <p className="text-sm text-soft">
            before: <span className="font-mono break-all">{groupedCode(before, rule.groups)}</span>
          </p>
        )}
        {may && <CodeForm id={id} entry={entry} position={position} another={now !== null} />}
        {may && entry.isLength && (
          <label className="mt-1 block text-sm">
            It is right all the same, because
            <input
              className={inputLook}
              value={entry.because}
              maxLength={2000}
              onChange={(e) => entry.setBecause(e.target.value)}
            />
          </label>
        )}
        <div id={`${id}-said`} role="status">
          {entry.wrong.map((f) => (
            <p key={f.text} className="font-semibold text-rust">
              {f.text}
            </p>
          ))}
          {entry.wrong.length === 0 && entry.doubts.length > 0 && (
            <p className="text-ochre">{entry.doubts.map((d) => d.text).join(' ')}</p>
          )}
          {entry.error && <p className="font-semibold text-rust">{entry.error}</p>}
        </div>
      </div>
    </div>
  );
}

interface CodeFormProps {
  readonly id: string;
  readonly entry: ReturnType<typeof useCodeEntry>;
  readonly position: number;
  /** The cylinder has a code already. */
  readonly another: boolean;
}

function CodeForm({ id, entry, position, another }: CodeFormProps) {
  return (
    <form
      noValidate
      className="flex flex-wrap items-start gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void entry.save();
      }}
    >
      <input
        id={id}
        className={`${inputLook} mt-0 max-w-96 flex-1 font-mono uppercase`}
        autoComplete="off"
        spellCheck={false}
        value={entry.text}
        maxLength={120}
        placeholder={another ? 'another code' : 'code'}
        aria-invalid={entry.wrong.length > 0 || entry.error !== null}
        aria-describedby={`${id}-said`}
        onChange={(e) => {
          entry.type(e.target.value);
        }}
        onPaste={entry.paste}
      />
      <label className={`${buttonLook()} cursor-pointer focus-within:outline-2`}>
        <Camera size={18} aria-hidden="true" />
        <span className="sr-only">Photo of the code of cylinder {position}</span>
        <input
          type="file"
          accept="image/*"
          capture="environment"
          className="sr-only"
          onChange={(e) => {
            void entry.read(e.target.files?.[0]);
            e.target.value = '';
          }}
        />
      </label>
      <Button type="submit" disabled={entry.busy || entry.text.trim() === '' || entry.wrong.length > 0}>
        Keep
      </Button>
    </form>
  );
}
