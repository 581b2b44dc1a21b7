import { SEVERITY, VERDICTS, type Verdict } from '../../core/foundation/vocabulary';
import type { Fit, JudgedReading, Judgement, MeasurementDoubt, Pattern, Reason } from '../../core/judge/types';
import { isReason } from '../../core/judge/words';
import { requireUnit } from '../../core/quantity/units';

/**
 * A judgement as it was stored, by this version of the core or by any other. What was judged is what is
 * shown: nothing is judged again here. Only what an older version did not write, or a newer one calls by a
 * name that is not known here, is filled in, so that an old row always opens.
 */
export function readStoredJudgement(stored: unknown): Judgement {
  const s = asObject(stored);
  const readings = list(s.readings).map(readStoredReading);
  return {
    format: 'mudflat/judgement',
    version: 1,
    core: text(s.core, ''),
    test: text(s.test, ''),
    limits: readLimits(s.limits),
    readings,
    pattern: PATTERNS.has(s.pattern as Pattern) ? (s.pattern as Pattern) : 'incomplete',
    suspects: list(s.suspects).flatMap((p) => (typeof p === 'number' || typeof p === 'string' ? [p] : [])),
    group: typeof s.group === 'string' ? s.group : null,
    summary: text(s.summary, ''),
    advice: texts(s.advice),
    ...(Array.isArray(s.doubts) ? { doubts: s.doubts.flatMap(readDoubt) } : {}),
    ...(isFit(s.fit) ? { fit: s.fit } : {}),
    proven: texts(s.proven),
  };
}

/** A doubt of a kind that is not known here still holds back: it is taken as one of the meter. */
function readDoubt(stored: unknown): MeasurementDoubt[] {
  const d = asObject(stored);
  const kind = d.kind === 'leads' || d.kind === 'limit' ? d.kind : 'meter';
  const positions = list(d.positions).flatMap((p) => (typeof p === 'number' || typeof p === 'string' ? [p] : []));
  return typeof d.say === 'string' ? [{ kind, positions, say: d.say }] : [];
}

function isFit(stored: unknown): stored is Fit {
  const { slope, intercept, atUnit, worst } = asObject(stored);
  const { position, residual } = asObject(worst);
  return (
    typeof slope === 'number' &&
    typeof intercept === 'number' &&
    typeof atUnit === 'string' &&
    (typeof position === 'number' || typeof position === 'string') &&
    typeof residual === 'number'
  );
}

/** One reading as it was judged when it was stored. */
export function readStoredReading(stored: unknown): JudgedReading {
  const s = asObject(stored);
  const known = (VERDICTS as readonly unknown[]).includes(s.verdict);
  const verdict: Verdict = known ? (s.verdict as Verdict) : 'undecided';
  const reasons = list(s.reasons).map((r): Reason => (isReason(r) ? r : unknownReason(asObject(r).rule)));
  return {
    // Numbers were finite when they were stored: JSON holds no others.
    ...(s as unknown as JudgedReading),
    verdict,
    severity: SEVERITY[verdict],
    reasons: known ? reasons : [unknownReason(s.verdict), ...reasons],
    value: nullable(s.value) as JudgedReading['value'],
    unit: text(s.unit, ''),
    corrected: nullable(s.corrected) as JudgedReading['corrected'],
    standardUncertainty: nullable(s.standardUncertainty) as JudgedReading['standardUncertainty'],
    probabilityWithin: nullable(s.probabilityWithin),
    resolution: nullable(s.resolution) as JudgedReading['resolution'],
    wander: s.wander ? (s.wander as JudgedReading['wander']) : null,
    limits: s.limits ? (s.limits as JudgedReading['limits']) : null,
  };
}

const PATTERNS: ReadonlySet<Pattern> = new Set(['good', 'one', 'some', 'group', 'all', 'incomplete', 'undecided']);

const unknownReason = (name: unknown): Reason => ({ rule: 'other-version', name: text(name, 'unknown') });

/**
 * Limits are shown in words: a quantity or unit that is not known here any more is shown as plain numbers.
 */
function readLimits(value: unknown): Judgement['limits'] {
  const limits = asObject(value) as unknown as Judgement['limits'];
  return requireUnit(text(limits.unit, ''), limits.quantity).ok
    ? limits
    : { ...limits, quantity: 'ratio', unit: text(limits.unit, '') };
}

const asObject = (v: unknown): Readonly<Record<string, unknown>> =>
  v !== null && typeof v === 'object' ? (v as Readonly<Record<string, unknown>>) : {};
const list = (v: unknown): readonly unknown[] => (Array.isArray(v) ? v : []);
const text = (v: unknown, otherwise: string): string => (typeof v === 'string' ? v : otherwise);
const texts = (v: unknown): string[] => list(v).filter((t) => typeof t === 'string');
const nullable = (v: unknown): number | null => (typeof v === 'number' ? v : null);
