import { CIRCUITS } from '../circuits/library';
import { readIdentity, readScpi } from '../instrument/scpi';
import { seededRandom } from '../numerics/random';
import { SimulatedMeter } from './meter';
import { ScpiMeter } from './scpi-meter';

function made() {
  const circuit = CIRCUITS.find((c) => c.id === 'glow-relay');
  if (!circuit) throw new Error('the library has no glow plugs');
  const meter = new SimulatedMeter({
    circuit,
    engine: { layout: 'inline', cylinders: 4 },
    faults: [],
    test: 'glow-plug-resistance',
    wanders: [],
    random: seededRandom(2),
  });
  return { meter, scpi: new ScpiMeter(meter) };
}

it('says who it is, and measures what it is set to', () => {
  const { meter, scpi } = made();
  expect(readIdentity(scpi.answer('*IDN?', 0) ?? '')?.name).toContain('Simulated');
  expect(scpi.answer('CONF:RES', 0)).toBeNull();
  expect(readScpi(scpi.answer('READ?', 0) ?? '', 'resistance')).toMatchObject({ ok: true, value: { value: null } });
  meter.put(1, 0);
  const read = readScpi(scpi.answer('READ?', 3) ?? '', 'resistance');
  expect(read.ok && read.value.value).toBeCloseTo(meter.show(3).value ?? NaN, 1);
  expect(scpi.answer('MEAS:VOLT:DC?', 4)).toMatch(/^[+-]\d\.\d{8}E[+-]\d\d$/);
  expect(meter.mode).toBe('voltage');
});

it('puts what it does not know into its queue of errors', () => {
  const { scpi } = made();
  expect(scpi.answer('FLY:HIGH', 0)).toBeNull();
  expect(scpi.answer('SYST:ERR?', 0)).toContain('-113');
  expect(scpi.answer('SYST:ERR?', 0)).toContain('No error');
  expect(scpi.answer(':CONF:RES;READ?', 0)).toMatch(/E\+37$/);
});
