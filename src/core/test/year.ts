import { fromDayNumber, toDayNumber, type DayNumber } from '@/core/calendar';
import type { BorneBy } from '@/core/cash';
import { closingsAt, runOffsOf, type CashView } from '@/core/ground';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import { isProfitAndLoss, type AccountId, type Book } from '@/core/model';
import { calendar, sourceOf } from './build';
import { lostOf, STAND_INS } from '@/core/schedule';

/* Lets time pass over a book: a month goes exactly as its projection has it. */

type Row = {
  readonly day: DayNumber;
  readonly account: AccountId;
  readonly amount: number;
  readonly reference: string;
  readonly party: string;
};

/** The projection's own postings up to a day, the credit line's moves among them, as entries with references. */
export function postedUntil(
  { projected, forecast, creditLine, input, items, bearers }: CashView,
  until: DayNumber,
): readonly Row[] {
  const rows: Row[] = [];
  const numbers = new Map(items.map((i) => [i.key, i.number]));
  const parties = new Map(items.map((i) => [i.key, i.counterparty]));
  for (const { key: full, postings } of projected.parts.values()) {
    const { columns: c, first, count } = postings;
    // What is pending of a line is of the same invoices as the line's own.
    const key = full.replace(/^pending /, '');
    for (let i = first; i < first + count; i++)
      if (c.day[i]! <= until)
        rows.push({
          day: c.day[i]!,
          account: bookedOn(projected.table.ids[c.account[i]!]!, c.day[i]!, bearers.borneBy),
          amount: c.amount[i]!,
          // What settles an invoice has its reference.
          reference: key.startsWith('item ') ? `${numbers.get(key.slice(5))}` : `${key} ${c.from[i]!}`,
          party: key.startsWith('item ') ? `${parties.get(key.slice(5))}` : key,
        });
  }
  const bank = input.bank ?? input.accounts.find((a) => a.kind === 'bank')!.id;
  for (const m of forecast.moves) {
    if (m.day > until) continue;
    const other =
      m.what === 'interest'
        ? bearers.borneBy(creditLine?.interest ?? STAND_INS.interest, m.day)
        : (creditLine?.account ?? STAND_INS.creditLine);
    const reference = `line ${m.day} ${m.what}`;
    rows.push({ day: m.day, account: bank, amount: m.amount, reference, party: '' });
    rows.push({ day: m.day, account: other, amount: -m.amount, reference, party: '' });
  }
  return rows;
}

/** The account that an entry is made on: what is lost stands with who bears it. */
const bookedOn = (account: AccountId, day: DayNumber, borneBy: BorneBy): AccountId => {
  const of = lostOf(account);
  return of === null ? account : borneBy(of, day);
};

/** Those entries as a block of the ledger. Without `told` they are what a trial balance by month tells: no parties, no references. */
export function blockOfMonth(view: CashView, until: DayNumber, id: string, told: boolean): LedgerBlock {
  const rows = [...postedUntil(view, until)].sort(
    (a, b) => a.day - b.day || (a.reference < b.reference ? -1 : a.reference > b.reference ? 1 : 0),
  );
  const builder = new BlockBuilder(rows.length);
  const accounts = view.input.accounts.map((a) => a.id);
  rows.forEach((r, i) => {
    const place = accounts.indexOf(r.account);
    if (place < 0) throw new Error(`No account ${r.account}`);
    builder.add(
      r.day,
      place,
      r.amount,
      i + 2,
      builder.text(told ? r.party : ''),
      builder.text(told ? r.reference : ''),
      builder.text(''),
    );
  });
  return builder.build(id, accounts);
}

/** The last day of the first planned period. */
export const firstEnd = ({ input }: CashView): DayNumber => toDayNumber(input.periods[0]!.end);

/** What a view tells of days: the bank by day, every account at the ends of periods, the returns of taxes, what did not come. */
export function told(view: CashView, from: DayNumber, until: DayNumber) {
  const { closing, start } = view.forecast;
  const bank = Array.from(
    { length: until - from + 1 },
    (_, i) => `${fromDayNumber(from + i)} ${closing[from + i - start - 1]}`,
  );
  const ends = view.input.periods.map((p) => toDayNumber(p.end)).filter((d) => d >= from && d <= until);
  const standing = closingsAt(view, [from - 1, ...ends]);
  const balances: Record<string, string[]> = {};
  for (const a of view.input.accounts) {
    const stands = standing.get(a.id) ?? [];
    // What stood in accounts of profit and loss before the start is no balance.
    const begin = isProfitAndLoss(a.kind) && from - 1 > start ? (stands[0] ?? 0) : 0;
    balances[a.id] = ends.map((d, i) => `${fromDayNumber(d)} ${(stands[i + 1] ?? 0) - begin}`);
  }
  return {
    bank,
    balances,
    missed: view.missed.map((m) => `${m.name} ${fromDayNumber(m.day)}`),
    returns: view.projected.returns
      .filter((r) => r.due > from && r.due <= until && r.to <= until)
      .map((r) => `${fromDayNumber(r.due)} ${r.owed}`),
  };
}

type Blocks = ReadonlyMap<string, LedgerBlock>;

/**
 * Closes months one after another, each as the projection has it (`look` is it): after each, what is told of later days, and what
 * was told of them before. `parties`: as entries with parties and references, not as balances.
 */
export function* closings(
  begin: Book,
  begins: Blocks,
  count: number,
  look: (book: Book, blocks: Blocks) => CashView,
  parties: boolean,
) {
  let [book, blocks] = [begin, begins];
  let before = look(book, blocks);
  for (let n = 1; n <= count; n++) {
    const end = firstEnd(before);
    const block = blockOfMonth(before, end, `l${n}`, parties);
    blocks = new Map([...blocks, [block.id, block]]);
    book = {
      ...book,
      cash: { ...book.cash, runOffEnds: runOffsOf(before) },
      sources: [
        ...book.sources,
        sourceOf({ id: `s${n}`, block: block.id, fingerprint: String(n).padStart(64, '0') }),
      ],
      closedThrough: calendar.period(calendar.indexOfDay(end)).id,
    };
    const after = look(book, blocks);
    const last = Math.min(
      toDayNumber(before.input.periods.at(-1)!.end),
      toDayNumber(after.input.periods.at(-1)!.end),
    );
    const of = (view: CashView) => ({ closed: n, ...told(view, end + 1, last) });
    yield [of(after), of(before)] as const;
    before = after;
  }
}
