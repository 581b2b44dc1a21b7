import { CIRCUITS } from '../circuits/library';
import { decodeCode } from '../codes/decode';
import { type ScanScene, simulateScan } from './scan-tool';

const scene = (id: string, more: Partial<ScanScene> = {}): ScanScene => {
  const circuit = CIRCUITS.find((c) => c.id === id);
  if (!circuit) throw new Error(`no circuit ${id}`);
  return { circuit, engine: { layout: 'inline', cylinders: 4 }, faults: [], isRunning: false, ...more };
};
interface Shown {
  codes: { code: string }[];
  selfTest: { cylinder: number; result: string }[];
  cutOut: { cylinder: number; change: string }[];
}
const shown = (s: ScanScene): Shown => simulateScan(s) as Shown;

it('finds nothing on a good engine', () => {
  const { codes, selfTest } = shown(scene('glow-relay'));
  expect(codes).toEqual([]);
  expect(selfTest.map((t) => t.result)).toEqual(['passed', 'passed', 'passed', 'passed']);
});

it('names the cylinder by code, self-test and cut-out', () => {
  const glow = shown(scene('glow-relay', { faults: [{ element: 'plug 3', kind: 'open' }] }));
  expect(glow.codes.map((c) => c.code)).toEqual(['P0673']);
  const meaning = decodeCode('P0673');
  expect(meaning.ok && meaning.value.cylinder).toBe(3);
  const coil = CIRCUITS.find((c) => c.id === 'injectors-common')?.perCylinder.find((e) => e.symbol === 'coil');
  if (!coil) throw new Error('no coil');
  const injector = shown(
    scene('injectors-common', { isRunning: true, faults: [{ element: coil.id.replace('{}', '2'), kind: 'open' }] }),
  );
  expect(injector.codes.map((c) => c.code)).toEqual(['P0202']);
  expect(injector.cutOut.find((c) => c.change === 'none')?.cylinder).toBe(2);
  expect(injector.selfTest.filter((t) => t.result === 'failed').map((t) => t.cylinder)).toEqual([2]);
});
