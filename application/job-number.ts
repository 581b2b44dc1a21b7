import { tr } from '../core/locale/translate';

/**
 * A job that was opened on a device without the server has a number of the device's own, from here on, until
 * the server gives it one.
 */
export const FIRST_NUMBER_OF_DEVICE = 1_000_000_000;

/** As people call it: `Job 12`; `New job` while the server has given it no number. */
export const jobName = (number: number): string => (number < FIRST_NUMBER_OF_DEVICE ? tr`Job ${number}` : 'New job');
