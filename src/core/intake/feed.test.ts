import fc from 'fast-check';
import { toDayNumber, day } from '@/core/calendar';
import { isPullDue, pullFeed, feedFacts, type FeedAsk, type FeedEntry } from '.';

const COUNT = 23;
const entry = (seq: number): FeedEntry => ({
  seq,
  date: '2026-11-05',
  reference: `J${seq}`,
  memo: 'm',
  counterparty: 'p',
  lines: [
    { account: '1000', debit: `${seq}.10`, credit: null, segments: { Site: 'North' } },
    { account: '4000', debit: null, credit: `${seq}.10`, segments: {} },
  ],
});
const ALL = Array.from({ length: COUNT }, (_, i) => entry(i + 1));

/** Ways in which one answer of the service can go wrong. */
type Mischief = 'well' | 'fail' | 'half' | 'repeat' | 'other' | 'garbage' | 'empty';

/** A service that does one mischief after another, then behaves. */
function service(mischiefs: readonly Mischief[], size = 5): { ask: FeedAsk; asked: () => number } {
  const list = [...mischiefs];
  let asked = 0;
  const ask: FeedAsk = async (path) => {
    asked++;
    const now = list.shift() ?? 'well';
    if (now === 'fail') throw new Error('503');
    if (now === 'garbage') return '<html>';
    if (path === 'company')
      return {
        company: 'C',
        currency: 'USD',
        closedThrough: '2026-11-30',
        last: COUNT,
        accounts: [
          { code: '1000', name: 'Bank', type: 'bank' },
          { code: '4000', name: 'Sales', type: 'income' },
        ],
      };
    const since = Number(path.split('=')[1]);
    const from = now === 'repeat' ? Math.max(0, since - 3) : since;
    const entries = now === 'empty' ? [] : ALL.slice(from, since + size);
    const debits = entries.reduce((t, e) => t + e.seq * 100 + 10, 0) / 100;
    const page = {
      since: now === 'other' ? since + 1 : since,
      count: entries.length,
      debits: debits.toFixed(2),
      last: COUNT,
      entries,
    };
    return now === 'half' ? { ...page, entries: entries.slice(0, entries.length >> 1) } : page;
  };
  return { ask, asked: () => asked };
}
const MISCHIEFS: Mischief[] = ['well', 'fail', 'half', 'repeat', 'other', 'garbage', 'empty'];

test('whatever the service does, a pull gives everything once or nothing at all', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.array(fc.constantFrom(...MISCHIEFS), { maxLength: 14 }),
      fc.integer({ min: 0, max: COUNT }),
      async (mischiefs, since) => {
        const result = await pullFeed(service(mischiefs).ask, since);
        if (result.ok) expect(result.pull.entries).toEqual(ALL.slice(since));
        else expect(result.fault.code).toMatch(/unreachable|notTheFeed|halfAPage|gap/);
      },
    ),
    { numRuns: 80 },
  );
});
test.each<[string, Mischief[], boolean]>([
  ['two failures are tried again', ['fail', 'fail'], true],
  ['three failures end the pull', ['fail', 'fail', 'fail'], false],
  ['a broken-off page is asked for again', ['well', 'half', 'half'], true],
  ['a page that stays broken off ends the pull', ['well', 'half', 'half', 'half'], false],
  ['entries that come again are taken once', ['well', 'repeat', 'repeat', 'repeat'], true],
  ['a page without the next entry is a gap', ['well', 'empty'], false],
])('%s', async (_n, mischiefs, ok) => expect((await pullFeed(service(mischiefs).ask, 0)).ok).toBe(ok));

test('a pull becomes rows of entries with its segments, and what the service says of itself', async () => {
  const result = await pullFeed(service([]).ask, 21);
  if (!result.ok) throw new Error(result.fault.code);
  const { grids, stated } = feedFacts(result.pull);
  expect(grids[0]!.head).toEqual([
    [
      'Date',
      'Journal no',
      'Account code',
      'Account name',
      'Account type',
      'Debit',
      'Credit',
      'Counterparty',
      'Description',
      'Segment: Site',
    ],
    ['2026-11-05', 'J22', '1000', 'Bank', 'bank', '22.10', '', 'p', 'm', 'North'],
    ['2026-11-05', 'J22', '4000', 'Sales', 'income', '', '22.10', 'p', 'm', ''],
    ['2026-11-05', 'J23', '1000', 'Bank', 'bank', '23.10', '', 'p', 'm', 'North'],
    ['2026-11-05', 'J23', '4000', 'Sales', 'income', '', '23.10', 'p', 'm', ''],
  ]);
  expect(stated?.entries).toBe(2);
  // A segment of a name that every object has: lines without it stay blank.
  const [one] = result.pull.entries;
  const odd = {
    ...one!,
    lines: [{ ...one!.lines[0]!, segments: { valueOf: 'N' } } as never, one!.lines[1]!],
  };
  const rows = feedFacts({ ...result.pull, entries: [odd] }).grids[0]!.head;
  expect(rows.map((r) => r.at(-1))).toEqual(['Segment: valueOf', 'N', '']);
});

describe('the schedule of pulls', () => {
  const at = (text: string) => {
    const [d, time = '00:00'] = text.split(' ');
    const [h = 0, m = 0] = time.split(':').map(Number);
    return toDayNumber(day(d!)) * 1440 + h * 60 + m;
  };
  const weekdays: Parameters<typeof isPullDue>[0] = {
    every: 'days',
    weekdays: [1, 2, 3, 4, 5],
    at: '08:00',
  };
  // 2026-11-23 is a Monday.
  test.each<[string, Parameters<typeof isPullDue>[0], string, string, boolean]>([
    ['never', { every: 'never' }, '2026-01-01', '2026-11-23 09:00', false],
    ['hours, not yet', { every: 'hours', hours: 4 }, '2026-11-23 06:00', '2026-11-23 09:59', false],
    ['hours, now', { every: 'hours', hours: 4 }, '2026-11-23 06:00', '2026-11-23 10:00', true],
    ['before the time of day', weekdays, '2026-11-20 08:00', '2026-11-23 07:59', false],
    ['at the time of day', weekdays, '2026-11-20 08:00', '2026-11-23 08:00', true],
    ['done already today', weekdays, '2026-11-23 08:01', '2026-11-23 15:00', false],
    ['missed on Friday, caught up on Sunday', weekdays, '2026-11-19 08:00', '2026-11-22 12:00', true],
    ['nothing on a weekend', weekdays, '2026-11-20 08:05', '2026-11-22 12:00', false],
    ['missed for a month, due once', weekdays, '2026-10-20 08:05', '2026-11-22 12:00', true],
    [
      'once a week, missed',
      { every: 'days', weekdays: [7], at: '23:30' },
      '2026-11-15 23:31',
      '2026-11-23 00:10',
      true,
    ],
  ])('%s', (_n, schedule, last, now, due) =>
    expect(isPullDue(schedule, at(last), at(last), at(now))).toBe(due),
  );
  test('after a failure it waits a quarter of an hour', () => {
    const hourly = { every: 'hours', hours: 1 } as const;
    const good = at('2026-11-23 06:00');
    expect(isPullDue(hourly, good, at('2026-11-23 07:00'), at('2026-11-23 07:14'))).toBe(false);
    expect(isPullDue(hourly, good, at('2026-11-23 07:00'), at('2026-11-23 07:15'))).toBe(true);
  });
});
