import { ROLES, type ChannelRole } from '../../core/signal/types';
import type { ColumnChoice } from '../../application/traces/stored';

/** A row of the form for one column. */
export interface ColumnDraft {
  readonly column: string;
  readonly isTaken: boolean;
  readonly name: string;
  readonly unit: string;
  readonly role: ChannelRole;
  readonly factor: string;
  readonly of: string;
  readonly lead: string;
}

export const ROLE_WORDS: Readonly<Record<ChannelRole, string>> = {
  crank: 'crank position',
  cam: 'cam position',
  'starter-current': 'starter current',
  battery: 'battery',
  'injector-current': 'injector current',
  knock: 'knock sensor',
  airflow: 'air flow',
  'rail-pressure': 'rail pressure',
  boost: 'boost',
  temperature: 'temperature',
  sensor: 'another sensor',
  'scan-tool': 'scan tool’s value',
  other: 'something else',
};

/** What the name of a column says of its role. */
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

const roleOf = (column: string): ChannelRole => HINTS.find(([r]) => r.test(column))?.[1] ?? 'sensor';

/** What is proposed for the columns of a file; of a CAN log everything is the scan tool's. */
export const proposed = (
  columns: readonly { readonly name: string; readonly unit: string | null }[],
  kind: 'csv' | 'wav' | 'can',
): ColumnDraft[] =>
  columns.map(({ name, unit }) => ({
    column: name,
    isTaken: columns.length <= 12,
    name,
    unit: unit ?? 'V',
    role: kind === 'can' ? 'scan-tool' : roleOf(name),
    factor: '1',
    of: '',
    lead: '',
  }));

/** What was chosen for columns of the same names before, on this device. */
const keyOf = (columns: readonly { readonly name: string }[]): string =>
  `mudflat-recorder:${columns.map((c) => c.name).join('|')}`;

export function remembered(columns: readonly { readonly name: string }[]): ColumnDraft[] | null {
  try {
    const text = localStorage.getItem(keyOf(columns));
    const drafts = text === null ? null : (JSON.parse(text) as ColumnDraft[]);
    const fits =
      Array.isArray(drafts) &&
      drafts.length === columns.length &&
      drafts.every((d, i) => d.column === columns[i]?.name && ROLES.includes(d.role) && typeof d.unit === 'string');
    return fits ? drafts : null;
  } catch {
    return null;
  }
}

export function remember(columns: readonly { readonly name: string }[], drafts: readonly ColumnDraft[]): void {
  try {
    localStorage.setItem(keyOf(columns), JSON.stringify(drafts));
  } catch {
    // A full or a closed store: it is asked again the next time.
  }
}

/** What is sent to be read, or what is wrong with it, by column. */
export function chosen(
  drafts: readonly ColumnDraft[],
): { readonly choices: readonly ColumnChoice[] } | { readonly wrong: ReadonlyMap<string, string> } {
  const wrong = new Map<string, string>();
  const taken = drafts.filter((d) => d.isTaken);
  const choices = taken.map((d): ColumnChoice => {
    const factor = Number(d.factor.trim().replace(',', '.'));
    if (!Number.isFinite(factor) || factor === 0 || d.factor.trim() === '')
      wrong.set(d.column, 'The factor must be a number other than 0.');
    if (d.name.trim() === '' || d.unit.trim() === '') wrong.set(d.column, 'Name and unit are missing.');
    if (d.of !== '' && !taken.some((t) => t.column === d.of))
      wrong.set(d.column, 'The pin that it reports is not taken in.');
    return {
      column: d.column,
      name: d.name.trim(),
      unit: d.unit.trim(),
      role: d.role,
      factor,
      ...(d.role === 'scan-tool' && d.of !== '' ? { of: d.of } : {}),
      ...(d.lead.trim() ? { lead: d.lead.trim() } : {}),
    };
  });
  if (taken.length === 0) wrong.set('', 'Choose a column at least.');
  if (taken.length > 32) wrong.set('', 'At most 32 columns.');
  return wrong.size ? { wrong } : { choices };
}
