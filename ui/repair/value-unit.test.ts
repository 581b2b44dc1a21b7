import { readValue } from '../../core/repair/values';
import { bareUnits, valueWithUnit } from './value-unit';

test('a bare number is read in the unit beside its field, and what has one keeps it', () => {
  expect(valueWithUnit('17', 'Nm')).toBe('17 Nm');
  expect(valueWithUnit(' 12,5 ', 'lbf ft')).toBe('12,5 lbf ft');
  expect(valueWithUnit('13 lbf ft', 'Nm')).toBe('13 lbf ft');
  expect(valueWithUnit('soft', 'Nm')).toBe('soft');
  expect(valueWithUnit('', 'Nm')).toBe('');
});

test.each(['torque', 'angle', 'length', 'voltage', 'resistance'] as const)(
  'every unit offered for %s can be read',
  (quantity) => {
    for (const unit of bareUnits(quantity)) expect(readValue(valueWithUnit('12', unit), quantity).ok).toBe(true);
  },
);
