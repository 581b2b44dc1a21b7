import type { ListenContext, ListenTarget } from '../../../application/listening/listen';
import type { RunView } from '../../../application/views';
import { stepAt, touchRules } from '../../../core/instrument/rules';
import { findUnit, type Quantity, toBase } from '../../../core/quantity/units';
import { unitValue } from '../../../core/quantity/values';
import { readLeadZero } from '../../../formats/instrument';
import type { Target } from '../target';
import type { Run } from '../use-run';

/** What a meter can be asked for. */
const METERED: readonly Quantity[] = ['resistance', 'voltage', 'current', 'frequency', 'temperature'];

/** What the meter has to measure for this test; `null`: it is read in another way. A clamp gives volts. */
export function meteredQuantity(view: RunView, clamp: number | null): Quantity | null {
  const { quantity } = view.specification.limits;
  if (quantity === 'current' && clamp !== null) return 'voltage';
  return METERED.includes(quantity) ? quantity : null;
}

/** What a value of the meter means on this bench now. */
export function contextOf(
  view: RunView,
  run: Run,
  target: Target,
  clamp: number | null,
  quantity: Quantity,
): ListenContext {
  const { limits } = view.specification;
  const zero = readLeadZero(run.circumstance.leadZero ?? '');
  const meter = view.instruments.find((i) => i.id === run.circumstance.instrumentId);
  const inBase = (limit: number | undefined): number | null => {
    const unit = findUnit(limits.unit);
    return limit === undefined || !unit || unit.unit.quantity !== quantity ? null : toBase(unitValue(limit), unit);
  };
  const listenTarget: ListenTarget = target;
  return {
    target: listenTarget,
    quantity,
    stepAt: (value) => stepAt(meter?.accuracy ?? [], quantity, value),
    rules: touchRules({
      quantity,
      accuracy: meter?.accuracy ?? [],
      leadZero_ohm: zero.ok ? (zero.value?.value ?? null) : null,
      lower: inBase(limits.lower),
      upper: inBase(limits.upper),
      isLeadZero: target?.kind === 'lead-zero',
      // A clamp is never off: away from the wire it shows its remainder.
      ...(limits.quantity === 'current' && clamp !== null ? { floating: (0.5 * clamp) / 1000 } : {}),
    }),
  };
}
