import fc from 'fast-check';
import { fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import {
  cashOf,
  closingsAt,
  madeAhead,
  makeGround,
  runOffsOf,
  type CashView,
  type Ground,
} from '@/core/ground';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import { minor, percent } from '@/core/money';
import { isProfitAndLoss, naturalSign, type Book, type Command, type OpenItem } from '@/core/model';
import { account, didAll, periodIds, sourceOf } from '@/core/test/build';
import { accounts, bookOf, company, LINES } from '@/core/test/company';
import { postedUntil } from '@/core/test/year';
import { checkCash } from './cashChecks';

/*
 * A year lived: random companies whose months go otherwise than planned. Months are closed, opened and closed again, two at
 * once; entries come late; lists of open items come under changing names; plans are revised. After each of these every check of
 * money ahead holds, and the bank and every balance come to what a plain second reckoning of all postings gives.
 */

type Lived = { readonly book: Book; readonly blocks: ReadonlyMap<string, LedgerBlock> };
const chart = [...accounts, account('overdraft', 'loan')];
const periods = periodIds(2026);

/** Entries in pairs: what moves between two accounts on a day, debits to the first. */
function blockFrom(
  id: string,
  rows: readonly { readonly day: number; readonly account: string; readonly amount: number }[],
): LedgerBlock {
  const builder = new BlockBuilder(rows.length);
  const ids = chart.map((a) => a.id);
  rows.forEach((r, i) =>
    builder.add(
      r.day,
      ids.indexOf(r.account),
      r.amount,
      i + 2,
      builder.text(''),
      builder.text(''),
      builder.text(''),
    ),
  );
  return builder.build(id, ids);
}

const withBlock = ({ book, blocks }: Lived, block: LedgerBlock): Lived => ({
  book: { ...book, sources: [...book.sources, sourceOf({ id: `s${block.id}`, block: block.id })] },
  blocks: new Map([...blocks, [block.id, block]]),
});

const groundOf = ({ book, blocks }: Lived): Ground => makeGround(book, blocks, undefined, madeAhead);

/** The checks that are rules: of those that fail, what they say. */
const failing = (ground: Ground): string[] =>
  checkCash(ground, null)
    .filter((c) => !c.holds && !c.notice)
    .map((c) => `${c.code} ${c.subject} ${c.detail}`);

/** Bank and balances at the ends of the months ahead, by adding up the ledger's entries and then every posting. */
function reckonedPlainly({ blocks }: Lived, view: CashView): Map<string, number[]> {
  const ends = view.input.periods.map((p) => toDayNumber(p.end));
  const out = new Map(chart.map((a) => [a.id, ends.map(() => 0)]));
  const put = (account: string, day: number, amount: number) =>
    ends.forEach((end, k) => {
      if (day <= end && out.has(account)) out.get(account)![k]! += amount;
    });
  for (const block of blocks.values())
    for (let i = 0; i < block.count; i++)
      if (block.day[i]! <= view.input.start)
        put(block.accounts[block.account[i]!]!, block.day[i]!, block.amount[i]!);
  for (const r of postedUntil(view, ends.at(-1)!)) put(r.account, r.day, r.amount);
  return out;
}

const act = fc.oneof(
  {
    weight: 6,
    arbitrary: fc.record({
      of: fc.constant('close' as const),
      months: fc.constantFrom(1, 1, 2),
      apart: fc.integer({ min: -900, max: 900 }),
    }),
  },
  { weight: 2, arbitrary: fc.record({ of: fc.constant('reopen' as const) }) },
  {
    weight: 2,
    arbitrary: fc.record({
      of: fc.constant('late' as const),
      amount: fc.integer({ min: -700, max: 700 }),
      line: fc.constantFrom(...LINES),
    }),
  },
  {
    weight: 2,
    arbitrary: fc.record({
      of: fc.constant('list' as const),
      side: fc.constantFrom('in' as const, 'out' as const),
      open: fc.integer({ min: 1, max: 9 }),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({ of: fc.constant('revise' as const), by: fc.integer({ min: 1, max: 300 }) }),
  },
);
type Act = typeof act extends fc.Arbitrary<infer T> ? T : never;

const counts = { close: 0, reopen: 0, late: 0, list: 0, revise: 0, months: 0 };

/** What happens to a book; the same book where it cannot. */
function done(lived: Lived, a: Act, turn: number): Lived {
  const { book } = lived;
  const closed = periods.indexOf(book.closedThrough!);
  counts[a.of]++;
  switch (a.of) {
    case 'close': {
      let now = lived;
      for (let i = 0; i < a.months && closed + 1 + i < periods.length; i++) {
        const view = cashOf(groundOf(now), null)!;
        const id = periods[periods.indexOf(now.book.closedThrough!) + 1]!;
        const end = toDayNumber(view.input.periods[0]!.end);
        // As planned, but for a sale at once that was none, or was another's.
        const rows = [
          ...postedUntil(view, end),
          { day: end, account: 'bank', amount: a.apart },
          { day: end, account: 'fees', amount: -a.apart },
        ].filter((r) => r.amount !== 0);
        const block = blockFrom(`m${id}`, rows);
        // A month that was opened again has its entries already.
        if (!now.blocks.has(block.id)) now = withBlock(now, block);
        const closing: Command = { type: 'setClosedThrough', period: id, runOffEnds: runOffsOf(view) };
        now = { ...now, book: didAll(now.book, closing) };
        counts.months++;
      }
      return now;
    }
    case 'reopen':
      return closed < 1
        ? lived
        : { ...lived, book: didAll(book, { type: 'setClosedThrough', period: periods[closed - 1]! }) };
    case 'late': {
      if (closed < 0 || a.amount === 0) return lived;
      const day = toDayNumber(`${periods[closed]!}-15` as Day);
      const side = naturalSign(chart.find((x) => x.id === a.line)!.kind);
      return withBlock(
        lived,
        blockFrom(`late${turn}`, [
          { day, account: a.line, amount: side * a.amount },
          { day, account: 'bank', amount: -side * a.amount },
        ]),
      );
    }
    case 'list': {
      if (closed < 0) return lived;
      const day = fromDayNumber(toDayNumber(`${periods[closed]!}-20` as Day));
      const from = `list ${turn}.csv`;
      const items = Array.from({ length: a.open }, (_, i): OpenItem => ({
        id: `i${turn}-${i}`,
        side: a.side,
        kind: 'invoice',
        number: `${i}`,
        counterparty: `P${i % 3}`,
        dated: day,
        due: fromDayNumber(toDayNumber(day) + 10 + i),
        amount: minor(100),
        open: minor(100),
        account: null,
        from,
      }));
      return {
        ...lived,
        book: didAll(book, {
          type: 'takeOpenItems',
          from,
          sides: [a.side],
          items,
          day: null,
          by: 'me',
          at: 't',
        }),
      };
    }
    case 'revise': {
      const last = book.budgets.at(-1)!;
      if (book.budgets.length > 3) return lived;
      const lines = last.lines.map((l, i) =>
        i === 0 ? { ...l, overrides: { ...l.overrides, [periods[11]!]: minor(a.by * 100) } } : l,
      );
      const id = `r${turn}`;
      return {
        ...lived,
        book: didAll(
          book,
          { type: 'addBudget', budget: { ...last, id, name: id, lines } },
          { type: 'putInForce', budget: id },
        ),
      };
    }
  }
}

const RUNS = Number(process.env.RUNS ?? 12);

test('a year is lived: whatever happens, money ahead ties to the ledger and to itself', () => {
  fc.assert(
    fc.property(
      company,
      fc.array(act, { minLength: 8, maxLength: 16 }),
      fc.integer({ min: 0, max: 120_000 }),
      (c, acts, floor) => {
        const { book, blocks } = bookOf(c);
        const creditLine = {
          account: 'overdraft',
          interest: 'lost',
          limit: minor(400_000),
          rate: percent('9'),
          step: minor(1_000),
        };
        let lived: Lived = {
          book: { ...book, accounts: [...chart], cash: { ...book.cash, floor: minor(floor), creditLine } },
          blocks: new Map(blocks),
        };
        acts.forEach((a, turn) => {
          lived = done(lived, a, turn);
          const ground = groundOf(lived);
          expect([a.of, ...failing(ground)].filter((f) => !f.startsWith('itemsOver'))).toEqual([a.of]);
          const view = cashOf(ground, null)!;
          if (view.input.periods.length === 0) return;
          const ends = view.input.periods.map((p) => toDayNumber(p.end));
          const stands = closingsAt(view, ends);
          for (const [id, sums] of reckonedPlainly(lived, view)) {
            if (isProfitAndLoss(chart.find((x) => x.id === id)!.kind)) continue;
            expect([a.of, id, ...sums]).toEqual([a.of, id, ...(stands.get(id) ?? sums.map(() => 0))]);
          }
        });
      },
    ),
    { numRuns: RUNS },
  );
  if (process.env.RUNS) console.info(counts);
  // Enough of everything happened for it to say something.
  for (const n of Object.values(counts)) expect(n).toBeGreaterThan(0);
});
