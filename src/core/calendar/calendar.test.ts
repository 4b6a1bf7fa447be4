import fc from 'fast-check';
import {
  civilOf,
  day,
  dayNumberOf,
  daysInMonth,
  fiscalYearLabel,
  fiscalYearsLabel,
  fromDayNumber,
  handMadeCalendar,
  indexOfId,
  monthCalendar,
  parseIsoDay,
  periodFaults,
  periodsOf,
  quarterRange,
  toDayNumber,
  weekCalendar,
  weekdayOf,
  weeksInYear,
  weekYearEnd,
  yearRange,
  yearsBefore,
  yearToDate,
  type HandMadePeriod,
  type WeekCalendarSpec,
  type WeekPattern,
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
  test('labels of several years, and of those before them', () => {
    const of = (length: number) =>
      Array.from({ length }, (_, i) => monthCalendar(1).period(monthCalendar(1).firstOfYear(2099) + i));
    expect([0, 3, 12, 13, 36].map((n) => fiscalYearsLabel(of(n)))).toEqual([
      '',
      'FY99',
      'FY99',
      'FY99–00',
      'FY99–01',
    ]);
    expect([fiscalYearsLabel(of(12), 1), fiscalYearsLabel(of(24), 2)]).toEqual(['FY98', 'FY97–98']);
  });
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

describe('years of 52 and 53 weeks', () => {
  // The retail 4-5-4 calendar published by the US trade body for retail: the year ends on the Saturday nearest to
  // 31 January. Its years named 2012, 2017 and 2023 have 53 weeks; the year named 2023 runs from 29 January 2023 to
  // 3 February 2024 (from memory). It names a year for its beginning; here a year is named for its end.
  const retail: WeekCalendarSpec = { pattern: '4-5-4', endMonth: 1, endWeekday: 6, ending: 'nearest' };
  test('the published retail calendar: its long years and where they begin and end', () => {
    const long = [];
    for (let y = 2008; y <= 2026; y++) if (weeksInYear(retail, y) === 53) long.push(y - 1);
    expect(long).toEqual([2012, 2017, 2023]);
    const c = weekCalendar(retail);
    const range = yearRange(c, 2024);
    expect([c.period(range.first).start, c.period(range.last).end]).toEqual(['2023-01-29', '2024-02-03']);
    expect(c.period(range.first).label).toBe('Feb 2023');
    // February 2023 has four weeks, March five, and January 2024 takes the 53rd week: five.
    expect([0, 1, 11].map((i) => [c.period(range.first + i).start, c.period(range.first + i).end])).toEqual([
      ['2023-01-29', '2023-02-25'],
      ['2023-02-26', '2023-04-01'],
      ['2023-12-31', '2024-02-03'],
    ]);
  });
  // IRS Publication 538, 52-53-week tax year: a year that ends on the last Saturday of August, or on the Saturday
  // nearest to the end of August (which may be as late as 3 September). From memory.
  test.each([
    ['last', 2024, '2024-08-31'],
    ['last', 2025, '2025-08-30'],
    ['last', 2026, '2026-08-29'],
    ['nearest', 2026, '2026-08-29'],
    ['nearest', 2022, '2022-09-03'],
    ['last', 2022, '2022-08-27'],
  ] as const)('the %s Saturday of August %i', (ending, year, expected) =>
    expect(fromDayNumber(weekYearEnd({ pattern: '4-4-5', endMonth: 8, endWeekday: 6, ending }, year))).toBe(
      expected,
    ),
  );
  test('ISO 8601 weekdays agree with the ECMAScript calendar', () =>
    fc.assert(
      fc.property(fc.integer({ min: -100000, max: 100000 }), (n) =>
        expect(weekdayOf(n)).toBe(new Date(n * 86400000).getUTCDay() || 7),
      ),
    ));
  const anySpec = fc.record({
    pattern: fc.constantFrom('4-4-5', '4-5-4', '5-4-4') as fc.Arbitrary<WeekPattern>,
    endMonth: fc.integer({ min: 1, max: 12 }),
    endWeekday: fc.integer({ min: 1, max: 7 }),
    ending: fc.constantFrom('last', 'nearest') as fc.Arbitrary<'last' | 'nearest'>,
  });
  test('every day lies in exactly one period, periods touch, years have 52 or 53 weeks and end on their weekday', () =>
    fc.assert(
      fc.property(anySpec, fc.integer({ min: 3000, max: 30000 }), (spec, n) => {
        const c = weekCalendar(spec);
        const i = c.indexOfDay(n);
        const p = c.period(i);
        expect(toDayNumber(p.start) <= n && n <= toDayNumber(p.end)).toBe(true);
        expect(toDayNumber(c.period(i + 1).start)).toBe(toDayNumber(p.end) + 1);
        expect([52, 53]).toContain(weeksInYear(spec, p.year));
        const last = toDayNumber(c.period(yearRange(c, p.year).last).end);
        expect(weekdayOf(last)).toBe(spec.endWeekday);
        expect(indexOfId(c, p.id)).toBe(i);
      }),
    ));
});

describe('hand-made periods', () => {
  // Thirteen periods of four weeks are common practice in catering.
  const thirteen = (year: number, from: string): HandMadePeriod[] =>
    Array.from({ length: 13 }, (_, i) => ({
      year,
      name: `P${i + 1}`,
      start: fromDayNumber(toDayNumber(day(from)) + 28 * i),
      end: fromDayNumber(toDayNumber(day(from)) + 28 * i + 27),
    }));
  const periods = [...thirteen(2026, '2025-12-29'), ...thirteen(2027, '2026-12-28')];
  const c = handMadeCalendar(periods);
  test('days find their periods, quarters are three, three, three and four', () => {
    expect(c.period(c.indexOfDay(toDayNumber(day('2026-01-25')))).label).toBe('P1 FY26');
    expect(c.period(c.indexOfDay(toDayNumber(day('2026-01-26')))).short).toBe('P2');
    const q4 = quarterRange(c, c.indexOfDay(toDayNumber(day('2026-12-01'))));
    expect(q4.last - q4.first + 1).toBe(4);
  });
  test('beyond the list the shape repeats and no day is lost', () =>
    fc.assert(
      fc.property(fc.integer({ min: 15000, max: 26000 }), (n) => {
        const i = c.indexOfDay(n);
        const p = c.period(i);
        expect(p.start <= fromDayNumber(n) && fromDayNumber(n) <= p.end).toBe(true);
        expect(toDayNumber(c.period(i + 1).start)).toBe(toDayNumber(p.end) + 1);
        expect(indexOfId(c, p.id)).toBe(i);
      }),
    ));
  test.each<[string, HandMadePeriod[], string[]]>([
    ['none', [], ['none']],
    [
      'a gap',
      [
        { year: 2026, name: 'A', start: day('2026-01-01'), end: day('2026-01-31') },
        { year: 2026, name: 'B', start: day('2026-02-02'), end: day('2026-02-28') },
      ],
      ['gap'],
    ],
    [
      'an overlap and no name',
      [
        { year: 2026, name: 'A', start: day('2026-01-01'), end: day('2026-01-31') },
        { year: 2026, name: ' ', start: day('2026-01-31'), end: day('2026-02-28') },
      ],
      ['noName', 'overlap'],
    ],
    [
      'an end before its start',
      [{ year: 2026, name: 'A', start: day('2026-02-01'), end: day('2026-01-31') }],
      ['endsBeforeStart'],
    ],
    [
      'a year left out',
      [
        { year: 2026, name: 'A', start: day('2026-01-01'), end: day('2026-12-31') },
        { year: 2028, name: 'B', start: day('2027-01-01'), end: day('2027-12-31') },
      ],
      ['yearOrder'],
    ],
  ])('%s is named', (_n, list, codes) => expect(periodFaults(list).map((f) => f.code)).toEqual(codes));
  test('a sound list has no fault', () => expect(periodFaults(periods)).toEqual([]));
});
