import type { Engine } from '../../core/engine/layout';
import { fail, ok, type Problem, type Result } from '../../core/foundation/result';
import { type Draft, DraftReader } from '../kit/draft';

export const ENGINE_FIELDS = [
  'layout',
  'cylinders',
  'systemVoltage_V',
  'scheme',
  'from',
  'firstBank',
  'firingOrder',
] as const;

/** An engine as its fields show it; a new one is four in line, 12 V. */
export function engineDraft(engine: Engine | null): Draft {
  const { numbering, firingOrder } = engine ?? {};
  return {
    layout: engine?.layout ?? 'inline',
    cylinders: String(engine?.cylinders ?? 4),
    systemVoltage_V: String(engine?.systemVoltage_V ?? 12),
    scheme: numbering?.scheme ?? 'sequential',
    from: numbering?.from ?? 'front',
    firstBank: numbering?.firstBank ?? 'left',
    firingOrder: firingOrder?.join('-') ?? '',
  };
}

/** The engine of its fields, with what has no field of its own kept from `before`; or what cannot be read. */
export function engineOf(draft: Draft, base: string, before: Engine | null = null): Result<Engine> {
  const read = new DraftReader(draft);
  const cylinders = read.number('cylinders', `${base}/cylinders`);
  const systemVoltage_V = read.number('systemVoltage_V', `${base}/systemVoltage_V`);
  const order = (draft.firingOrder ?? '').split(/[^\d]+/).filter(Boolean);
  const problems: Problem[] = [...read.problems];
  if (cylinders === undefined && !problems.length)
    problems.push({ path: `${base}/cylinders`, message: 'How many cylinders has it?' });
  if (systemVoltage_V !== undefined && systemVoltage_V <= 0)
    problems.push({ path: `${base}/systemVoltage_V`, message: 'A voltage above 0.' });
  if (problems.length || cylinders === undefined) return fail(problems);
  return ok({
    layout: draft.layout === 'vee' ? 'vee' : 'inline',
    cylinders,
    ...(systemVoltage_V === undefined ? {} : { systemVoltage_V }),
    numbering: {
      scheme: draft.scheme === 'odd-even' ? 'odd-even' : 'sequential',
      from: draft.from === 'flywheel' ? 'flywheel' : 'front',
      firstBank: draft.firstBank === 'right' ? 'right' : 'left',
    },
    ...(order.length ? { firingOrder: order.map(Number) } : {}),
    ...(before?.groups ? { groups: before.groups } : {}),
  });
}
