import { tr } from '../locale/translate';
import type { ChannelRole } from './types';
import type { Connector } from '../engine/connector';

/** One lead of a recorder and where it goes. */
export interface Lead {
  /** What is written on it, or its colour: "1", "green". */
  readonly lead: string;
  /** What it carries: "rail sensor signal". */
  readonly signal: string;
  readonly role: ChannelRole;
  readonly connector: string;
  readonly pin: string;
  /** Of the wire. */
  readonly colour: string;
}

/** Which lead of a recorder goes to which pin, written down before it is recorded. */
export interface LeadMap {
  /** Where the recorder's common ground is. */
  readonly ground: string;
  readonly leads: readonly Lead[];
}

/** What the words of a signal or of a column say of its role. */
const HINTS: readonly (readonly [RegExp, ChannelRole])[] = [
  [/scan|pid\b|ecu|ecm/i, 'scan-tool'],
  [/air ?flow|\bair\b|maf|luftmasse/i, 'airflow'],
  [/rail|icp|injection control/i, 'rail-pressure'],
  [/boost|map\b|intake pressure|ladedruck/i, 'boost'],
  [/temp|cool|ect\b|iat\b/i, 'temperature'],
  [/batt|supply|b\+/i, 'battery'],
  [/crank/i, 'crank'],
  [/cam\b|camshaft/i, 'cam'],
  [/starter/i, 'starter-current'],
  [/inject/i, 'injector-current'],
  [/knock/i, 'knock'],
];

/** The role that a name points to; "sensor" where it says nothing. */
export const roleNamed = (name: string): ChannelRole => HINTS.find(([r]) => r.test(name))?.[1] ?? 'sensor';

/** Pins of connectors that carry something, as leads without a lead: what a recorder can be put to. */
export const pinsToRecord = (connectors: readonly Connector[]): readonly Omit<Lead, 'lead'>[] =>
  connectors.flatMap((c) =>
    c.pins
      .filter((p) => p.signal !== '')
      .map((p) => ({ signal: p.signal, role: roleNamed(p.signal), connector: c.name, pin: p.pin, colour: p.colour })),
  );

/** Where a lead goes, as it is read on the phone: "ECM A, pin 26, brown-white". */
export const whereWords = ({ connector, pin, colour }: Lead): string =>
  [connector, pin && tr`pin ${pin}`, colour].filter(Boolean).join(', ');

const bare = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
/** Words before the number of a channel, in the tables that recorders write. */
const NUMBERED = /^(?:ch|chan|channel|input|in|kanal|a|ain|ai|lead|probe)? ?0*(\d+)$/;

/**
 * Which lead each column of a file is: by what the lead or its signal is called, then by its number, and
 * where no column says anything and there are as many columns as leads, in their order. `null`: nothing says
 * it.
 */
export function leadsOfColumns(columns: readonly string[], leads: readonly Lead[]): readonly (Lead | null)[] {
  const taken = new Set<Lead>();
  const take = (found: Lead | undefined): Lead | null => {
    if (!found || taken.has(found)) return null;
    taken.add(found);
    return found;
  };
  const named = columns.map((column) => {
    const c = bare(column);
    const words = ` ${c} `;
    return take(
      leads.find((l) => bare(l.lead) === c || bare(l.signal) === c) ??
        leads.find((l) => bare(l.lead).length > 1 && words.includes(` ${bare(l.lead)} `)) ??
        leads.find((l) => bare(l.lead) === NUMBERED.exec(c)?.[1]),
    );
  });
  const says = named.some((l) => l !== null);
  return says || columns.length !== leads.length ? named : columns.map((_, i) => leads[i] ?? null);
}
