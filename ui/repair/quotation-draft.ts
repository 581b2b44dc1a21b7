import { tr } from '../../core/locale/translate';
import { typesIn } from '../../core/plan/hardware';
import { capital } from '../../core/foundation/text';
import type { Problem } from '../../core/foundation/result';
import { fromMinor, toMinor } from '../../core/repair/money';
import { recordsOfKind } from '../../core/repair/proof';
import { totalOf } from '../../core/repair/quotation';
import type { JobView } from '../../application/views';
import { withMark } from '../../core/locale/numbers';
import { numberShown } from '../kit/draft';
import { readNumber } from '../kit/read-number';
import type { FoundFinding } from './found';

/** A line of a quotation as it is typed. */
export interface LineDraft {
  readonly text: string;
  readonly partNumber: string;
  readonly quantity: string;
  readonly price: string;
}
export const EMPTY: LineDraft = { text: '', partNumber: '', quantity: '1', price: '' };

/**
 * What a decision comes to, line by line. A price or a time that nobody has entered is empty: it is asked.
 */
export function linesFrom(view: JobView, finding: FoundFinding): LineDraft[] {
  const decided = recordsOfKind(view.repair.records, 'decision').findLast((d) => d.body.finding === finding.id)?.body;
  const start = view.repair.decisions.find((d) => d.finding === finding.id);
  const inputs = decided?.inputs ?? start?.inputs;
  const { currency } = view.repair;
  const { name, what, positions } = finding.body;
  const count =
    decided?.school === 'set' ? (start?.inputs.positions ?? positions.length) : Math.max(1, positions.length);
  const type = typesIn(view.unit.parts)[name];
  const text =
    what === 'path'
      ? tr`Wire to the ${name}, repaired`
      : tr`${capital(name)}${type === undefined ? '' : ` (${type})`}, new`;
  const money = (minor: number | null | undefined): string =>
    minor === null || minor === undefined ? '' : withMark(fromMinor(minor, currency));
  const { access_min = null, each_min = null } = inputs ?? {};
  const hours = access_min === null || each_min === null ? null : (access_min + count * each_min) / 60;
  return [
    { text, partNumber: view.unit.parts[name] ?? '', quantity: String(count), price: money(inputs?.part) },
    {
      text: 'Labour, hours',
      partNumber: '',
      quantity: hours === null ? '' : numberShown(Number(hours.toFixed(2))),
      price: money(inputs?.labour),
    },
  ];
}

/** A typed line with its numbers; undefined: not a number. */
export interface ReadLine {
  /** Its place among the typed lines. */
  readonly place: number;
  readonly text: string;
  readonly partNumber: string;
  readonly quantity: number | undefined;
  /** In whole units of the currency, as typed. */
  readonly price: number | undefined;
}

/** The lines in which something is typed. */
export const readLines = (lines: readonly LineDraft[]): ReadLine[] =>
  lines
    .map((l, place) => ({ l, place }))
    .filter(({ l }) => l.text.trim() || l.price.trim())
    .map(({ l, place }) => ({
      place,
      text: l.text.trim(),
      partNumber: l.partNumber.trim(),
      quantity: readNumber(l.quantity),
      price: readNumber(l.price),
    }));

/**
 * What the lines come to, in minor units of the currency. Lines that are not numbers yet count as nothing.
 */
export const totalOfRead = (lines: readonly ReadLine[], currency: string): number =>
  totalOf(
    lines.flatMap(({ text, quantity, price }) =>
      quantity !== undefined && price !== undefined ? [{ text, quantity, price: toMinor(price, currency) }] : [],
    ),
  );

/** What is missing or wrong, at its field. */
export function problemsOf(lines: readonly ReadLine[]): Problem[] {
  if (lines.length === 0) return [{ path: '/record/lines/0/text', message: 'A quotation has at least one line.' }];
  return lines.flatMap(({ place, text, quantity, price }): Problem[] => [
    ...(text ? [] : [{ path: `/record/lines/${place}/text`, message: 'For what?' }]),
    ...(quantity !== undefined && quantity > 0
      ? []
      : [{ path: `/record/lines/${place}/quantity`, message: 'How many?' }]),
    ...(price !== undefined && price >= 0
      ? []
      : [{ path: `/record/lines/${place}/price`, message: 'At which price?' }]),
  ]);
}
