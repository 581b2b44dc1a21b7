import { tz } from '@date-fns/tz';
import { format } from 'date-fns';
import fc from 'fast-check';
import { shownClock, shownTime } from './time';

/**
 * Zones whose clocks are set forward and back, by half an hour too, and that have been on either side of the
 * date line.
 */
const ZONES = ['UTC', 'Europe/London', 'America/New_York', 'Australia/Lord_Howe', 'Asia/Kathmandu', 'Pacific/Apia'];

describe('a moment in the zone of a depot', () => {
  it('is what a library for dates makes of it, in any zone', () => {
    const moments = fc.date({ min: new Date('1990-01-01'), max: new Date('2090-01-01'), noInvalidDate: true });
    fc.assert(
      fc.property(moments, fc.constantFrom(...ZONES), (moment, zone) => {
        const iso = moment.toISOString();
        expect(shownTime(iso, zone)).toBe(format(moment, 'd MMM y, HH:mm', { in: tz(zone) }));
        expect(shownClock(iso, zone)).toBe(format(moment, 'HH:mm', { in: tz(zone) }));
      }),
    );
  });

  // The rule of the zone, in force since 1996: EU directive 2000/84/EC and the order before it.
  it('shows the hour that is there twice as often as it is there, and never the one that is not', () => {
    const at = (iso: string): string => shownTime(iso, 'Europe/London');
    expect([at('2026-03-29T00:59:00Z'), at('2026-03-29T01:00:00Z')]).toEqual([
      '29 Mar 2026, 00:59',
      '29 Mar 2026, 02:00',
    ]);
    expect([at('2026-10-25T00:30:00Z'), at('2026-10-25T01:30:00Z')]).toEqual([
      '25 Oct 2026, 01:30',
      '25 Oct 2026, 01:30',
    ]);
  });

  it('begins a day at 00:00', () => expect(shownClock('2026-11-30T00:00:00Z', 'UTC')).toBe('00:00'));

  it.each([
    ['not a moment', 'UTC'],
    ['2026-11-30T00:00:00Z', 'Nowhere/At-All'],
  ])('throws for %p in %p', (iso, zone) => expect(() => shownTime(iso, zone)).toThrow(RangeError));
});
