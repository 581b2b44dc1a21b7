/**
 * What *decided* claims: at most this share of what is decided is wrong. Measured on simulated vehicles of
 * our own, which share the wiring with the circuits and neither values nor physics (docs/decisions/0013); not
 * on real ones.
 */
export const DECIDED_ERROR = 0.02;
