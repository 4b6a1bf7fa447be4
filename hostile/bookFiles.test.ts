import { readFileSync } from 'node:fs';
import { bookFile, parseBookFile } from '@/core/exchange/bookJson';
import { openHistory, perform } from '@/core/model';
import { randomOf, type Random } from '@/core/test/random';
import { drawAll } from './screens';
import { counted, seed, times, within } from './count';

/* Book files with values changed: each is refused with its place, or opens so that every screen can be drawn. */

type Node = Record<string, unknown> | unknown[];
const isNode = (v: unknown): v is Node => typeof v === 'object' && v !== null;

const VALUES: readonly unknown[] = [
  null,
  true,
  0,
  -1,
  1,
  0.5,
  1e300,
  9_999_999_999_999,
  -9_999_999_999_999,
  10_000_000_000_000,
  Number.MAX_SAFE_INTEGER,
  '',
  'x',
  'x'.repeat(130),
  'x'.repeat(5000),
  'a1',
  'b1',
  'gone',
  '__proto__',
  'constructor',
  'toString',
  'hasOwnProperty',
  '0000-01',
  '1900-01',
  '2027-13',
  '2027-99',
  '2199-12',
  '9999-99',
  '2026-02-30',
  '1900-01-01',
  '2199-12-31',
  '0001-01-01',
  'qq-QQ',
  'en_US',
  'USD',
  'XXX',
  '999999999',
  '-100',
  '0.000001',
  [],
  {},
  [null],
  [[]],
  { of: 'account', account: 'gone' },
  { kind: 'byMonth', amounts: {} },
  { kind: 'formula', formula: '1/0', round: 0 },
  { kind: 'formula', formula: '('.repeat(3000), round: 0 },
  {
    kind: 'step',
    start: 100,
    first: '1900-01',
    every: 1,
    change: { of: 'percent', percent: '99', compounding: true },
    round: 0,
  },
  { kind: 'handMade', periods: [{ year: 2100, name: 'P', start: '2025-01-01', end: '2025-01-31' }] },
  { kind: 'handMade', periods: [{ year: 1950, name: 'P', start: '1950-01-01', end: '1950-01-01' }] },
  { kind: 'weeks', pattern: '4-4-5', endMonth: 1, endWeekday: 7, ending: 'last' },
  { kind: 'months', firstMonth: 3 },
];

const alike = (a: unknown, b: unknown): boolean =>
  typeof a === typeof b && Array.isArray(a) === Array.isArray(b) && (a === null) === (b === null);

/** Any place of a document, deep ones as likely as the lists they are in are short. */
function placeIn(doc: Node, { pick, below }: Random): { readonly in: Node; readonly key: string | number } {
  let at = doc;
  for (;;) {
    const keys = Array.isArray(at) ? at.map((_, i) => i) : Object.keys(at);
    if (keys.length === 0) return { in: at, key: Array.isArray(at) ? 0 : 'x' };
    const key = pick<string | number>(keys);
    const next = (at as Record<string | number, unknown>)[key];
    if (!isNode(next) || below(14) === 0) return { in: at, key };
    at = next;
  }
}

/** What stands under a name anywhere in a document; for a place in a list, numbers and texts from anywhere. */
function valuesOf(doc: Node, key: string | number): unknown[] {
  const out: unknown[] = [];
  const look = (v: unknown): void => {
    if (!isNode(v) || out.length > 300) return;
    for (const [k, w] of Object.entries(v)) {
      if (typeof key === 'string' ? k === key : typeof w !== 'object') out.push(w);
      look(w);
    }
  };
  look(doc);
  return out.length > 0 ? out : [null];
}

function mutate(doc: Node, random: Random): void {
  const { pick, below } = random;
  const place = placeIn(doc, random);
  if (!isNode(place.in)) return;
  const at = place.in as Record<string | number, unknown>;
  const was = at[place.key];
  switch (below(12)) {
    case 0:
      if (Array.isArray(at)) at.splice(Number(place.key), 1);
      else delete at[place.key];
      return;
    case 1:
      if (Array.isArray(at)) at.push(structuredClone(was));
      else at[pick(['x', '__x', String(place.key) + '1'])] = structuredClone(was);
      return;
    case 2: {
      // Another value of the same document.
      const other = placeIn(doc, random);
      at[place.key] = structuredClone((other.in as Record<string | number, unknown>)[other.key]);
      return;
    }
    case 3:
      if (typeof was === 'number')
        at[place.key] = pick([-was, was + 1, was * 1000, was / 3, 2 ** 31, -(2 ** 31)]);
      else if (typeof was === 'string')
        at[place.key] = pick([was + was, was.slice(1), was.toUpperCase(), was.replace(/\d/g, '9')]);
      else if (Array.isArray(was)) was.reverse();
      return;
    default:
      // Mostly of the kind that it was, or as it stands elsewhere under the same name: what is of another kind is
      // refused by its shape alone.
      at[place.key] = structuredClone(
        below(16) === 0
          ? pick(VALUES)
          : below(2) === 0
            ? pick(valuesOf(doc, place.key))
            : pick(VALUES.filter((v) => alike(v, was)).concat([was])),
      );
  }
}

/** The demo's book without most of its entries, and with every method, driver and kind of note in it. */
function sources(): Node[] {
  const demo = JSON.parse(readFileSync('public/demo/pellow-creek.tellan.json', 'utf8')) as {
    book: { budgets: { lines: unknown[]; segments: unknown[] }[] };
    ledger: Record<string, unknown>[];
    journal: unknown[];
  };
  for (const block of demo.ledger) {
    const n = 400;
    for (const [key, value] of Object.entries(block))
      if (Array.isArray(value) && value.length === block.count) block[key] = value.slice(0, n);
    for (const s of block.segments as { place: unknown[] }[]) s.place = s.place.slice(0, n);
    block.count = n;
  }
  const draft = demo.book.budgets.at(-1)! as unknown as Record<string, unknown>;
  const lines = draft.lines as { account: string; method: unknown }[];
  const lifted = { uplift: '3', round: 10 };
  const METHODS: unknown[] = [
    { kind: 'lastYear', from: { of: 'actuals', years: 1 }, add: 5, skip: { '2026-07': null }, ...lifted },
    { kind: 'runRate', over: { of: 'range', first: '2026-01', last: '2026-06' }, add: 0, ...lifted },
    {
      kind: 'phased',
      amounts: { per: 'quarter', amounts: [1, 2, 3, 4] },
      by: { by: 'weights', weights: 'w1' },
      ...lifted,
    },
    {
      kind: 'phased',
      amounts: { per: 'year', amounts: [1000] },
      by: { by: 'every', first: '2027-02', months: 3 },
      ...lifted,
    },
    {
      kind: 'pattern',
      amounts: { per: 'year', amounts: [900] },
      like: { of: 'kind', kind: 'income' },
      years: [1, 2],
      ...lifted,
    },
    {
      kind: 'step',
      start: 100,
      first: '2027-03',
      every: 2,
      change: { of: 'percent', percent: '4', compounding: true },
      round: 1,
    },
    { kind: 'share', of: { of: 'kind', kind: 'income' }, percent: null, lag: 1, round: 0 },
    {
      kind: 'occurrence',
      amount: 700,
      later: [{ from: '2027-01-01', amount: 800 }],
      on: { of: 'weeks', every: 2, from: '2026-07-03' },
    },
    { kind: 'driver', factors: ['d1'], round: 0 },
    { kind: 'formula', formula: '"kind:income" * 0.02 + prior "driver:d1"', round: 0 },
    { kind: 'unphased', amounts: { per: 'year', amounts: [4000] } },
  ];
  METHODS.forEach((method, i) => {
    if (lines[i + 3]) lines[i + 3]!.method = method;
  });
  draft.drivers = [
    {
      id: 'd1',
      name: 'Berths',
      unit: 'no',
      decimals: 1,
      opening: 10,
      series: { kind: 'seasonal', level: 50, weights: 'w1' },
      note: '',
    },
    {
      id: 'd2',
      name: 'Hours',
      unit: 'h',
      decimals: 0,
      opening: null,
      series: { kind: 'formula', formula: 'prior "driver:d2" + "driver:d1"' },
      note: '',
    },
  ];
  (demo.book as unknown as Record<string, unknown>).weights = [
    { id: 'w1', name: 'Season', weights: [1, 2, 3, 4, 5, 6, 6, 5, 4, 3, 2, 1] },
  ];
  return [demo as unknown as Node];
}

test('mutated book files are refused with the place, or every screen of them can be drawn', async () => {
  const random = randomOf(seed(20261126));
  const [source] = sources().map((s) => JSON.stringify(s));
  const sound = parseBookFile(source!);
  if (!sound.ok) throw new Error(JSON.stringify(sound.issue));
  expect(sound.setAside).toEqual([]);
  const count = { files: 0, refused: 0, opened: 0, setAside: 0, slowest: 0 };
  const broken: unknown[] = [];
  for (let n = 0; n < times(3000, 60); n++) {
    const doc = JSON.parse(source!) as { book: Node; journal: Node; ledger: Node };
    for (let k = random.pick([1, 1, 1, 2, 3]); k > 0; k--)
      mutate(
        random.below(20) === 0
          ? (doc as unknown as Node)
          : random.below(6) === 0
            ? random.pick([doc.journal, doc.ledger].filter(isNode))
            : isNode(doc.book)
              ? doc.book
              : (doc as unknown as Node),
        random,
      );
    count.files++;
    let text = '';
    try {
      await within(count, async () => {
        text = JSON.stringify(doc);
        const read = parseBookFile(text);
        if (!read.ok) {
          count.refused++;
          if (read.issue.code === 'invalid' && !read.issue.message) throw new Error('Refused without a word');
          return;
        }
        count.opened++;
        if (read.setAside.length > 0) count.setAside++;
        const history = openHistory(read.book, read.journal, read.setAside.length === 0);
        await drawAll(history, new Map(read.blocks.map((b) => [b.id, b])), n % 40 === 0);
        // What opened can be worked on, saved as a file and opened again with nothing set aside.
        const step = perform(history, { type: 'renameBook', name: 'After' }, 't');
        if (!step.ok) throw new Error(`It cannot be worked on: ${JSON.stringify(step.refusal)}`);
        const again = parseBookFile(bookFile({ ...step.history, blocks: read.blocks }));
        if (!again.ok) throw new Error(`It does not open again: ${JSON.stringify(again.issue)}`);
        if (again.setAside.length > 0)
          throw new Error(`More is set aside: ${JSON.stringify(again.setAside)}`);
      });
    } catch (error) {
      broken.push([n, error instanceof Error ? error.stack?.split('\n').slice(0, 8) : error]);
      if (broken.length > 8) break;
    }
  }
  counted('mutated book files', { ...count, broken: broken.length });
  expect(broken).toEqual([]);
  // What hangs is found, whatever else the machine does meanwhile.
  expect(count.slowest).toBeLessThan(30_000);
  expect(count.opened).toBeGreaterThan(count.files / 5);
}, 3_600_000);
