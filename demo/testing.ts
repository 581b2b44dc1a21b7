import type { Content } from '../server/testing/database';
import { loadDemo } from './load';

/** For tests of what the demo shows, and of what needs a fleet with a history: `makeTestDatabase(DEMO)`. */
export const DEMO: Content = { name: 'demo', load: loadDemo };
