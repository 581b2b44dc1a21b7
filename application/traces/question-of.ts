import type { Engine } from '../../core/engine/layout';
import { type AngleAsk, type TraceAsk, type TraceQuestion } from '../../formats/trace-question';
import type { TraceView } from '../views';
import { ANGLE_ASKS, lacksForAngle } from './capture';

/**
 * A kept recording as a question document beside its table, so that it travels: what its channels were
 * connected to, the engine, and what can be asked. As the `reference` of another question it is the known
 * good there. The table holds the columns of one clock: `clock` says which.
 */
export function questionOf({ head }: TraceView, engine: Engine, data: string, clock = 0): TraceQuestion {
  const own = head.channels.filter((c) => c.clock === clock);
  const channels = own.map(({ column, name, unit, role, factor, of, cylinder, judgedBy }) => {
    const { lower, upper, transfer } = judgedBy ?? {};
    const hasLimits = lower !== undefined || upper !== undefined;
    return {
      column,
      name,
      unit,
      role,
      ...(factor === 1 ? {} : { perVolt: factor }),
      ...(of !== undefined && own.some((c) => c.column === of) ? { of } : {}),
      ...(cylinder === undefined ? {} : { cylinder }),
      ...(hasLimits
        ? { limits: { ...(lower === undefined ? {} : { lower }), ...(upper === undefined ? {} : { upper }) } }
        : {}),
      ...(transfer ? { transfer } : {}),
    };
  });
  const base = {
    format: 'mudflat/trace-question',
    version: 1,
    data,
    time: { column: 't', unit: 's' },
    channels,
    engine,
    ...(head.capture ? { condition: head.capture.condition } : {}),
    ...(head.capture?.temperature ? { temperature: head.capture.temperature } : {}),
  } as const;
  const fits = (ask: AngleAsk): boolean => lacksForAngle({ ...base, ask: [ask] }).length === 0;
  const ask: TraceAsk[] = head.capture ? ANGLE_ASKS.filter(fits) : ['search'];
  return { ...base, ask: ask.length ? ask : ['search'] };
}
