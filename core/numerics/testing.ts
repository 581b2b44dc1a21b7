import { execFileSync } from 'node:child_process';

/**
 * A number that Debian's Python computes, with numpy as `np`, scipy's `norm` and `erfc`, and `math`. For
 * tests.
 */
export const python = (expression: string): number => evaluate(expression) as number;

/** The same for a list of numbers. */
export const pythonList = (expression: string): number[] => evaluate(expression) as number[];

function evaluate(expression: string): unknown {
  const code = [
    'import json, math',
    'import numpy as np',
    'from scipy.stats import norm',
    'from scipy.special import erfc',
    `print(json.dumps(${expression}, default=float))`,
  ].join('\n');
  return JSON.parse(execFileSync('/usr/bin/python3', ['-'], { input: code, encoding: 'utf8' })) as unknown;
}
