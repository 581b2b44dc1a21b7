'use client';
import { tr } from '../../core/locale/translate';
import { type RefObject, useEffect, useRef, useState } from 'react';
import type { CaptureBehind, TraceView } from '../../application/views';
import type { Cycle, CycleLane } from '../../core/signal/angle/cycle';

/** Widths of the drawing, in its own units: on a phone words must stay readable. */
const [WIDEST, NARROWEST] = [960, 480];
const [LANE, TOP, LEFT] = [76, 34, 4];

/**
 * One cycle: cylinders as posts in the order of firing, each channel through the angle, a known good behind
 * it.
 */
export function CycleFigure({ trace, cycle, ghost }: { trace: TraceView; cycle: Cycle; ghost: CaptureBehind | null }) {
  const frame = useRef<SVGSVGElement>(null);
  const wide = useDrawnWidth(frame);
  const height = TOP + cycle.lanes.length * (LANE + 8) + 22;
  const x = (angle: number): number => LEFT + (angle / 720) * (wide - 2 * LEFT);
  const words = tr`One cycle of 720 degrees. Order of firing: ${cycle.places.map((p) => p.cylinder ?? 'not named').join(', ')}. Lanes: ${trace.head.channels.map((c) => c.name).join(', ')}.`;
  return (
    <svg
      ref={frame}
      viewBox={`0 0 ${wide} ${height}`}
      role="img"
      aria-label={words}
      className="w-full rounded-xl bg-card"
    >
      {cycle.places.map((p, i) => (
        <g key={i}>
          <line
            x1={x(p.angle_deg)}
            x2={x(p.angle_deg)}
            y1={TOP - 8}
            y2={height - 20}
            className="stroke-post"
            strokeWidth={5}
            opacity={0.22}
          />
          <text x={x(p.angle_deg) + 8} y={22} className="fill-ink text-[15px] font-bold">
            {p.cylinder === null ? '' : tr`cyl. ${p.cylinder}`}
          </text>
        </g>
      ))}
      {cycle.lanes.map((lane, i) => {
        const channel = trace.head.channels.find((c) => c.column === lane.column);
        const behind = ghost && laneLike(ghost, channel, lane.column);
        return (
          <Lane
            key={lane.column}
            lane={lane}
            behind={behind}
            top={TOP + i * (LANE + 8)}
            label={channel ? `${channel.name}, ${channel.unit}` : lane.column}
            x={x}
            wide={wide}
          />
        );
      })}
      {[0, 180, 360, 540, 720].map((a) => (
        <text
          key={a}
          x={x(a)}
          y={height - 6}
          textAnchor={a === 0 ? 'start' : a === 720 ? 'end' : 'middle'}
          className="fill-soft font-mono text-[12px]"
        >
          {a}°
        </text>
      ))}
    </svg>
  );
}

/** As wide as it is shown, within what can be read. */
function useDrawnWidth(frame: RefObject<SVGSVGElement | null>): number {
  const [wide, setWide] = useState(WIDEST);
  useEffect(() => {
    const shown = frame.current;
    if (!shown) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setWide(Math.round(Math.min(WIDEST, Math.max(NARROWEST, entry.contentRect.width))));
    });
    watch.observe(shown);
    return () => watch.disconnect();
  }, [frame]);
  return wide;
}

/** The lane of a ghost that carries the same thing. */
function laneLike(
  ghost: CaptureBehind,
  channel: TraceView['head']['channels'][number] | undefined,
  column: string,
): CycleLane | null {
  if (!channel) return ghost.capture.cycle?.lanes.find((l) => l.column === column) ?? null;
  const own = ghost.channels.filter((c) => c.role === channel.role && c.unit === channel.unit);
  const same = own.find((c) => c.column === channel.column) ?? own[0];
  return ghost.capture.cycle?.lanes.find((l) => l.column === same?.column) ?? null;
}

function Lane(props: {
  lane: CycleLane;
  behind: CycleLane | null;
  top: number;
  label: string;
  x: (angle: number) => number;
  wide: number;
}) {
  const { lane, behind, top, label, x, wide } = props;
  const all = [...lane.low, ...lane.high, ...(behind?.middle ?? [])];
  const [least, most] = [Math.min(...all), Math.max(...all)];
  const y = (v: number): number => top + 4 + (1 - (v - least) / Math.max(most - least, 1e-9)) * (LANE - 8);
  const at = (k: number, of: readonly number[]): number => x((k * 720) / of.length);
  const line = (of: readonly number[]): string =>
    of.map((v, k) => `${at(k, of).toFixed(1)},${y(v).toFixed(1)}`).join(' ');
  const band = [
    ...lane.high.map((v, k) => `${at(k, lane.high).toFixed(1)},${y(v).toFixed(1)}`),
    ...lane.low.map((v, k) => `${at(k, lane.low).toFixed(1)},${y(v).toFixed(1)}`).reverse(),
  ].join(' ');
  return (
    <g>
      <rect x={LEFT} y={top} width={wide - 2 * LEFT} height={LANE} className="fill-none stroke-line" />
      <polygon points={band} className="fill-channel" opacity={0.7} />
      {behind && (
        <polyline points={line(behind.middle)} className="fill-none stroke-post" strokeWidth={4} opacity={0.45} />
      )}
      <polyline points={line(lane.middle)} className="fill-none stroke-estuary" strokeWidth={1.8} />
      <text
        x={LEFT + 8}
        y={top + 16}
        className="fill-soft stroke-card text-[13px] [paint-order:stroke]"
        strokeWidth={5}
      >
        {label}
      </text>
    </g>
  );
}
