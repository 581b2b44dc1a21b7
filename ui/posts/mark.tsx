import type { Severity, Verdict } from '../../core/foundation/vocabulary';
import { MARKS, TONE } from '../../application/posts/shapes';

/** A verdict's mark. Decorative: the word always stands beside it. */
export function Mark({ verdict, severity, size = 44 }: { verdict: Verdict; severity: Severity; size?: number }) {
  const colour = `var(--${TONE[severity]})`;
  return (
    <svg
      width={size}
      height={(size * 28) / 44}
      viewBox="-22 -14 44 28"
      overflow="visible"
      aria-hidden="true"
      className="block shrink-0"
    >
      {MARKS[verdict].map((s, i) => (
        <path
          key={i}
          d={s.d}
          fill={s.fill ? colour : 'none'}
          stroke={s.fill ? 'none' : colour}
          strokeWidth={s.width}
          strokeDasharray={s.dash}
          strokeLinejoin="round"
        />
      ))}
    </svg>
  );
}
