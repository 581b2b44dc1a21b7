import { COPPER_COEFFICIENT_PER_K } from '../metrology/temperature';
import { awgArea_mm2, awgDiameter_m, IEC_60228_CLASS_5, wireResistance_ohm } from './wire';

/** Tables of published standards, written from memory of them. */
describe('conductors', () => {
  // ASTM B258, diameters in mm and areas in mm².
  test.each([
    [-3, 11.684, 107.2],
    [10, 2.588, 5.261],
    [12, 2.053, 3.309],
    [14, 1.628, 2.081],
    [18, 1.024, 0.823],
    [36, 0.127, 0.01267],
  ])('ASTM B258: AWG %i', (size, diameter, area) => {
    expect(awgDiameter_m(size) * 1000).toBeCloseTo(diameter, 3);
    expect(awgArea_mm2(size) / area).toBeCloseTo(1, 3);
  });
  test.each(IEC_60228_CLASS_5)(
    'IEC 60228: %d mm², flexible, may have up to %d ohm per km; solid copper stays below',
    (area, most) => {
      const solid = wireResistance_ohm(area, 1000, 20);
      expect(solid).toBeLessThan(most);
      expect(solid / most).toBeGreaterThan(0.85);
    },
  );
  test('IEC 60028: annealed copper, 1 m of 1 mm² at 20 °C is 1/58 ohm, and 0.00393 per K more', () => {
    expect(wireResistance_ohm(1, 1, 20)).toBeCloseTo(1 / 58, 12);
    expect(wireResistance_ohm(1, 1, 21) / wireResistance_ohm(1, 1, 20) - 1).toBeCloseTo(COPPER_COEFFICIENT_PER_K, 12);
  });
});
