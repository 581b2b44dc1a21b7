import type { ValidateFunction } from 'ajv';

export const check: ValidateFunction;
