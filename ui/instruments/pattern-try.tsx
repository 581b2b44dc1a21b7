'use client';
import { tr } from '../../core/locale/translate';
import { useState } from 'react';
import { entryOf } from '../../core/instrument/entry';
import { linePattern } from '../../formats/meter-pattern';
import { LINE_PROBLEM_WORDS } from '../../core/instrument/types';
import { inputLook } from '../kit/field';

const MOST_LINES = 20;

/** Lines that a meter has sent, pasted, and what the pattern reads in each. */
export function PatternTry({ pattern }: { pattern: string }) {
  const [lines, setLines] = useState('');
  const read = linePattern(pattern);
  return (
    <div className="mb-2">
      <label className="text-sm">
        Try it: paste lines that the meter has sent
        <textarea
          className={`${inputLook} py-2 font-mono`}
          rows={3}
          maxLength={4000}
          value={lines}
          onChange={(e) => setLines(e.target.value)}
        />
      </label>
      {!read.ok && <p className="text-sm text-rust">{read.error}</p>}
      {read.ok && (
        <ul className="text-sm" aria-label="What the pattern reads">
          {lines
            .split(/\r?\n/)
            .filter((l) => l.trim() !== '')
            .slice(0, MOST_LINES)
            .map((line, i) => {
              const result = read.value(line);
              return (
                <li key={i} className={result.ok ? '' : 'text-ochre'}>
                  <code>{line.slice(0, 60)}</code>:{' '}
                  {result.ok
                    ? tr`${entryOf(result.value.value, result.value.step, result.value.quantity ?? 'ratio')}${result.value.quantity ? '' : ' (it does not say of what)'}`
                    : LINE_PROBLEM_WORDS[result.why]}
                </li>
              );
            })}
        </ul>
      )}
    </div>
  );
}
