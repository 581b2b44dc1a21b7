import { stimulusAt, stimulusOf, type Transfer } from '../../core/limits/transfer';
import type { Channel } from '../../core/signal/types';

/**
 * The pin's channel in the unit of the scan tool's, by itself or through the sensor's transfer function;
 * `null`: there is no way.
 */
export function inUnitOf(pin: Channel, scan: Channel, transfer: Transfer | undefined): Channel | null {
  if (pin.unit === scan.unit) return pin;
  if (!transfer || stimulusOf(transfer).unit !== scan.unit) return null;
  const values = pin.values.map((v) => stimulusAt(transfer, v) ?? NaN);
  return { ...pin, unit: scan.unit, values, step: scan.step };
}
