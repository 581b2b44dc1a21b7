import { tr } from '../../core/locale/translate';
import type { AccuracyRange } from '../../core/metrology/instrument';
import type { Dialect, MeterLink } from '../../core/instrument/link';
import { checkLink } from '../../formats/meter-link';
import { entryToBase, parseEntry } from '../../core/quantity/entry';
import { printLimit } from '../../core/quantity/print';
import { baseUnit, QUANTITIES, type Quantity } from '../../core/quantity/units';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import type { InstrumentDocument } from '../../formats/instrument';
import type { InstrumentView } from '../../application/views';
import { type Draft, DraftReader, numberShown, pruned } from '../kit/draft';

export const KINDS = ['multimeter', 'clamp', 'gauge', 'scan tool', 'four-wire meter', 'oscilloscope'] as const;

/**
 * A range as a line of text: `resistance 200 0.8% 3 0.1` (quantity, top, percent of reading, counts, one
 * count).
 */
export const rangeLine = (r: AccuracyRange): string =>
  `${r.quantity} ${r.upTo} ${r.percentOfReading}% ${r.counts} ${r.resolution}`;

/** "to 200 Ω: 0.8 % + 3 counts of 0.1 Ω" */
export function rangeWordsOf(r: AccuracyRange): string {
  const unit = baseUnit(r.quantity).shown;
  return tr`to ${printLimit(r.upTo, unit)}: ${r.percentOfReading} % + ${r.counts} counts of ${printLimit(r.resolution, unit)}`;
}

function readRange(line: string): Result<AccuracyRange, string> {
  const [quantity = '', top = '', percent = '', counts = '', step = '', ...more] = line.split(/\s+/);
  if (!(QUANTITIES as readonly string[]).includes(quantity))
    return fail(tr`"${quantity}" is no quantity; a line is: resistance 200 0.8% 3 0.1`);
  if (step === '' || more.length)
    return fail(tr`"${line}": a line has five parts: quantity, top of range, percent, counts, one count.`);
  const read = (text: string): number => {
    const parsed = parseEntry(text, quantity as Quantity);
    return parsed.ok && parsed.value.kind === 'number'
      ? entryToBase(parsed.value, { unit: baseUnit(quantity as Quantity), scale: 1 }).value
      : NaN;
  };
  const range = {
    quantity: quantity as Quantity,
    upTo: read(top),
    percentOfReading: Number(percent.replace('%', '').replace(',', '.')),
    counts: Number(counts),
    resolution: read(step),
  };
  const wrong = Object.entries(range).find(
    ([f, v]) => f !== 'quantity' && !(typeof v === 'number' && Number.isFinite(v) && v >= 0),
  );
  return wrong || range.upTo === 0 || range.resolution === 0
    ? fail(tr`"${line}": ${wrong ? wrong[0] : 'top and count'} cannot be read.`)
    : ok(range);
}

export const draftOfInstrument = (i: InstrumentView | null): Draft => ({
  name: i?.name ?? '',
  kind: i?.kind ?? 'multimeter',
  calibrationDue: i?.calibrationDue ?? '',
  clamp_mVperA: numberShown(i?.clamp_mVperA),
  leadRepeatability_ohm: numberShown(i?.leadRepeatability_ohm),
  accuracy: (i?.accuracy ?? []).map(rangeLine).join('\n'),
  ...draftOfLink(i?.link),
});

const draftOfLink = (link: MeterLink | undefined): Draft => ({
  way: link?.kind ?? 'typed',
  host: link?.kind === 'network' ? link.host : '',
  port: link?.kind === 'network' ? String(link.port) : '5025',
  baud: link?.kind === 'serial' ? String(link.baud) : '9600',
  speaks: link?.kind === 'serial' ? link.speaks : 'unasked',
  pattern: link?.kind === 'serial' ? (link.pattern ?? '') : '',
});

/** How the instrument is reached, as the form has it; `null`: its values are typed. */
function linkOf(draft: Draft): MeterLink | null {
  const { way, host = '', port = '', baud = '', speaks = 'unasked', pattern = '' } = draft;
  if (way === 'network') return { kind: 'network', host: host.trim(), port: Number(port) };
  if (way !== 'serial') return null;
  const dialect = speaks as Dialect;
  return { kind: 'serial', baud: Number(baud), speaks: dialect, ...(dialect === 'pattern' ? { pattern } : {}) };
}

export interface InstrumentDraft {
  readonly link: MeterLink | null;
  readonly name: string;
  readonly instrument: InstrumentDocument;
  readonly calibrationDue: string | null;
}

/** The instrument of a draft, or what cannot be read, by the server's paths. */
export function instrumentOfDraft(draft: Draft): Result<InstrumentDraft> {
  const read = new DraftReader(draft);
  const problems: Problem[] = [];
  const accuracy: AccuracyRange[] = [];
  for (const line of read.lines('accuracy')) {
    const range = readRange(line);
    if (range.ok) accuracy.push(range.value);
    else problems.push({ path: '/instrument/accuracy', message: range.error });
  }
  const name = read.text('name');
  if (!name) problems.push({ path: '/name', message: 'How is it called in the workshop?' });
  const due = read.text('calibrationDue') ?? null;
  if (due !== null && !/^\d{4}-\d\d-\d\d$/.test(due))
    problems.push({ path: '/calibrationDue', message: 'A date is written 2026-11-23.' });
  const instrument = pruned({
    kind: read.text('kind') ?? 'multimeter',
    accuracy,
    clamp_mVperA: read.number('clamp_mVperA', '/instrument/clamp_mVperA'),
    leadRepeatability_ohm: read.number('leadRepeatability_ohm', '/instrument/leadRepeatability_ohm'),
  });
  const link = linkOf(draft);
  const all = [...problems, ...read.problems, ...(link ? checkLink(link) : [])];
  return all.length ? fail(all) : ok({ name: name ?? '', instrument, calibrationDue: due, link });
}
