import { tr } from '../core/locale/translate';
import type { Limits } from '../core/limits/types';
import { checkLimits } from '../core/limits/check';
import { fail, ok, type Problem, type Result } from '../core/foundation/result';
import { canonical } from './canonical';
import type { Scope, When } from '../core/specifications/types';
import { schema } from './schemas';
import { readJsonFile, validate } from './validate';

/** Limits as they stand in a file: `mudflat/shelf`. */
export interface SpecificationEntry {
  readonly test: string;
  readonly scope: Scope;
  /** Code of the part or the family, name of the depot. */
  readonly of?: string | null | undefined;
  readonly when?: When | undefined;
  readonly school?: string | null | undefined;
  readonly limits: Limits;
  readonly source: string;
  readonly document?: string | null | undefined;
  readonly page?: string | null | undefined;
  readonly documentRevision?: string | null | undefined;
  readonly documentDate?: string | null | undefined;
  /** Default: draft. */
  readonly status?: 'draft' | 'approved' | 'rule-of-thumb' | undefined;
}

export interface SpecificationsDocument {
  readonly format: 'mudflat/shelf';
  readonly version: 1;
  readonly limits: readonly SpecificationEntry[];
}

export const writeSpecifications = (limits: readonly SpecificationEntry[]): SpecificationsDocument => ({
  format: 'mudflat/shelf',
  version: 1,
  limits,
});

/** What makes two entries the same thing: a second one with this key is a revision of the first. */
export const specificationKey = (e: SpecificationEntry): string =>
  canonical([e.test, e.scope, e.of ?? null, e.when ?? {}, e.school ?? null]);

/** All that is wrong with an entry beyond its schema. */
export function checkEntry(e: SpecificationEntry, base = ''): Problem[] {
  const problems = checkLimits(e.limits, `${base}/limits`);
  if ((e.scope === 'general') !== !e.of) {
    problems.push({
      path: `${base}/of`,
      message:
        e.scope === 'general'
          ? 'A general rule is for nothing in particular: leave this out.'
          : tr`Which ${e.scope}? Its ${e.scope === 'depot' ? 'name' : 'code'} is missing.`,
    });
  }
  const { fromTemperature_degC: from, toTemperature_degC: to } = e.when ?? {};
  if (from !== undefined && to !== undefined && from > to)
    problems.push({
      path: `${base}/when/fromTemperature_degC`,
      message: 'The lower temperature is above the upper one.',
    });
  return problems;
}

/** Limits from JSON text. Fails with every problem and its path; nothing is taken in part. */
export function readSpecifications(text: string): Result<readonly SpecificationEntry[]> {
  const json = readJsonFile(text);
  if (!json.ok) return json;
  const valid = validate<SpecificationsDocument>(schema('urn:mudflat:shelf:1'), json.value);
  if (!valid.ok) return valid;
  const problems = valid.value.limits.flatMap((e, i) => checkEntry(e, `/limits/${i}`));
  return problems.length ? fail(problems) : ok(valid.value.limits);
}
