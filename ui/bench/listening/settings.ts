import { useCallback, useState } from 'react';

/** How a person hears the bench. Off at first: others work in the same room. */
export interface HearingSettings {
  readonly tones: boolean;
  readonly speech: boolean;
  /** 0 to 1. */
  readonly volume: number;
}
const OFF: HearingSettings = { tones: false, speech: false, volume: 0.7 };
const keyOf = (person: string): string => `hearing ${person}`;

function read(person: string): HearingSettings {
  try {
    const kept = JSON.parse(localStorage.getItem(keyOf(person)) ?? '{}') as Partial<HearingSettings>;
    const volume = typeof kept.volume === 'number' && kept.volume >= 0 && kept.volume <= 1 ? kept.volume : OFF.volume;
    return { tones: kept.tones === true, speech: kept.speech === true, volume };
  } catch {
    return OFF;
  }
}

/** What this person has chosen on this device. */
export function useHearing(person: string): [HearingSettings, (part: Partial<HearingSettings>) => void] {
  const [settings, setSettings] = useState(() => read(person));
  const change = useCallback(
    (part: Partial<HearingSettings>) =>
      setSettings((before) => {
        const next = { ...before, ...part };
        try {
          localStorage.setItem(keyOf(person), JSON.stringify(next));
        } catch {
          // It holds until the page is closed.
        }
        return next;
      }),
    [person],
  );
  return [settings, change];
}
