const named = (all: readonly string[]): readonly (readonly [string, string])[] => all.map((v) => [v, v]);

/** Zones of the IANA database that this browser knows. */
export const TIME_ZONES = named([...new Set(['UTC', 'Etc/UTC', ...Intl.supportedValuesOf('timeZone')])]);

/** What a workshop may reckon in: ISO 4217, as the browser knows it. */
export const CURRENCIES = named(Intl.supportedValuesOf('currency'));
