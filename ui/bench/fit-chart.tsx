import { significant } from '../../core/locale/numbers';
import { tr } from '../../core/locale/translate';
import type { Judgement } from '../../core/judge/types';
import { positionWords } from '../../core/judge/words';
import { type ReaderUnit, readerUnit } from '../../core/quantity/reader-unit';

const BOX = { width: 260, height: 120, left: 52, bottom: 22, top: 8, right: 8 } as const;

/**
 * Readings over what acted on the sensor, with the line through them. The sentence above says the same in
 * words.
 */
export function FitChart({ judgement: { fit, readings, limits } }: { judgement: Judgement }) {
  const points = readings.flatMap((r) =>
    r.corrected !== null && r.at ? [{ position: r.position, x: r.at.value, y: Number(r.corrected) }] : [],
  );
  if (!fit || points.length === 0) return null;
  const [x0, x1] = [Math.min(...points.map((p) => p.x)), Math.max(...points.map((p) => p.x))];
  const line = (x: number): number => fit.intercept + fit.slope * x;
  const ys = [...points.map((p) => p.y), line(x0), line(x1)];
  const [y0, y1] = [Math.min(...ys), Math.max(...ys)];
  const px = (x: number): number => BOX.left + ((x - x0) / (x1 - x0 || 1)) * (BOX.width - BOX.left - BOX.right);
  const py = (y: number): number =>
    BOX.height - BOX.bottom - ((y - y0) / (y1 - y0 || 1)) * (BOX.height - BOX.bottom - BOX.top);
  const [across, up] = [readerUnit(fit.atUnit), readerUnit(limits.unit)];
  const short = (n: number, unit: ReaderUnit): string => significant(unit.of(n), 3);
  return (
    <svg
      viewBox={`0 0 ${BOX.width} ${BOX.height}`}
      className="mt-2 w-full text-soft"
      role="img"
      aria-label={tr`Readings in ${up.symbol} over ${across.symbol}, with the line through them`}
    >
      <path
        d={`M${BOX.left} ${BOX.top}V${BOX.height - BOX.bottom}H${BOX.width - BOX.right}`}
        fill="none"
        stroke="currentColor"
      />
      <line x1={px(x0)} y1={py(line(x0))} x2={px(x1)} y2={py(line(x1))} stroke="var(--estuary)" strokeWidth="2" />
      {points.map((p) => (
        <rect key={p.position} x={px(p.x) - 4} y={py(p.y) - 4} width="8" height="8" fill="var(--ink)">
          <title>{positionWords(p.position)}</title>
        </rect>
      ))}
      <g fontSize="11" fill="currentColor">
        <text x={BOX.left - 4} y={py(y1) + 8} textAnchor="end">
          {short(y1, up)}
        </text>
        <text x={BOX.left - 4} y={py(y0)} textAnchor="end">
          {short(y0, up)} {up.symbol}
        </text>
        <text x={BOX.left} y={BOX.height - 6}>
          {short(x0, across)}
        </text>
        <text x={BOX.width - BOX.right} y={BOX.height - 6} textAnchor="end">
          {short(x1, across)} {across.symbol}
        </text>
      </g>
    </svg>
  );
}
