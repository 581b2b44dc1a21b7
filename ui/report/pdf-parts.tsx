import path from 'node:path';
import { Font, G, Line, Path, Rect, StyleSheet, Svg, Text, View } from '@react-pdf/renderer';
import type { JudgedReading, Limits } from '../../core/judge/types';
import { placeMark } from '../posts/place';
import type { Row } from '../posts/rows';
import type { Scale } from '../posts/scale';
import { MARKS, TONE } from '../posts/shapes';
import type { ReportFacts } from './facts';

const fonts = path.join(process.cwd(), 'node_modules/@fontsource');
const face = (family: string, weight: number, subset = 'latin') => ({
  src: path.join(fonts, `${family}/files/${family}-${subset}-${weight}-normal.woff`),
  fontWeight: weight,
});
Font.register({
  family: 'Next',
  fonts: [face('atkinson-hyperlegible-next', 400), face('atkinson-hyperlegible-next', 700)],
});
Font.register({ family: 'Mono', fonts: [face('atkinson-hyperlegible-mono', 400)] });
// The Atkinson faces have no Ω.
Font.register({ family: 'Greek', fonts: [face('noto-sans', 400, 'greek'), face('noto-sans', 700, 'greek')] });
Font.registerHyphenationCallback((word) => [word]);

/** The Shed theme, for paper. */
export const INK = '#22302f';
export const COLOURS = {
  eelgrass: '#2c6a39',
  ochre: '#7d4e00',
  rust: '#a1301b',
  estuary: '#0e5863',
  socket: '#8f8778',
} as const;
const [POST, CHANNEL, EDGE, LINE] = ['#6f6758', '#bfdedb', '#2b7f88', '#cdc4b4'];

export const styles = StyleSheet.create({
  page: { padding: 36, fontFamily: ['Next', 'Greek'], fontSize: 9, color: INK, lineHeight: 1.3 },
  title: { fontSize: 17, fontWeight: 700, lineHeight: 1.2, marginBottom: 8 },
  fact: { flexDirection: 'row', marginBottom: 1 },
  name: { width: 62, color: '#565e5b' },
  row: { flexDirection: 'row', borderBottomWidth: 0.5, borderBottomColor: LINE, paddingVertical: 2 },
  bold: { fontWeight: 700 },
  box: { borderLeftWidth: 3, borderLeftColor: '#0e5863', paddingLeft: 8, marginTop: 8 },
  caution: { borderWidth: 1, borderColor: '#7d4e00', padding: 6, marginTop: 8 },
  foot: {
    position: 'absolute',
    bottom: 18,
    left: 36,
    right: 36,
    fontSize: 8,
    color: '#565e5b',
    flexDirection: 'row',
    justifyContent: 'space-between',
  },
});

const COLUMNS = [
  ['Where', 44],
  ['Read', 52],
  ['Corrected', 78],
  ['Verdict', 62],
  ['Why', 0],
  ['When, who', 88],
] as const;

/** Every reading with its verdict and why. */
export function Table({ report }: { report: ReportFacts }) {
  const cell = (i: number) => (COLUMNS[i]?.[1] ? { width: COLUMNS[i][1] } : { flex: 1, paddingRight: 6 });
  return (
    <View style={{ marginTop: 8 }}>
      <View style={[styles.row, styles.bold]}>
        {COLUMNS.map(([name], i) => (
          <Text key={name} style={cell(i)}>
            {name}
          </Text>
        ))}
      </View>
      {report.rows.map((r) => (
        <View key={r.reading.position} style={styles.row} wrap={false}>
          <Text style={[cell(0), styles.bold]}>{r.reading.position}</Text>
          <Text style={[cell(1), { fontFamily: ['Mono', 'Greek'] }]}>{r.entry}</Text>
          <Text style={[cell(2), { fontFamily: ['Mono', 'Greek'] }]}>{r.corrected}</Text>
          <Text
            style={[
              cell(3),
              styles.bold,
              { color: r.reading.severity === 'none' ? INK : COLOURS[TONE[r.reading.severity]] },
            ]}
          >
            {r.verdict}
          </Text>
          <Text style={cell(4)}>{r.reasons}</Text>
          <Text style={cell(5)}>{r.taken}</Text>
        </View>
      ))}
    </View>
  );
}

const [WIDTH, HEIGHT, PAD, AXIS] = [523, 104, 10, 34];

interface PostsProps {
  row: Row;
  note: string;
  readings: ReadonlyMap<number | string, JudgedReading>;
  limits: Limits;
  scale: Scale;
}

/** A row of posts. */
export function Posts({ row, note, readings, limits, scale }: PostsProps) {
  const y = (h: number): number => PAD + (1 - h) * (HEIGHT - 2 * PAD);
  const [top, foot] = [
    y(limits.upper === undefined ? 1 : scale.height(limits.upper)),
    y(limits.lower === undefined ? 0 : scale.height(limits.lower)),
  ];
  const step = (WIDTH - AXIS) / row.positions.length;
  return (
    <View style={{ marginTop: 6 }} wrap={false}>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', color: '#565e5b' }}>
        <Text>{row.title}</Text>
        <Text>{note}</Text>
      </View>
      <View style={{ position: 'relative', height: HEIGHT }}>
        <Svg width={WIDTH} height={HEIGHT} style={{ position: 'absolute' }}>
          {scale.ticks.map((t) => (
            <Line
              key={t.label}
              x1={AXIS}
              x2={WIDTH}
              y1={y(t.height)}
              y2={y(t.height)}
              stroke={LINE}
              strokeWidth={0.4}
            />
          ))}
          <Rect x={AXIS} y={top} width={WIDTH - AXIS} height={foot - top} fill={CHANNEL} />
          <Line x1={AXIS} x2={WIDTH} y1={top} y2={top} stroke={EDGE} strokeWidth={0.8} />
          {row.positions.map((c, i) => (
            <PostMark key={c} reading={readings.get(c)} x={AXIS + i * step + 20} y={y} scale={scale} />
          ))}
        </Svg>
        {scale.ticks.map((t) => (
          <Text
            key={t.label}
            style={{
              position: 'absolute',
              left: 0,
              width: AXIS - 6,
              textAlign: 'right',
              top: y(t.height) - 4,
              fontSize: 6,
              fontFamily: ['Mono', 'Greek'],
            }}
          >
            {t.label}
          </Text>
        ))}
        {row.positions.map((c, i) => (
          <View key={c} style={{ position: 'absolute', left: AXIS + i * step + 36, top: 8, width: step - 36 }}>
            <Text style={[styles.bold, { fontSize: 10 }]}>{c}</Text>
            <Text
              style={{ fontFamily: ['Mono', 'Greek'], fontSize: (readings.get(c)?.entry.length ?? 0) > 5 ? 8 : 12 }}
            >
              {readings.get(c)?.entry || '–'}
            </Text>
          </View>
        ))}
      </View>
    </View>
  );
}

function PostMark({
  reading: r,
  x,
  y,
  scale,
}: {
  reading: JudgedReading | undefined;
  x: number;
  y: (h: number) => number;
  scale: Scale;
}) {
  if (!r) return <G />;
  const colour = COLOURS[TONE[r.severity]];
  return (
    <G>
      <Line
        x1={x}
        x2={x}
        y1={r.verdict === 'open' ? 22 : PAD - 4}
        y2={HEIGHT - PAD + 2}
        stroke={POST}
        strokeWidth={3}
        opacity={r.verdict === 'not-measured' ? 0.4 : 1}
      />
      <G transform={`translate(${x}, ${y(placeMark(r, scale).height)}) scale(0.6)`}>
        {MARKS[r.verdict].map((s) => (
          <Path
            key={s.d}
            d={s.d}
            fill={s.fill ? colour : 'none'}
            stroke={s.fill ? 'none' : colour}
            strokeWidth={s.width ?? 0}
            {...(s.dash ? { strokeDasharray: s.dash } : {})}
          />
        ))}
      </G>
    </G>
  );
}
