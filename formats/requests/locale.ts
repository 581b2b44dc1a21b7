import type { FromSchema } from 'json-schema-to-ts';
import { LOCALE_CHOICES } from '../../core/locale/locale';
import { by } from './common';

/** How a person is addressed. */
export const LOCALE = {
  type: 'object',
  additionalProperties: false,
  required: ['language', 'decimal', 'units', 'dates'],
  properties: {
    language: { type: 'string', pattern: '^[a-z]{2,3}(-[A-Za-z0-9]{1,8})*$', maxLength: 35 },
    decimal: { enum: LOCALE_CHOICES.decimal },
    units: { enum: LOCALE_CHOICES.units },
    dates: { enum: LOCALE_CHOICES.dates },
  },
} as const;

/** `null`: as the workshop has chosen. */
export const CHOOSE_LOCALE = {
  type: 'object',
  additionalProperties: false,
  required: ['by', 'locale'],
  properties: { by, locale: { anyOf: [LOCALE, { type: 'null' }] } },
} as const;
export type ChooseLocale = FromSchema<typeof CHOOSE_LOCALE>;
