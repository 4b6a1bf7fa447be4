import { day, type PeriodId } from '@/core/calendar';
import { handedLines, newHandout } from '@/core/handout';
import type { Ground } from '@/core/ground';
import type { Command, Handout, Return, ReturnedLine, Round, SaidCell } from '@/core/model';
import { minor, type Minor } from '@/core/money';

/* A round of the autumn revision: one answer in the budget, one that waits with a conflict, one that is late. */

const FIRST = '2027-05' as PeriodId;
const LENGTH = 8;
const OUT = '2026-11-10T08:30:00.000Z';
const BACK = '2026-11-18T16:05:00.000Z';

const blank: SaidCell = { is: 'blank', amount: null, raw: '' };
const amount = (a: Minor | null): SaidCell => (a === null ? blank : { is: 'amount', amount: a, raw: '' });

/** A line of a returned file as it was handed out, but for some months. */
const answered = (
  { account, segment, handed }: Handout['lines'][number],
  row: number,
  changes: Readonly<Record<number, SaidCell>> = {},
  comment = '',
): ReturnedLine => ({
  account,
  segment,
  row,
  cells: handed.map((a, i) => changes[i] ?? amount(a)),
  turned: false,
  comment,
  total: minor(handed.reduce((t: number, a, i) => t + ((changes[i] ?? amount(a)).amount ?? 0), 0)),
  spread: 'evenly',
});

const returned = (
  of: string,
  fileName: string,
  lines: readonly ReturnedLine[],
  change: Partial<Return> = {},
): Return => ({
  fingerprint: of.repeat(64),
  fileName,
  at: BACK,
  known: 'identity',
  lines: [...lines],
  own: [],
  strays: [],
  without: [],
  merged: null,
  ...change,
});

/** The commands that hand lines of the revision out and take two answers back. */
export function demoHandouts(ground: Ground, budgetId: string): Command[] {
  const { book } = ground;
  const budget = book.budgets.find((b) => b.id === budgetId)!;
  const byCode = new Map(book.accounts.map((a) => [a.code, a.id]));
  const plain: Round = {
    id: `u${book.nextId}`,
    name: 'Yard heads, autumn',
    budget: budgetId,
    asks: 'Ines Marlowe',
    address: 'ines@pellow-creek.example',
    due: day('2026-11-20'),
    message: 'Please think of the launch that is coming in spring.',
    first: FIRST,
    length: LENGTH,
    answer: 'months',
    shows: { lastYear: true, draft: true, notes: false },
    handouts: [],
  };
  const handout = (
    id: string,
    to: string,
    codes: readonly string[],
    target: Readonly<Record<string, number>> = {},
  ): Handout => {
    const lines = codes.map((c) => ({
      account: byCode.get(c)!,
      segment: null,
      target: target[c] === undefined ? null : minor(target[c]),
    }));
    const address = `${to.split(' ')[0]!.toLowerCase()}@pellow-creek.example`;
    return newHandout(id, to, address, handedLines(ground, budget, plain, lines));
  };
  const school = handout('h1', 'Wren Okafor', ['4300', '4310', '5040']);
  const repairs = handout('h2', 'Tom Arkle', ['4100', '4120', '5010', '5030'], { '5010': 130_000_00 });
  const shop = handout('h3', 'Ivo Lund', ['4200', '4210', '5020']);
  // January has gone up since Tom's file was made.
  const jobs = repairs.lines[0]!;
  const then = {
    ...jobs,
    handed: jobs.handed.map((a, i) => (i === 2 && a !== null ? minor(a - 3_000_00) : a)),
  };
  const out = { ...repairs, lines: [then, ...repairs.lines.slice(1)] };
  const round = { ...plain, handouts: [school, out, shop] };
  const back = returned('a', 'Yard heads Wren.xlsx', [
    answered(school.lines[0]!, 5, {}, 'Two courses are full already.'),
    ...school.lines.slice(1).map((l, i) => answered(l, 6 + i)),
  ]);
  const waits = returned(
    'b',
    'Yard heads Tom (2).xlsx',
    [
      answered(
        then,
        5,
        {
          2: amount(minor(35_500_00)),
          4: amount(minor(56_000_00)),
          6: { is: 'text', amount: null, raw: 'see Ines' },
        },
        'The Halloran refit is signed.',
      ),
      answered(out.lines[1]!, 6),
      answered(out.lines[2]!, 7, { 4: amount(minor(16_800_00)) }),
      answered(out.lines[3]!, 8, { 0: amount(minor(0)) }),
    ],
    {
      own: [
        {
          name: 'Crane certificates',
          income: false,
          row: 12,
          cells: Array.from({ length: LENGTH }, (_, i) => (i === 3 ? amount(minor(1_150_00)) : blank)),
          comment: 'Every three years',
          done: false,
        },
      ],
    },
  );
  const of = { round: round.id };
  return [
    { type: 'setRound', round },
    {
      type: 'sendHandouts',
      ...of,
      handouts: round.handouts.map(({ id, lines }) => ({ id, lines })),
      at: OUT,
      reminds: false,
    },
    { type: 'takeReturn', ...of, handout: 'h1', returned: back },
    {
      type: 'mergeReturn',
      ...of,
      handout: 'h1',
      fingerprint: back.fingerprint,
      at: BACK,
      cells: [],
      notes: [],
      own: [],
      said: 'Wren Okafor’s return of Nov 18, 2026',
    },
    { type: 'takeReturn', ...of, handout: 'h2', returned: waits },
  ];
}
