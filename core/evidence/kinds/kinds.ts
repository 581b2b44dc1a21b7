import type { Evidence, EvidenceKind, RecordedEvidence, Ref, Statement } from '../types';
import { CAPTURE } from './capture';
import { CUT_OUT } from './cut-out';
import type { EvidenceKindDefinition } from './definition';
import { DRIVE } from './drive';
import { MECHANICAL } from './mechanical';
import { NEW_PART } from './new-part';
import { NORMAL } from './normal';
import { RECORDING } from './recording';
import { REPAIR } from './repair';
import { SCAN_TOOL } from './scan-tool';
import type { Moment, Supposition } from './supposition';
import { SWAP } from './swap';
import { VISUAL } from './visual';
import { WIGGLE } from './wiggle';

/** All kinds of evidence that are no readings, in the order in which they are offered. */
export const EVIDENCE_KINDS: { readonly [K in EvidenceKind]: EvidenceKindDefinition<K> } = {
  swap: SWAP,
  'cut-out': CUT_OUT,
  wiggle: WIGGLE,
  visual: VISUAL,
  'new-part': NEW_PART,
  drive: DRIVE,
  recording: RECORDING,
  capture: CAPTURE,
  'scan-tool': SCAN_TOOL,
  normal: NORMAL,
  mechanical: MECHANICAL,
  repair: REPAIR,
};

/**
 * The definition of a piece of evidence. What is of one kind goes to the definition of that kind: the table
 * above is typed so.
 */
const definitionOf = (e: Evidence): EvidenceKindDefinition<EvidenceKind> =>
  EVIDENCE_KINDS[e.kind] as unknown as EvidenceKindDefinition<EvidenceKind>;

/** A line for the trail. */
export const evidenceWords = (e: Evidence): string => definitionOf(e).words(e);

/** What evidence says, each statement with what it rests on. */
export const evidenceRules = (all: readonly RecordedEvidence[]): Statement[] =>
  all.flatMap(({ id, body }): Statement[] => {
    const from: readonly Ref[] = [{ kind: 'evidence', id, label: evidenceWords(body) }];
    return definitionOf(body).statements(body, from);
  });

/**
 * Probability of the evidence if what is supposed were true, 0 to 1. `shows`: when the complaint shows
 * itself.
 */
export const evidenceLikelihood = (e: Evidence, supposed: Supposition, shows: readonly Moment[] = []): number =>
  definitionOf(e).likelihood(e, supposed, shows);
