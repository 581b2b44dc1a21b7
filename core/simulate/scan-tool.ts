import type { LibraryCircuit } from '../circuits/types';
import { expandElements, wiringOf } from '../circuits/expand';
import type { Engine } from '../engine/layout';
import type { Fault } from '../solver/types';

/** What a simulated scan tool is put to. It shares the circuit's parts with the judge, and nothing else. */
export interface ScanScene {
  readonly circuit: LibraryCircuit;
  readonly engine: Engine;
  readonly faults: readonly Fault[];
  readonly isRunning: boolean;
}

/** A position whose circuit the controller finds odd. */
interface Odd {
  readonly cylinder: number;
  readonly said: string;
}

/** From this on a controller notices more in the wire, ohm. Invented. */
const NOTICED_ohm = 20;

/** Cylinders whose circuit is broken or shorted, as the controller sees it at its own pin. */
function oddOnes({ circuit, engine, faults }: ScanScene): Odd[] {
  const elements = expandElements(circuit, wiringOf(engine));
  return faults.flatMap((f): Odd[] => {
    const cylinder = elements.find((e) => e.id === f.element)?.place?.cylinder ?? null;
    if (cylinder === null) return [];
    if (f.kind === 'open') return [{ cylinder, said: 'circuit open' }];
    if (f.kind === 'short') return [{ cylinder, said: 'circuit shorted' }];
    return 'ohms' in f && f.ohms >= NOTICED_ohm ? [{ cylinder, said: 'current too low' }] : [];
  });
}

/**
 * What it shows, as a `mudflat/scan` document: codes by SAE J2012 (from memory: P0671 and on for glow plugs,
 * P0201 and on for injectors), live values, commands, cut-out and self-test of each cylinder.
 */
export function simulateScan(scene: ScanScene): object {
  const { circuit, engine, isRunning } = scene;
  const odd = oddOnes(scene);
  const isGlow = circuit.area === 'Glow plugs';
  const isInjector = circuit.area === 'Injectors';
  const cylinders = Array.from({ length: engine.cylinders }, (_, i) => i + 1);
  const oddAt = (c: number): Odd | undefined => odd.find((o) => o.cylinder === c);
  const battery = (engine.systemVoltage_V ?? 12) * (isRunning ? 1.17 : 1.03);
  return {
    format: 'mudflat/scan',
    version: 1,
    tool: 'simulated scan tool',
    codes: odd
      .filter(() => isGlow || isInjector)
      .map((o) => ({ code: `P0${isGlow ? 670 + o.cylinder : 200 + o.cylinder}`, status: 'active', count: 1 })),
    live: [
      { name: 'engine speed', value: `${isRunning ? 742 : 0} rpm` },
      { name: 'battery', value: `${battery.toFixed(1)} V` },
      { name: 'coolant', value: `${isRunning ? 64 : 11} °C` },
    ],
    commands: isGlow ? [{ name: 'glow plugs', state: isRunning ? 'off' : 'on' }] : [],
    cutOut: isInjector && isRunning ? cylinders.map((c) => ({ cylinder: c, change: oddAt(c) ? 'none' : 'worse' })) : [],
    selfTest: (isGlow || isInjector ? cylinders : []).map((c) => ({
      cylinder: c,
      part: isGlow ? 'glow plug' : 'injector',
      result: oddAt(c) ? 'failed' : 'passed',
      ...(oddAt(c) ? { said: oddAt(c)?.said } : {}),
    })),
  };
}

const EEC1 = 0x0cf00400;
const DM1 = 0x18feca00;
/** Injector of cylinder 1 (SAE J1939, from memory). */
const INJECTOR_SPN = 651;
const CURRENT_LOW = 5;

/** The same as a CAN log in text form: engine speed ten times a second, codes of injectors once a second. */
export function simulateCanLog(scene: ScanScene, seconds: number): string {
  const speed = Math.round((scene.isRunning ? 742 : 0) / 0.125);
  const hex = (bytes: readonly number[]): string =>
    bytes.map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join('');
  const frame = (t: number, id: number, bytes: readonly number[]): string =>
    `(${(1_690_000_000 + t).toFixed(6)}) can0 ${id.toString(16).toUpperCase().padStart(8, '0')}#${hex(bytes)}`;
  const [first] = scene.circuit.area === 'Injectors' ? oddOnes(scene) : [];
  const spn = INJECTOR_SPN + (first?.cylinder ?? 1) - 1;
  const code = first ? [spn & 255, (spn >> 8) & 255, ((spn >> 16) << 5) | CURRENT_LOW, 1] : [0, 0, 0, 0];
  const lines: string[] = [];
  for (let k = 0; k < 10 * seconds; k++) {
    lines.push(frame(k / 10, EEC1, [0xff, 0xff, 0xff, speed & 255, speed >> 8, 0xff, 0xff, 0xff]));
    if (k % 10 === 0) lines.push(frame(k / 10 + 0.01, DM1, [first ? 0x04 : 0, 0xff, ...code, 0xff, 0xff]));
  }
  return `${lines.join('\n')}\n`;
}
