import { minor, percent } from '@/core/money';
import { toDayNumber, type Day, type PeriodId } from '@/core/calendar';
import { bookFile } from '@/core/exchange/bookJson';
import { BlockBuilder, type LedgerBlock } from '@/core/ledger';
import {
  blankLine,
  newAccount,
  newBook,
  type Account,
  type Axis,
  type Book,
  type Budget,
  type Layout,
  type LayoutColumn,
  type Line,
  type Source,
} from '@/core/model';
import { asLastYear, draftBudget } from '@/core/plan';
import { shippedLayout } from '@/core/report';

/* Books of one size for measuring, as files that open. */

const SEGMENTS = Array.from({ length: 8 }, (_, i) => ({ id: `v${i}`, name: `Site ${i}`, from: [] }));

/** A book of 1,000 accounts with a year of actuals and a draft budget of them, as a file that opens. */
export function bigBook(large: boolean): string {
  const accounts: Account[] = Array.from({ length: 1000 }, (_, i) =>
    newAccount(
      `a${i}`,
      String(4000 + i),
      `Account ${i}`,
      i < 300 ? 'income' : i < 500 ? 'costOfSales' : 'expense',
    ),
  );
  const builder = new BlockBuilder(12000);
  accounts.forEach((a, i) => {
    for (let m = 0; m < 12; m++)
      builder.add(
        20089 + m * 30,
        i,
        (a.kind === 'income' ? -1 : 1) * (10_000 + ((i * 31 + m * 17) % 900) * 100),
        i + 2,
      );
  });
  const block = builder.build(
    'l1',
    accounts.map((a) => a.id),
  );
  const lines = accounts.map((a, i): Line => ({
    ...blankLine({ account: a.id, segment: null }),
    method:
      i >= 300 && i % 5 === 0
        ? {
            kind: 'share',
            of: { of: 'account', account: `a${i % 300}` },
            percent: percent('12.5'),
            lag: 0,
            round: 0,
          }
        : asLastYear(percent('3')),
  }));
  const book: Book = {
    ...newBook({
      id: large ? 'large' : 'bench',
      name: large ? 'Large' : 'Bench',
      currency: 'USD',
      locale: 'en-US',
      firstMonth: 1,
    }),
    accounts,
    axes: [{ id: 'x1', name: 'Site', columns: [], values: SEGMENTS, byAccount: {} }],
    closedThrough: '2025-12' as PeriodId,
    sources: [sourceOf(block, 'months', '2025-01-01', '2025-12-01')],
    budgets: [
      large
        ? largeBudget(accounts)
        : draftBudget({ id: 'b1', name: 'FY26 budget', first: '2026-01' as PeriodId, length: 12, lines }),
    ],
    nextId: 10,
  };
  return bookFile({ book, blocks: [block], journal: [] });
}

/** 1,000 accounts × 24 months × 8 segments, 200 lines following others. */
function largeBudget(accounts: readonly Account[]): Budget {
  const segments = SEGMENTS.map((s) => s.id);
  const months = [2026, 2027].flatMap((y) =>
    Array.from({ length: 12 }, (_, m) => `${y}-${String(m + 1).padStart(2, '0')}` as PeriodId),
  );
  const lines = segments.flatMap((segment, s) =>
    accounts.map((a, i): Line => ({
      ...blankLine({ account: a.id, segment }),
      method:
        i >= 300 && i % 28 === 0
          ? {
              kind: 'share',
              of: i % 56 === 0 ? { of: 'kind', kind: 'income' } : { of: 'account', account: `a${i % 300}` },
              percent: percent('12.5'),
              lag: 0,
              round: 0,
            }
          : {
              kind: 'byMonth',
              amounts: Object.fromEntries(months.map((p, m) => [p, minor(10_000 + i * 100 + s * 10 + m)])),
            },
    })),
  );
  return {
    ...draftBudget({ id: 'b0', name: 'Large budget', first: months[0]!, length: 24, lines }),
    axis: 'x1',
    segments,
  };
}

/** The source that a block came from. */
function sourceOf(block: LedgerBlock, shape: Source['shape'], firstDay: string, lastDay: string): Source {
  const sum = (sign: 1 | -1) => minor(block.amount.reduce((t, v) => t + Math.max(0, sign * v), 0));
  return {
    id: 's1',
    fileName: 'bench.csv',
    fingerprint: 'a'.repeat(64),
    sheet: null,
    takenAt: '2026-01-01T00:00:00Z',
    shape,
    format: 'delimited',
    heads: '',
    cursor: null,
    untied: null,
    openings: 0,
    closings: 0,
    controls: 0,
    mapping: {},
    block: block.id,
    rows: { read: block.count, used: block.count, leftOut: [] },
    entries: block.count,
    debit: sum(1),
    credit: sum(-1),
    firstDay: firstDay as Day,
    lastDay: lastDay as Day,
  };
}

/** A budget of 36 months whose 200 of 400 lines follow one driver, over a year of actuals with all three statements. */
export function drivenBook(): string {
  const accounts: Account[] = [
    newAccount('bank', '1000', 'Bank', 'bank'),
    newAccount('owed', '1100', 'Receivables', 'receivable'),
    newAccount('owing', '2000', 'Payables', 'payable'),
    newAccount('own', '3000', 'Owners', 'equity'),
    ...Array.from({ length: 400 }, (_, i) =>
      newAccount(`a${i}`, String(4000 + i), `Account ${i}`, i < 200 ? 'income' : 'expense'),
    ),
  ];
  const builder = new BlockBuilder(accounts.length * 24);
  for (let m = 0; m < 12; m++) {
    const day = toDayNumber(`2025-${String(m + 1).padStart(2, '0')}-15` as Day);
    for (let i = 0; i < 200; i++) {
      const [sold, spent] = [20_000 + ((i * 31 + m * 17) % 900) * 10, 15_000 + ((i * 13 + m) % 700) * 10];
      for (const [place, amount] of [
        [4 + i, -sold],
        [1, sold],
        [204 + i, spent],
        [2, -spent],
      ] as const)
        builder.add(day, place, amount, m + 2);
    }
  }
  const block = builder.build(
    'l1',
    accounts.map((a) => a.id),
  );
  const months = [2026, 2027, 2028].flatMap((y) =>
    Array.from({ length: 12 }, (_, m) => `${y}-${String(m + 1).padStart(2, '0')}` as PeriodId),
  );
  const lines = accounts.slice(4).map((a, i): Line => ({
    ...blankLine({ account: a.id, segment: null }),
    method: i % 2 ? { kind: 'driver', factors: ['d1'], round: 0 } : asLastYear(percent('3')),
  }));
  const budget: Budget = {
    ...draftBudget({ id: 'b1', name: 'Three years', first: months[0]!, length: 36, lines }),
    drivers: [
      {
        id: 'd1',
        name: 'Jobs',
        unit: 'jobs',
        decimals: 0,
        opening: null,
        series: { kind: 'typed', values: Object.fromEntries(months.map((p, m) => [p, 200 + m])) },
        note: '',
      },
    ],
  };
  const book: Book = {
    ...newBook({ id: 'driven', name: 'Driven', currency: 'USD', locale: 'en-US', firstMonth: 1 }),
    accounts,
    closedThrough: '2025-12' as PeriodId,
    sources: [sourceOf(block, 'entries', '2025-01-15', '2025-12-15')],
    budgets: [budget],
    nextId: 10,
  };
  return bookFile({ book, blocks: [block], journal: [] });
}

/** 1,000 accounts × 8 segments with a year and a half of actuals and a budget by segment, and a layout of 24 columns across them. */
export function wideBook(): string {
  const book = JSON.parse(bigBook(true)) as { book: Book };
  const { accounts } = book.book;
  const builder = new BlockBuilder(150_000, ['Site']);
  accounts.forEach((a, i) => {
    for (let m = 0; m < 18; m++)
      SEGMENTS.forEach((segment, s) => {
        const day = `${2025 + Math.floor(m / 12)}-${String(1 + (m % 12)).padStart(2, '0')}-15` as Day;
        const amount = 10_000 + ((i * 31 + m * 17 + s) % 900) * 100;
        builder.add(toDayNumber(day), i, a.kind === 'income' ? -amount : amount, i + 2);
        builder.segment(0, segment.name);
      });
  });
  const block = builder.build(
    'l1',
    accounts.map((a) => a.id),
  );
  const show = (s: LayoutColumn['show'], span: LayoutColumn['span']): LayoutColumn => ({
    show: s,
    against: 'first',
    span,
    hidden: false,
    unit: '',
  });
  const spans: readonly LayoutColumn['span'][] = [
    { of: 'month', back: 0 },
    { of: 'month', back: 1 },
    { of: 'quarter' },
    { of: 'toDate' },
    { of: 'rolling' },
    { of: 'year' },
  ];
  const layout: Layout = {
    ...shippedLayout('std-segments')!,
    id: 'y1',
    name: 'Wide',
    filter: 'all',
    segments: { axis: 'x1', place: 'across', values: [] },
    columns: spans.flatMap((span) =>
      (['actual', 'compared', 'difference', 'sense'] as const).map((s) => show(s, span)),
    ),
  };
  return bookFile({
    book: {
      ...book.book,
      id: 'wide',
      name: 'Wide',
      axes: [
        {
          id: 'x1',
          name: 'Site',
          columns: ['Site'],
          values: SEGMENTS.map((v) => ({ ...v, from: [v.name] })),
          byAccount: {},
        },
      ],
      closedThrough: '2026-06' as PeriodId,
      sources: [sourceOf(block, 'months', '2025-01-15', '2026-06-15')],
      layouts: [layout],
    },
    blocks: [block],
    journal: [],
  });
}

/** A million entries of two axes over 27 months, and four budgets: of the company, by either axis, and another version. */
export function handBook(): string {
  const accounts = Array.from({ length: 120 }, (_, i) =>
    newAccount(
      `a${i}`,
      String(4000 + i * 10),
      `Account ${i}`,
      i < 30 ? 'income' : i < 50 ? 'costOfSales' : i < 119 ? 'expense' : 'bank',
    ),
  );
  const axis = (id: string, name: string, count: number): Axis => ({
    id,
    name,
    columns: [name],
    values: Array.from({ length: count }, (_, i) => ({
      id: `${id}v${i}`,
      name: `${name} ${i}`,
      from: [`${name} ${i}`],
    })),
    byAccount: {},
  });
  const axes = [axis('x1', 'Site', 5), axis('x2', 'Activity', 4)];
  const builder = new BlockBuilder(
    1_000_000,
    axes.map((a) => a.name),
  );
  const start = toDayNumber('2024-01-01' as Day);
  for (let entry = 0; entry < 500_000; entry++) {
    const day = start + (entry % 820);
    const account = (entry * 7) % 119;
    const amount = 100 + ((entry * 7919) % 90_000);
    const side = accounts[account]!.kind === 'income' ? -1 : 1;
    for (const [place, signed] of [
      [account, side * amount],
      [119, -side * amount],
    ] as const) {
      builder.add(
        day,
        place,
        signed,
        entry * 2 + 2,
        builder.text(`Party ${entry % 997}`),
        builder.once(`J-${entry}`),
        builder.text(`Memo ${entry % 5003}`),
      );
      axes.forEach((a, n) => builder.segment(n, a.values[(entry + n) % a.values.length]!.name));
    }
  }
  const block = builder.build(
    'l1',
    accounts.map((a) => a.id),
  );
  const planned = accounts.slice(0, 119);
  const budget = (id: string, name: string, of: Axis | null): Budget => {
    const segments = of === null ? [null] : of.values.map((v) => v.id);
    return {
      ...draftBudget({
        id,
        name,
        first: '2026-01' as PeriodId,
        length: 12,
        lines: segments.flatMap((segment) =>
          planned.map((a): Line => ({
            ...blankLine({ account: a.id, segment }),
            method: asLastYear(percent('3')),
          })),
        ),
      }),
      ...(of === null ? {} : { axis: of.id, segments: of.values.map((v) => v.id) }),
    };
  };
  const book: Book = {
    ...newBook({ id: 'hand', name: 'Hand', currency: 'USD', locale: 'en-US', firstMonth: 1 }),
    accounts,
    axes,
    closedThrough: '2026-03' as PeriodId,
    sources: [sourceOf(block, 'entries', '2024-01-01', '2026-03-30')],
    budgets: [
      budget('b1', 'By activity budget', axes[1]!),
      budget('b2', 'Better budget', null),
      budget('b3', 'Company budget', null),
      budget('b4', 'By site budget', axes[0]!),
    ],
    nextId: 10,
  };
  return bookFile({ book, blocks: [block], journal: [] });
}
