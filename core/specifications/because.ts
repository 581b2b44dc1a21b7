import { asFor, PLAIN } from '../locale/locale';
import { tr, word } from '../locale/translate';
import { SCOPES, type Scope, type Situation, type Specification } from './types';

const SCOPE_WORDS: Readonly<Record<Scope, string>> = {
  part: 'It is for exactly this part',
  family: 'It is for this engine family',
  depot: 'It is this depot’s own rule',
  general: 'It is a general rule: nothing more exact is on the shelf',
};

/** What the choice of a specification rests on. */
interface Grounds {
  readonly scope: Scope;
  readonly conditionsMet: number;
  readonly school: string | null;
  readonly isPicked: boolean;
}

/**
 * Why a specification was chosen, in plain words, to be kept with the run; `conditionsMet`: how many of its
 * own.
 */
export function because(s: Specification, situation: Situation, conditionsMet: number): string {
  const grounds: Grounds = {
    scope: s.scope,
    conditionsMet,
    school: s.school,
    isPicked: s.school === situation.school,
  };
  // It is kept with the run: in nobody's language.
  return asFor({ locale: PLAIN, words: null }, () => groundsWords(grounds));
}

function groundsWords({ scope, conditionsMet: met, school, isPicked }: Grounds): string {
  const parts = [
    word(SCOPE_WORDS[scope]),
    met > 0 ? tr`${met} of its conditions ${met === 1 ? 'is' : 'are'} met` : '',
    school === null
      ? ''
      : isPicked
        ? tr`the depot has picked the house rule “${school}”`
        : tr`of the house rule “${school}”, and no other is there`,
  ];
  return `${parts.filter(Boolean).join('; ')}.`;
}

const KEPT_GROUNDS = new RegExp(
  `^(${SCOPES.map((s) => SCOPE_WORDS[s]).join('|')})` +
    '(?:; (\\d+) of its conditions (?:is|are) met)?' +
    '(?:; the depot has picked the house rule “(.*)”|; of the house rule “(.*)”, and no other is there)?\\.$',
  's',
);

/**
 * Why a run's limits were chosen, as it was kept with the run, for the reader. What is none of these texts
 * stays as it is.
 */
export function becauseForReader(kept: string): string {
  const [, words, met, picked, only] = KEPT_GROUNDS.exec(kept) ?? [];
  const scope = SCOPES.find((s) => SCOPE_WORDS[s] === words);
  if (scope !== undefined)
    return groundsWords({
      scope,
      conditionsMet: Number(met ?? 0),
      school: picked ?? only ?? null,
      isPicked: picked !== undefined,
    });
  const [, by] = /^Applied by (.*)\.$/s.exec(kept) ?? [];
  return by === undefined ? word(kept) : tr`Applied by ${by}.`;
}

/** Why a run is judged by these limits where a person has put them to it: to be kept with the run. */
export const appliedBy = (person: string): string => `Applied by ${person}.`;
