import { tr } from '../../core/locale/translate';
import { findTest } from '../../core/catalogue/catalogue';
import { inOrder } from '../../core/catalogue/positions';
import type { Judgement } from '../../core/judge/types';
import { verdictWord } from '../../core/judge/words';
import { MARKS, TONE } from '../../application/posts/shapes';
import { placeMark } from '../../application/posts/place';
import { scaleFor } from '../../application/posts/scale';

const STEP = 20;
const HEIGHT = 44;

/**
 * The posts of a run drawn small, in numbering order: level, or one out of line. `before`: an earlier run of
 * the same test, as rings on the same posts.
 */
export function MiniPosts({ judgement, before }: { judgement: Judgement; before?: Judgement }) {
  const { limits } = judgement;
  const scale = scaleFor(
    limits,
    [...judgement.readings, ...(before?.readings ?? [])].flatMap((r) => (r.corrected === null ? [] : [r.corrected])),
  );
  const earlier = new Map(before?.readings.map((r) => [r.position, r]));
  const readings = inOrder(findTest(judgement.test), judgement.readings);
  const y = (h: number): number => 4 + (1 - h) * (HEIGHT - 8);
  const [top, foot] = [
    y(limits.upper === undefined ? 1 : scale.height(limits.upper)),
    y(limits.lower === undefined ? 0 : scale.height(limits.lower)),
  ];
  const said = readings
    .map((r) => {
      const was = earlier.get(r.position);
      return tr`${r.position} ${was ? tr`${verdictWord(was.verdict, limits)} before, now ` : ''}${verdictWord(r.verdict, limits)}`;
    })
    .join(', ');
  const width = readings.length * STEP + 4;
  return (
    <svg
      width={width}
      height={HEIGHT}
      viewBox={`0 0 ${width} ${HEIGHT}`}
      role="img"
      aria-label={said}
      className="max-w-full"
    >
      {!limits.byPosition && !limits.transfer && limits.quantity !== 'observation' && (
        <rect x={0} y={top} width={width} height={Math.max(2, foot - top)} fill="var(--channel)" />
      )}
      {readings.map((r, i) => {
        const x = i * STEP + STEP / 2 + 2;
        const colour = `var(--${TONE[r.severity]})`;
        const was = earlier.get(r.position);
        return (
          <g key={r.position}>
            {was && was.verdict !== 'not-measured' && (
              <circle
                cx={x}
                cy={y(placeMark(was, scale).height)}
                r={5}
                fill="none"
                stroke={`var(--${TONE[was.severity]})`}
                strokeWidth={1.6}
                strokeDasharray="2 1.5"
              />
            )}
            <line
              x1={x}
              x2={x}
              y1={r.verdict === 'open' ? 14 : 4}
              y2={HEIGHT - 3}
              stroke="var(--post)"
              strokeWidth={2.5}
              opacity={r.verdict === 'not-measured' ? 0.4 : 1}
            />
            <g transform={`translate(${x} ${y(placeMark(r, scale).height)}) scale(0.38)`}>
              {MARKS[r.verdict].map((s, k) => (
                <path
                  key={k}
                  d={s.d}
                  fill={s.fill ? colour : 'none'}
                  stroke={s.fill ? 'none' : colour}
                  strokeWidth={(s.width ?? 0) * 1.6}
                  strokeDasharray={s.dash}
                />
              ))}
            </g>
          </g>
        );
      })}
    </svg>
  );
}
