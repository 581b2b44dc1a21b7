import { execFileSync } from 'node:child_process';

/** Evaluates an expression with Debian's Python, numpy as `np`, `norm`, `erfc` and `math`; numbers or lists of them, as JSON. For tests. */
export function python<T = number>(expression: string): T {
  const code = [
    'import json, math',
    'import numpy as np',
    'from scipy.stats import norm',
    'from scipy.special import erfc',
    `print(json.dumps(${expression}, default=float))`,
  ].join('\n');
  return JSON.parse(execFileSync('/usr/bin/python3', ['-c', code], { encoding: 'utf8' })) as T;
}
