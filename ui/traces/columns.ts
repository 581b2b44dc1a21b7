import { tr } from '../../core/locale/translate';
import { leadsOfColumns, type LeadMap, roleNamed, whereWords } from '../../core/signal/lead-map';
import { ROLES, type ChannelRole } from '../../core/signal/types';
import type { ColumnChoice } from '../../application/traces/stored';
import type { RecordingLimits } from '../../application/views';

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
  /** Id of the test whose limits judge it; empty: none. */
  readonly limits: string;
  /** Of an injector's own current, as typed; empty: the common supply. */
  readonly cylinder: string;
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

/** What is proposed for the columns of a file: what the plan of leads says, else what their names say. */
export function proposed(
  columns: readonly { readonly name: string; readonly unit: string | null }[],
  kind: 'csv' | 'wav' | 'can',
  plan: LeadMap | null,
): ColumnDraft[] {
  // Of a CAN log everything is the scan tool's, and no lead.
  const names = columns.map((c) => c.name);
  const leads = kind === 'can' || !plan ? names.map(() => null) : leadsOfColumns(names, plan.leads);
  return columns.map(({ name, unit }, i) => {
    const lead = leads[i];
    return {
      column: name,
      isTaken: columns.length <= 12,
      name: lead?.signal ?? name,
      unit: unit ?? 'V',
      role: kind === 'can' ? 'scan-tool' : (lead?.role ?? roleNamed(name)),
      factor: '1',
      of: '',
      lead: lead ? [lead.lead, whereWords(lead)].filter(Boolean).join(': ').slice(0, 120) : '',
      limits: '',
      cylinder: cylinderNamed(name),
    };
  });
}

/** "Injector 1" names its cylinder. */
const cylinderNamed = (name: string): string => /inj\w*[ _-]*(\d{1,2})\b/i.exec(name)?.[1] ?? '';

/** What was chosen for columns of the same names before, on this device. */
const keyOf = (columns: readonly { readonly name: string }[]): string =>
  `mudflat-recorder:${columns.map((c) => c.name).join('|')}`;

export function remembered(columns: readonly { readonly name: string }[]): ColumnDraft[] | null {
  try {
    const text = localStorage.getItem(keyOf(columns));
    const drafts =
      text === null
        ? null
        : (JSON.parse(text) as (Omit<ColumnDraft, 'limits' | 'cylinder'> &
            Partial<Pick<ColumnDraft, 'limits' | 'cylinder'>>)[]);
    const fits =
      Array.isArray(drafts) &&
      drafts.length === columns.length &&
      drafts.every((d, i) => d.column === columns[i]?.name && ROLES.includes(d.role) && typeof d.unit === 'string');
    // Kept by an earlier version: it asked for no limits.
    return fits ? drafts.map((d) => ({ ...d, limits: d.limits ?? '', cylinder: d.cylinder ?? '' })) : null;
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
  limits: readonly RecordingLimits[],
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
    const judge = limits.find((l) => l.id === d.limits);
    if (judge && d.role !== 'scan-tool' && judge.unit !== d.unit.trim())
      wrong.set(d.column, tr`These limits are in ${judge.unit}, the column in ${d.unit.trim()}.`);
    const cylinder = d.role === 'injector-current' && d.cylinder.trim() !== '' ? Number(d.cylinder) : null;
    if (cylinder !== null && !(Number.isInteger(cylinder) && cylinder >= 1 && cylinder <= 24))
      wrong.set(d.column, 'Type the number of its cylinder, or leave it empty for the common supply.');
    return {
      column: d.column,
      name: d.name.trim(),
      unit: d.unit.trim(),
      role: d.role,
      factor,
      ...(d.role === 'scan-tool' && d.of !== '' ? { of: d.of } : {}),
      ...(d.lead.trim() ? { lead: d.lead.trim() } : {}),
      ...(cylinder === null ? {} : { cylinder }),
      ...(judge && d.role !== 'scan-tool' ? { judgedBy: judge.judgedBy } : {}),
    };
  });
  if (taken.length === 0) wrong.set('', 'Choose a column at least.');
  if (taken.length > 32) wrong.set('', 'At most 32 columns.');
  return wrong.size ? { wrong } : { choices };
}
