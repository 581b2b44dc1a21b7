/** How often a fault that comes and goes has shown itself: so many times in so many hours of running. */
export interface Shown {
  readonly times: number;
  readonly hours: number;
}

/** With which chance a planned recording is to catch it. */
export const CHANCE = 0.9;

/**
 * The chance that a fault shows in `hours` of recording, 0 to 1, when it showed `times` times in some hours
 * before. Rare events that know nothing of each other are Poisson's; how often they come is itself known from
 * these few only, so the chance is the predictive one: gamma-distributed rate, negative binomial count
 * (Gelman and others, Bayesian Data Analysis, section 2.6; from memory). 0 for no hours, NaN for NaN.
 */
export const chanceToShow = ({ times, hours: seen }: Shown, hours: number): number =>
  hours <= 0 ? 0 : 1 - (seen / (seen + hours)) ** times;

/**
 * For how many hours to record so that it shows with a chance of `chance` (0 to below 1): the other way
 * round. Infinity where it never showed (`times` 0), NaN for NaN.
 */
export const hoursToRecord = ({ times, hours }: Shown, chance = CHANCE): number =>
  hours * ((1 - chance) ** (-1 / times) - 1);

/** A length of hours as a person plans it: minutes below two hours, then hours, then days. */
export function hoursWords(hours: number): string {
  if (hours < 2) return `${Math.max(5, Math.ceil((hours * 60) / 5) * 5)} min`;
  if (hours < 48) return `${Math.ceil(hours)} h`;
  return `${Math.ceil(hours / 24)} days`;
}

/** For how long to record, and why, as a sentence. */
export function recordingWords(shown: Shown): string {
  const needed = hoursToRecord(shown);
  return `It showed itself ${shown.times === 1 ? 'once' : `${shown.times} times`} in ${hoursWords(shown.hours)}: record for ${hoursWords(needed)}, it then shows with ${Math.round(CHANCE * 100)} %.`;
}
