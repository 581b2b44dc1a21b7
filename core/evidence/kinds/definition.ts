import { tr } from '../../locale/translate';
import { positionWords } from '../../judge/words';
import type { Position } from '../../judge/types';
import type { DriveCondition, Evidence, EvidenceKind, Ref, Stand, Statement, Target } from '../types';
import type { Moment, Supposition } from './supposition';

/** One field of a kind of evidence: how it is asked for, and so what its schema is. */
export interface EvidenceField {
  readonly field: string;
  readonly label: string;
  /** `cylinder`: a number only; `position`: a cylinder or a name; `yes-no`: true for the first option. */
  readonly kind: 'text' | 'long' | 'position' | 'cylinder' | 'part' | 'choice' | 'yes-no' | 'conditions';
  /** Value and words of each. Of `yes-no`, the words of yes and of no. */
  readonly options?: readonly (readonly [value: string, words: string])[];
  readonly optional?: boolean;
  readonly hint?: string;
}

export type EvidenceOf<K extends EvidenceKind> = Extract<Evidence, { kind: K }>;

/**
 * Everything that a kind of evidence is: how it is asked for and checked, what it says in words, what it
 * proves, and how likely it is if something is supposed to be wrong. Adding a kind is a variant in `types.ts`
 * and one of these.
 */
export interface EvidenceKindDefinition<K extends EvidenceKind> {
  readonly kind: K;
  readonly name: string;
  /** One sentence: what it is for. */
  readonly purpose: string;
  /** Stands before the form. */
  readonly caution?: string;
  readonly fields: readonly EvidenceField[];
  /** Invented, for tests. */
  readonly example: EvidenceOf<K>;
  /** A line for the trail. */
  readonly words: (e: EvidenceOf<K>) => string;
  /** What it proves. */
  readonly statements: (e: EvidenceOf<K>, from: readonly Ref[]) => Statement[];
  /**
   * Probability of this evidence if what is supposed were true, 0 to 1. `shows`: when the complaint shows
   * itself. Common practice, no source: the numbers say which mistakes happen.
   */
  readonly likelihood: (e: EvidenceOf<K>, supposed: Supposition, shows: readonly Moment[]) => number;
}

export const part = (name: string, position: Position | null): Target => ({ kind: 'part', name, position });
export const path = (name: string, position: Position | null): Target => ({ kind: 'path', name, position });
export const mechanics = (name: string, position: Position | null): Target => ({ kind: 'mechanics', name, position });

/** " of cylinder 3", " at pin 26"; empty for no position. */
export const ofPosition = (p: Position | null | undefined): string =>
  p == null ? '' : typeof p === 'number' ? tr` of ${positionWords(p)}` : tr` at ${p}`;

export const say = (
  rule: Statement['rule'],
  stand: Stand,
  target: Target,
  text: string,
  from: readonly Ref[],
): Statement => ({ rule, stand, target, text, from });

export const conditionWords = (conditions: readonly DriveCondition[]): string =>
  conditions.length ? ` (${conditions.join(', ')})` : '';

export const HIGH_PRESSURE =
  'Follow the maker’s service information. Never loosen a fuel line on a running or just-stopped engine; injectors hold voltage for a while after key off.';
