/** Of one file, as it was recorded. */
export const MOST_TRACE_BYTES = 1e9;
/** Of all recordings of the jobs of a depot together, as they were recorded. */
export const MOST_DEPOT_BYTES = 20e9;
export const MOST_TRACES = 20;
/** Of one block as it is sent: 65,536 samples, deflated. */
export const MOST_BLOCK_BYTES = 700_000;
export const MOST_MARKS = 500;
/** What the recordings of one job may hold, as they are kept: all of it travels in the job's bundle. */
export const MOST_BUNDLED_BYTES = 200e6;
export const MOST_BUNDLED_BLOCKS = 4000;
