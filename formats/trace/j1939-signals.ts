/** A signal of a J1939 message: little-endian, `first` byte from 0. */
export interface J1939Signal {
  readonly spn: number;
  readonly name: string;
  readonly unit: string;
  readonly first: number;
  readonly bytes: 1 | 2 | 4;
  readonly perBit: number;
  readonly offset: number;
}

const one = (spn: number, name: string, unit: string, first: number, perBit: number, offset = 0): J1939Signal => ({
  spn,
  name,
  unit,
  first,
  bytes: 1,
  perBit,
  offset,
});
const two = (spn: number, name: string, unit: string, first: number, perBit: number, offset = 0): J1939Signal => ({
  spn,
  name,
  unit,
  first,
  bytes: 2,
  perBit,
  offset,
});

/** Some twenty signals by parameter group, after SAE J1939-71. From memory of the public standard. */
export const J1939_SIGNALS: Readonly<Record<number, readonly J1939Signal[]>> = {
  61443: [one(91, 'accelerator pedal', '%', 1, 0.4), one(92, 'engine load', '%', 2, 1)],
  61444: [one(513, 'engine torque', '%', 2, 1, -125), two(190, 'engine speed', 'rpm', 3, 0.125)],
  61450: [two(132, 'intake air mass flow', 'kg/h', 2, 0.05)],
  65243: [two(164, 'injection control pressure', 'MPa', 0, 1 / 256), two(157, 'rail pressure', 'MPa', 2, 1 / 256)],
  65262: [
    one(110, 'coolant temperature', 'degC', 0, 1, -40),
    one(174, 'fuel temperature', 'degC', 1, 1, -40),
    two(175, 'oil temperature', 'degC', 2, 0.03125, -273),
  ],
  65263: [one(94, 'fuel supply pressure', 'kPa', 0, 4), one(100, 'oil pressure', 'kPa', 3, 4)],
  65265: [two(84, 'vehicle speed', 'km/h', 1, 1 / 256)],
  65266: [two(183, 'fuel rate', 'L/h', 0, 0.05)],
  65269: [one(108, 'barometric pressure', 'kPa', 0, 0.5), two(171, 'ambient temperature', 'degC', 3, 0.03125, -273)],
  65270: [
    one(102, 'boost pressure', 'kPa', 1, 2),
    one(105, 'intake temperature', 'degC', 2, 1, -40),
    one(106, 'intake pressure', 'kPa', 3, 2),
    two(173, 'exhaust temperature', 'degC', 5, 0.03125, -273),
  ],
  65271: [two(168, 'battery voltage', 'V', 4, 0.05), two(158, 'switched battery voltage', 'V', 6, 0.05)],
};

/** The highest raw values say *error* and *not available* (SAE J1939-71, table 1; from memory). */
const FIRST_INVALID = { 1: 0xfb, 2: 0xfb00, 4: 0xfb000000 } as const;

/** The signal's raw value; `null`: not sent, error, or not available. */
export function rawOf({ first, bytes }: J1939Signal, data: Uint8Array): number | null {
  if (data.length < first + bytes) return null;
  let raw = 0;
  for (let i = bytes - 1; i >= 0; i--) raw = raw * 256 + (data[first + i] ?? 0);
  return raw >= FIRST_INVALID[bytes] ? null : raw;
}

/** A trouble code of a DM1 message. */
export interface J1939Code {
  readonly spn: number;
  readonly fmi: number;
  readonly count: number;
}

/**
 * Codes of a DM1 message (SAE J1939-73, conversion method 4; from memory): two bytes of lamps, then four for
 * each code.
 */
export function codesOf(data: Uint8Array): J1939Code[] {
  const codes: J1939Code[] = [];
  for (let i = 2; i + 4 <= data.length; i += 4) {
    const [a, b, c, d] = [data[i] ?? 0, data[i + 1] ?? 0, data[i + 2] ?? 0, data[i + 3] ?? 0];
    const spn = a + 256 * b + 65536 * (c >> 5);
    const fmi = c & 31;
    const isFiller = (spn === 0 && fmi === 0) || (a === 255 && b === 255 && c === 255);
    if (!isFiller) codes.push({ spn, fmi, count: d & 127 });
  }
  return codes;
}
