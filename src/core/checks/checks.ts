import { plus, minor, plainDecimal, type Minor } from '@/core/money';
import {
  isProfitAndLoss,
  profitSign,
  ownerOf,
  type AccountId,
  type Book,
  type Budget,
  type LineRef,
  type SegmentId,
} from '@/core/model';
import { ACTIVITY, sidesOff, totalsOf, type Balances, type LedgerBlock } from '@/core/ledger';
import { openingChecks } from './openingChecks';
import { wholeRow, type Figures } from '@/core/plan';
import { fillStatement, statementRows } from '@/core/report';

export type CheckCode =
  | 'debitsCredits'
  | 'tieOut'
  | 'untied'
  | 'openings'
  | 'balances'
  | 'monthsToYears'
  | 'subtotals'
  | 'lineAccounts'
  /** Of the money ahead. */
  | 'cashOpening'
  | 'cashPostings'
  | 'cashBalanced'
  | 'itemsTie'
  | 'itemsOver'
  | 'listOfDay'
  | 'plannedCame'
  | 'profitOne'
  | 'madeInPlan'
  /** What a bank says comes to what the ledger and its movements do; movements of every day are known; it is used at all. */
  | 'bankTies'
  | 'bankKnown'
  | 'bankUsed'
  /** A bank account keeps the floor of its own. */
  | 'bankFloor'
  | 'debtsPaid'
  | 'floorKept'
  /** Of the statements. */
  | 'flowTies'
  | 'sheetBalances'
  | 'covenantKept'
  | 'covenantKnown'
  /** Of schedules. */
  | 'schedulesTie'
  | 'schedulesMade';

/** A rule that must hold, with what breaks it. */
export type Check = {
  readonly code: CheckCode;
  /** What it was applied to: a file's name, a budget's name, or empty for the book. */
  readonly subject: string;
  /** The budget that goes on after the closed months, of what is ahead. */
  readonly plan?: string;
  readonly holds: boolean;
  /** What does not hold is no fault of the book, but something to know. */
  readonly notice?: boolean;
  /** The difference or names that break it, in plain figures; empty when it holds. */
  readonly detail: string;
};

export type CheckInput = {
  readonly book: Book;
  readonly blocks: ReadonlyMap<string, LedgerBlock>;
  readonly balances: Balances;
  /** Amounts of each budget's lines as the screens show them. */
  readonly budgets: readonly {
    readonly id: string;
    readonly name: string;
    readonly width: number;
    readonly lines: readonly LineRef[];
    readonly covers: Budget['covers'];
    /** An account's figures, in one segment or over all of them. */
    readonly figures: (account: AccountId, segment: SegmentId | 'all') => Figures | null;
  }[];
};

/** Runs every check on the open book. Each reckons by another way than the figure it checks. */
export function runChecks(input: CheckInput): Check[] {
  return [
    ...sourceChecks(input),
    ...openingChecks(input),
    ...ledgerChecks(input),
    ...input.budgets.flatMap((b) => budgetChecks(input, b)),
  ];
}

function sourceChecks({ book, blocks }: CheckInput): Check[] {
  return book.sources.flatMap((source): Check[] => {
    const block = blocks.get(source.block);
    const totals = block ? totalsOf(block) : null;
    const tie =
      totals !== null &&
      block!.count === source.entries &&
      totals.debit === source.debit &&
      totals.credit === source.credit;
    const out: Check[] = [
      {
        code: 'tieOut',
        subject: source.fileName,
        holds: tie,
        detail: tie ? '' : `${block?.count ?? 0} of ${source.entries}`,
      },
    ];
    if (source.untied)
      out.push({
        code: 'untied',
        subject: source.fileName,
        holds: false,
        detail: source.untied.faults.join(', '),
      });
    if (source.shape !== 'months' && !source.oneSided && block) {
      const off = sidesOff(block, source.shape);
      out.push({
        code: 'debitsCredits',
        subject: source.fileName,
        holds: off === 0,
        detail: off === 0 ? '' : plainDecimal(off, book.currency),
      });
    }
    return out;
  });
}

/** The balances by account and period against a plain addition of all entries. */
function ledgerChecks({ book, blocks, balances }: CheckInput): Check[] {
  if (!balances.range) return [];
  let straight = 0;
  for (const s of book.sources) {
    const block = blocks.get(s.block);
    block?.amount.forEach((a, i) => {
      if (block.mark[i] === ACTIVITY) straight = plus(straight, a);
    });
  }
  let byCell = 0;
  const known = new Set(book.accounts.map((a) => a.id));
  const owner = ownerOf(book.merged);
  const strays = new Set<string>();
  for (const s of book.sources)
    for (const a of blocks.get(s.block)?.accounts ?? []) if (!known.has(owner(a))) strays.add(a);
  for (const id of known)
    for (let p = balances.range.first; p <= balances.range.last; p++)
      byCell = plus(byCell, balances.movement(id, p) ?? 0);
  const off = minor(straight - byCell);
  return [
    {
      code: 'balances',
      subject: '',
      holds: off === 0,
      detail: off === 0 ? '' : plainDecimal(off, book.currency),
    },
    { code: 'lineAccounts', subject: '', holds: strays.size === 0, detail: [...strays].join(', ') },
  ];
}

function budgetChecks({ book }: CheckInput, budget: CheckInput['budgets'][number]): Check[] {
  const { width } = budget;
  const accounts = [...new Set(budget.lines.map((l) => l.account))];
  const wholesOf = accounts.reduce((n, id) => Math.max(n, budget.figures(id, 'all')?.wholes.length ?? 0), 0);
  const rows = statementRows(book.accounts);
  const filled = fillStatement(rows, width + wholesOf, (id) => wholeRow(budget.figures(id, 'all'), wholesOf));
  const sumOf = (values: readonly (Minor | null)[]) => values.reduce<number>((t, v) => plus(t, v ?? 0), 0);
  const net = rows.length ? filled.at(-1)! : [];
  const kinds = new Map(book.accounts.map((a) => [a.id, a.kind]));
  // Line by line and segment by segment, against the statement over all of them.
  let years = 0;
  const byMonth = new Array<number>(width).fill(0);
  for (const { account, segment } of budget.lines) {
    const kind = kinds.get(account);
    const figures = budget.figures(account, segment);
    if (!kind || !isProfitAndLoss(kind) || !figures) continue;
    years = plus(years, profitSign(kind) * plus(sumOf(figures.amounts), sumOf(figures.wholes)));
    figures.amounts.forEach((a, i) => (byMonth[i] = plus(byMonth[i]!, profitSign(kind) * (a ?? 0))));
  }
  const monthsOff = minor(years - sumOf(net));
  const subtotalsOff = byMonth.filter((v, i) => v !== (net[i] ?? 0)).length;
  const homeless = accounts.filter((id) => !kinds.has(id));
  return [
    {
      code: 'monthsToYears',
      subject: budget.name,
      holds: monthsOff === 0,
      detail: monthsOff === 0 ? '' : plainDecimal(monthsOff, book.currency),
    },
    {
      code: 'subtotals',
      subject: budget.name,
      holds: subtotalsOff === 0,
      detail: subtotalsOff === 0 ? '' : String(subtotalsOff),
    },
    { code: 'lineAccounts', subject: budget.name, holds: homeless.length === 0, detail: homeless.join(', ') },
  ];
}
