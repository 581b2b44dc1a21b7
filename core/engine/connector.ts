import { tr } from '../locale/translate';
import type { Problem } from '../foundation/result';

/** A connector of an engine family as the workshop's service information has it. */
export interface Connector {
  readonly name: string;
  /** Where it is: "on the valve cover, left". */
  readonly place: string;
  /** From which side it is drawn: the side of the wires, or the face that mates. */
  readonly seenFrom: 'wire side' | 'mating side';
  /** Pins in each row of its face, from the top; in all as many as there are pins. */
  readonly rows: readonly number[];
  /** In the order in which the face shows them: row by row, from the left. */
  readonly pins: readonly ConnectorPin[];
}

export interface ConnectorPin {
  /** As it is stamped: "4", "A2". */
  readonly pin: string;
  /** What is on it; empty: not used. */
  readonly signal: string;
  /** Of its wire. */
  readonly colour: string;
  /** Where the wire goes: a part, or a pin of another connector. */
  readonly to: string;
  /** Of which cylinder; `null`: of none, or of all. */
  readonly cylinder: number | null;
}

export const MOST_PINS = 200;

/** All that is wrong with a connector, by its paths below `base`. `cylinders`: of its engine. */
export function checkConnector(c: Connector, base: string, cylinders: number | null): Problem[] {
  const problems: Problem[] = [];
  const say = (path: string, message: string): void => void problems.push({ path: `${base}/${path}`, message });
  const drawn = c.rows.reduce((sum, n) => sum + n, 0);
  if (drawn !== c.pins.length)
    say(
      'rows',
      tr`The rows show ${drawn} pins, and ${c.pins.length} are listed. Leave unused ones in, without a signal.`,
    );
  c.pins.forEach((p, i) => {
    if (c.pins.findIndex((o) => o.pin.toLowerCase() === p.pin.toLowerCase()) !== i)
      say(`pins/${i}/pin`, tr`Pin ${p.pin} is there twice.`);
    if (p.cylinder !== null && cylinders !== null && p.cylinder > cylinders)
      say(`pins/${i}/cylinder`, tr`The engine has ${cylinders} cylinders.`);
  });
  return problems;
}

/**
 * Pins as a person lists them, a line each: `pin; signal; colour; to; cylinder`. What is behind may be left
 * out.
 */
export function readPins(text: string): {
  readonly pins: readonly ConnectorPin[];
  readonly problems: readonly Problem[];
} {
  const problems: Problem[] = [];
  const pins = text.split('\n').flatMap((line, i): ConnectorPin[] => {
    if (line.trim() === '') return [];
    const [pin = '', signal = '', colour = '', to = '', of = '', ...more] = line.split(/[;\t]/).map((x) => x.trim());
    const cylinder = of === '' ? null : Number(of.replace(/^cyl(?:inder)?\.?\s*/i, ''));
    const wrong =
      pin === ''
        ? 'the pin is missing'
        : more.length > 0
          ? 'there are more than five parts'
          : cylinder !== null && !(Number.isInteger(cylinder) && cylinder > 0)
            ? tr`"${of}" is no cylinder`
            : null;
    if (wrong !== null) {
      problems.push({
        path: '/pins',
        message: tr`Line ${i + 1}: ${wrong}. Write: pin; signal; colour; to; cylinder.`,
      });
      return [];
    }
    return [{ pin, signal, colour, to, cylinder }];
  });
  return { pins, problems };
}

/** The same, as it is shown for changing. */
export const pinLines = (pins: readonly ConnectorPin[]): string =>
  pins.map((p) => [p.pin, p.signal, p.colour, p.to, p.cylinder ?? ''].join('; ').replace(/(?:; )+$/, '')).join('\n');

/** Rows as they are typed: "4, 4". Rows that are not numbers become 0, which no list of pins fits. */
export const readRows = (text: string): number[] =>
  text
    .split(/[\s,;+]+/)
    .filter(Boolean)
    .map((n) => (/^\d{1,3}$/.test(n) ? Number(n) : 0));

/**
 * The pins that somebody looks for who measures at `place`: those of a cylinder, or the one that a place
 * names ("pin 26"). `null`: nobody measures.
 */
export function pinsAt(c: Connector, place: number | string | null): readonly ConnectorPin[] {
  if (typeof place === 'number') return c.pins.filter((p) => p.signal !== '' && p.cylinder === place);
  const named = /^pin (\S+)$/i.exec(place ?? '')?.[1]?.toLowerCase();
  return named === undefined ? [] : c.pins.filter((p) => p.pin.toLowerCase() === named);
}
