import { CAUTIONS, voltTest } from './shared';
import type { TestDefinition } from './types';

/** What everything else hangs on. Common practice, no source. */
export const ENERGY: readonly TestDefinition[] = [
  voltTest({
    id: 'battery-at-rest', name: 'Battery at rest', area: 'Energy first', part: 'battery', positions: ['battery'], minutes: 1, states: [], cautions: [CAUTIONS.batteryGas],
    purpose: 'Everything after it hangs on this: charge first, then measure.', probe: 'On the battery’s posts, not on the clamps.',
    steps: ['Loads off for some minutes.', 'Posts, not clamps.'], proves: 'How far the battery is charged.', cannotProve: 'That it holds under load: read it while cranking.',
    advice: [{ verdict: ['low', 'watch'], say: 'Charge the battery before anything else is measured.' }],
  }),
];
