/**
 * Two frames, in milliseconds. What an entry brings about beyond its verdict begins so much later: the
 * verdict is painted first, and nobody sees the difference in what comes after it.
 */
export const VERDICT_FIRST_ms = 34;
