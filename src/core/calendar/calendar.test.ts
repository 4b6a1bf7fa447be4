import fc from 'fast-check';
import {
  civilOf,
  day,
  dayNumberOf,
  daysInMonth,
  fiscalYearLabel,
  fromDayNumber,
  indexOfId,
  monthCalendar,
  parseIsoDay,
  periodsOf,
  quarterRange,
  toDayNumber,
  yearRange,
  yearsBefore,
  yearToDate,
} from '.';

test('day numbers agree with the ECMAScript calendar (proleptic Gregorian, by the language standard)', () => {
  fc.assert(
    fc.property(fc.integer({ min: -200000, max: 200000 }), (n) => {
      const d = new Date(n * 86400000);
      const civil = { year: d.getUTCFullYear(), month: d.getUTCMonth() + 1, date: d.getUTCDate() };
      fc.pre(civil.year > 0);
      expect(civilOf(n)).toEqual(civil);
      expect(dayNumberOf(civil.year, civil.month, civil.date)).toBe(n);
      expect(fromDayNumber(n)).toBe(d.toISOString().slice(0, 10));
      expect(toDayNumber(fromDayNumber(n))).toBe(n);
    }),
  );
});

test.each([
  ['2026-02-29', null],
  ['2024-02-29', '2024-02-29'],
  ['1900-02-29', null],
  ['2000-02-29', '2000-02-29'],
  ['2026-13-01', null],
  ['2026-00-10', null],
  ['26-01-01', null],
])('%s', (text, expected) => expect(parseIsoDay(text)).toBe(expected));

test('February has 29 days every fourth year but for centuries not divided by 400', () => {
  expect([1900, 2000, 2023, 2024].map((y) => daysInMonth(y, 2))).toEqual([28, 29, 28, 29]);
});

describe('a fiscal year from July', () => {
  const c = monthCalendar(7);
  const october = c.indexOfDay(toDayNumber(day('2026-10-31')));
  test('October 2026 is the fourth period of FY27, in its second quarter', () => {
    expect(c.period(october)).toMatchObject({
      id: '2027-04',
      year: 2027,
      number: 4,
      quarter: 2,
      start: '2026-10-01',
      end: '2026-10-31',
      label: 'Oct 2026',
    });
  });
  test('its year, quarter and year to date', () => {
    expect(periodsOf(c, yearRange(c, 2027)).map((p) => p.short)).toEqual(
      'Jul Aug Sep Oct Nov Dec Jan Feb Mar Apr May Jun'.split(' '),
    );
    expect(periodsOf(c, quarterRange(c, october)).map((p) => p.label)).toEqual([
      'Oct 2026',
      'Nov 2026',
      'Dec 2026',
    ]);
    expect(periodsOf(c, yearToDate(c, october)).map((p) => p.short)).toEqual(['Jul', 'Aug', 'Sep', 'Oct']);
  });
  test('a year before', () => expect(c.period(yearsBefore(c, october)!).label).toBe('Oct 2025'));
  test('saved names are found again, others are not', () => {
    expect(indexOfId(c, '2027-04')).toBe(october);
    for (const bad of ['2027-13', '2027-00', '27-4', 'x']) expect(indexOfId(c, bad)).toBeNull();
  });
  test('labels', () => expect([fiscalYearLabel(2027), fiscalYearLabel(2105)]).toEqual(['FY27', 'FY05']));
});

test('a fiscal year from January is the calendar year', () => {
  const c = monthCalendar(1);
  expect(c.period(c.firstOfYear(2026))).toMatchObject({
    id: '2026-01',
    start: '2026-01-01',
    year: 2026,
    quarter: 1,
  });
});

test('in every calendar each day lies in its period, and periods follow without gap or overlap', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 12 }), fc.integer({ min: 0, max: 40000 }), (first, n) => {
      const c = monthCalendar(first);
      const p = c.period(c.indexOfDay(n));
      expect(p.start <= fromDayNumber(n) && fromDayNumber(n) <= p.end).toBe(true);
      expect(toDayNumber(c.period(p.index + 1).start)).toBe(toDayNumber(p.end) + 1);
      expect(indexOfId(c, p.id)).toBe(p.index);
      expect(c.firstOfYear(p.year) + p.number - 1).toBe(p.index);
    }),
  );
});

test('a month that is none is refused', () => expect(() => monthCalendar(13)).toThrow(RangeError));
