import { SIGNALS, type SimulatedRecording } from '../../core/simulate/logger';

/** The forms in which recorders write. */
export const DIALECTS = ['plain', 'comma', 'rate', 'clock', 'scan', 'wav', 'can'] as const;
export type WrittenDialect = (typeof DIALECTS)[number];

const NAMES: Readonly<Record<(typeof SIGNALS)[number], string>> = {
  airflow: 'air flow',
  rail: 'rail sensor',
  boost: 'boost sensor',
  coolant: 'coolant sensor',
};

/**
 * A simulated recording as the file that a recorder would write: bytes of a table, of WAV, or of a CAN log in
 * text form.
 */
export function writeSimulated(r: SimulatedRecording, dialect: WrittenDialect): Uint8Array {
  if (dialect === 'wav') return wavOf(r);
  return new TextEncoder().encode(
    dialect === 'can' ? canOf(r) : dialect === 'scan' ? withScan(r) : tableOf(r, dialect),
  );
}

function tableOf(r: SimulatedRecording, dialect: 'plain' | 'comma' | 'rate' | 'clock'): string {
  const { rate_Hz } = r.settings;
  const digits = 4;
  const columns = [...SIGNALS.map((s) => r.pins[s]), r.battery];
  const names = [...SIGNALS.map((s) => NAMES[s]), 'battery'];
  const isComma = dialect === 'comma';
  const delimiter = isComma ? ';' : ',';
  const number = (v: number, d: number): string => (isComma ? v.toFixed(d).replace('.', ',') : v.toFixed(d));
  const clock = (t: number): string =>
    `2026-11-23 09:${String(10 + Math.floor(t / 60)).padStart(2, '0')}:${(t % 60).toFixed(2).padStart(5, '0')}`;
  const time = (i: number): string =>
    dialect === 'rate' ? String(i + 1) : dialect === 'clock' ? clock(i / rate_Hz) : number(i / rate_Hz, 3);
  const head = {
    plain: [`t (s),${names.map((n) => `${n} (V)`).join(',')}`],
    comma: [['Time', ...names].join(delimiter), ['(s)', ...names.map(() => '(V)')].join(delimiter)],
    rate: ['Recorder: simulated', `Sample rate: ${rate_Hz} Hz`, '', `No.,${names.join(',')}`],
    clock: [`Date and time,${names.map((n) => `${n} [V]`).join(',')}`],
  }[dialect];
  const lines = [...head];
  const count = r.battery.length;
  for (let i = 0; i < count; i++)
    lines.push([time(i), ...columns.map((c) => number(c[i] ?? 0, digits))].join(delimiter));
  return `${lines.join('\r\n')}\r\n`;
}

/**
 * The rail sensor at its pin and as the scan tool shows it, in one table: a row has the value of one of them.
 */
function withScan(r: SimulatedRecording): string {
  const { rate_Hz } = r.settings;
  const rows: [number, string][] = Array.from(r.pins.rail, (v, i) => [i / rate_Hz, `${v.toFixed(4)},`]);
  r.scan?.t_s.forEach((t, i) => rows.push([t, `,${(r.scan?.values.rail[i] ?? 0).toFixed(2)}`]));
  rows.sort((a, b) => a[0] - b[0]);
  return `t (s),rail sensor at the pin (V),rail sensor by scan tool (V)\r\n${rows.map(([t, cells]) => `${t.toFixed(3)},${cells}\r\n`).join('')}`;
}

/** WAV of 16 bits, full scale 10 V: a channel for each signal. */
function wavOf(r: SimulatedRecording): Uint8Array {
  const columns = SIGNALS.map((s) => r.pins[s]);
  const count = r.battery.length;
  const size = 2 * columns.length * count;
  const view = new DataView(new ArrayBuffer(44 + size));
  const text = (at: number, words: string): void =>
    Array.from(words).forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  view.setUint32(4, 36 + size, true);
  text(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, columns.length, true);
  view.setUint32(24, r.settings.rate_Hz, true);
  view.setUint32(28, 2 * columns.length * r.settings.rate_Hz, true);
  view.setUint16(32, 2 * columns.length, true);
  view.setUint16(34, 16, true);
  text(36, 'data');
  view.setUint32(40, size, true);
  let at = 44;
  for (let i = 0; i < count; i++)
    for (const c of columns) {
      view.setInt16(at, Math.round(((c[i] ?? 0) / 10) * 32768), true);
      at += 2;
    }
  return new Uint8Array(view.buffer);
}

const hex = (bytes: readonly number[]): string =>
  bytes
    .map((b) => b.toString(16).padStart(2, '0'))
    .join('')
    .toUpperCase();
const word = (n: number): readonly [number, number] => [n & 255, (n >> 8) & 255];
const FF = 255;

/**
 * The journey on a J1939 bus: speed ten times a second, boost and temperature once, the battery once, and a
 * code where a fault is.
 */
function canOf(r: SimulatedRecording): string {
  const { rate_Hz, seconds, faults } = r.settings;
  const began = 1_763_888_000;
  const lines: string[] = [];
  const at = (list: Float64Array, t: number): number => list[Math.min(list.length - 1, Math.round(t * rate_Hz))] ?? 0;
  const frame = (t: number, id: string, data: readonly number[]): void =>
    void lines.push(`(${(began + t).toFixed(6)}) can0 ${id}#${hex(data)}`);
  const byte = (v: number): number => Math.max(0, Math.min(250, Math.round(v)));
  for (let k = 0; k < seconds * 10; k++) {
    const t = k / 10;
    frame(t, '0CF00400', [FF, FF, FF, ...word(Math.round(at(r.journey.speed_rpm, t) * 8)), FF, FF, FF]);
    if (k % 10 !== 0) continue;
    frame(t + 0.002, '18FEF600', [FF, byte(at(r.journey.boost, t) * 125), FF, FF, FF, FF, FF, FF]);
    frame(t + 0.004, '18FEEE00', [byte(at(r.journey.coolant, t) * 110 + 30), FF, FF, FF, FF, FF, FF, FF]);
    frame(t + 0.006, '18FEF700', [FF, FF, FF, FF, ...word(Math.round(at(r.journey.battery_V, t) * 20)), FF, FF]);
    if (faults.some((f) => f.signal === 'rail' && t > f.at_s && t < f.at_s + f.seconds + 20))
      frame(t + 0.008, '18FECA00', [4, FF, 157, 0, 4, 1, FF, FF]);
  }
  return `${lines.join('\n')}\n`;
}
