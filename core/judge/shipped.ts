import { findTest } from '../catalogue/catalogue';
import type { Result } from '../foundation/result';
import { judgeSet } from './set';
import type { Judgement, TestSet } from './types';

/**
 * Judges a set that names its test and does not bring it: by what ships under that id. Apart from `judgeSet`,
 * so that the bench does not load the whole catalogue to judge the one test that it has.
 */
export const judgeShipped = (set: TestSet): Result<Judgement> => {
  const definition = set.definition ?? findTest(set.test);
  return judgeSet(definition ? { ...set, definition } : set);
};
