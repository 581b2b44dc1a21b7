'use client';
import { tr } from '../../core/locale/translate';
import { Ear, FileDown, FileText, FileUp, Keyboard, Printer } from 'lucide-react';
import dynamic from 'next/dynamic';
import { Link } from '../kit/link';
import { memo } from 'react';
import type { RunView } from '../../application/views';
import type { Line } from './use-run';

const DisplayPhoto = dynamic(() => import('./display-photo').then((m) => m.DisplayPhoto), { ssr: false });

export interface FootProps {
  readonly view: RunView;
  /** The reading whose display is photographed. */
  readonly shown: Line | null;
  readonly waiting: number;
  readonly unkept: boolean;
  readonly loaded: boolean;
  readonly reachable: boolean;
  readonly padOpen: boolean | null;
  readonly isListening: boolean;
  readonly onListen: () => void;
  readonly onPad: () => void;
  readonly onSheet: (sheet: 'shortcuts' | 'csv') => void;
}

const link =
  'inline-flex min-h-8 pointer-coarse:min-h-12 items-center gap-1.5 rounded-lg px-2 text-sm text-soft hover:text-ink';

/** On a tablet the drawing is enough: all of it stays one row. */
const WORD = 'max-xl:pointer-coarse:sr-only';

/** Under the entry bar: whether everything is saved, and what can be done with the result. */
export function Foot(props: FootProps) {
  const { view, waiting, unkept, loaded, reachable, padOpen, isListening, onListen, onPad, onSheet } = props;
  return (
    <div className="no-print flex shrink-0 flex-wrap items-center gap-x-1">
      <p
        role="status"
        data-testid="saved"
        className={`mr-auto text-sm ${waiting || unkept ? 'font-semibold text-ochre' : 'text-soft'}`}
      >
        {loaded ? savedWords(waiting, reachable, unkept) : 'Looking for entries that wait …'}
      </p>
      <Listen isListening={isListening} onListen={onListen} />
      <DisplayPhoto view={view} line={props.shown} look={link} />
      <RunLinks runId={view.id} padOpen={padOpen} onPad={onPad} onSheet={onSheet} />
    </div>
  );
}

const Listen = memo(function Listen({ isListening, onListen }: Pick<FootProps, 'isListening' | 'onListen'>) {
  return (
    <button type="button" className={link} aria-pressed={isListening} onClick={onListen}>
      <Ear size={16} aria-hidden="true" />
      Listen
    </button>
  );
});

type RunLinksProps = { readonly runId: string } & Pick<FootProps, 'padOpen' | 'onPad' | 'onSheet'>;

/** What an entry does not change is not drawn again for it. */
const RunLinks = memo(function RunLinks({ runId, padOpen, onPad, onSheet }: RunLinksProps) {
  return (
    <>
      <a className={link} href={`/api/runs/${runId}/pdf`}>
        <FileText size={16} aria-hidden="true" />
        PDF
      </a>
      <Link className={link} href={`/runs/${runId}/print`}>
        <Printer size={16} aria-hidden="true" />
        <span className={WORD}>Print</span>
      </Link>
      <a className={link} href={`/api/runs/${runId}/csv`} download>
        <FileDown size={16} aria-hidden="true" />
        <span className={WORD}>CSV out</span>
      </a>
      <button type="button" className={link} onClick={() => onSheet('csv')}>
        <FileUp size={16} aria-hidden="true" />
        <span className={WORD}>CSV in</span>
      </button>
      <button type="button" className={link} title="Large keys" aria-expanded={padOpen ?? undefined} onClick={onPad}>
        <Keyboard size={16} aria-hidden="true" />
        <span className="max-2xl:sr-only">Large keys</span>
      </button>
      <button type="button" className={link} onClick={() => onSheet('shortcuts')} aria-label="Keyboard shortcuts">
        <kbd className="rounded border border-line px-1.5 font-mono">?</kbd>
      </button>
    </>
  );
});

function savedWords(waiting: number, reachable: boolean, lost: boolean): string {
  if (lost) return 'This browser keeps nothing: do not close the page before the server has it all.';
  if (waiting === 0) return 'Everything is saved.';
  const count = waiting === 1 ? '1 entry' : tr`${waiting} entries`;
  return reachable ? tr`Saving ${count} …` : tr`No server. ${count} kept in this browser, sent when it is back.`;
}
