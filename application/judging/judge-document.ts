import { judgeShipped } from '../../core/judge/shipped';
import type { Judgement } from '../../core/judge/types';
import { type Result } from '../../core/foundation/result';
import { readJson } from '../../formats/validate';
import { readTestSet } from '../../formats/test-set';

/** From text to judgement: what the command line and the HTTP API both call. */
export function judgeText(text: string): Result<Judgement> {
  const json = readJson(text);
  return json.ok ? judgeDocument(json.value) : json;
}

export function judgeDocument(document: unknown): Result<Judgement> {
  const set = readTestSet(document);
  return set.ok ? judgeShipped(set.value) : set;
}
