const DAYS = 7;
const SUNDAYS = 4;
const MONTHS = 12;
const DAY_ms = 24 * 3600 * 1000;
const NAME = /^mudflat-(\d{4}-\d{2}-\d{2})\.dump$/;

/**
 * Backups that are no longer needed on a day: kept are those of the last seven days, of the last four
 * Sundays, and the first Sunday of each of the last twelve months. What is not named as a backup is left
 * alone.
 */
export function superfluous(names: readonly string[], today: string): string[] {
  const now = Date.parse(`${today}T00:00:00Z`);
  if (Number.isNaN(now)) return [];
  const kept = new Set<string>();
  const days = names.flatMap((n) => NAME.exec(n)?.[1] ?? []);
  const sundays = days.filter((d) => new Date(d).getUTCDay() === 0).toSorted();
  for (const d of days) if (now - Date.parse(d) < DAYS * DAY_ms) kept.add(d);
  for (const d of sundays.slice(-SUNDAYS)) kept.add(d);
  const firstOfMonth = new Map<string, string>();
  for (const d of sundays) if (!firstOfMonth.has(d.slice(0, 7))) firstOfMonth.set(d.slice(0, 7), d);
  for (const d of [...firstOfMonth.values()].slice(-MONTHS)) kept.add(d);
  // The newest stays, however old it is.
  const newest = days.toSorted().at(-1);
  if (newest !== undefined) kept.add(newest);
  return names.filter((n) => {
    const day = NAME.exec(n)?.[1];
    return day !== undefined && !kept.has(day);
  });
}
