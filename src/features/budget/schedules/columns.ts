import { dateOrderOf, fiscalYearsLabel, fromDayNumber, type Day, type Period } from '@/core/calendar';
import { parseDate } from '@/core/intake';
import {
  LIMITS,
  type Account,
  type Book,
  type RowOf,
  type ScheduleKind,
  type ScheduleRow,
} from '@/core/model';
import { minor, minorDigits, numberFormatOf, parsePercent, readTyped, type Minor } from '@/core/money';
import { accountsFor, type Purpose } from '@/core/schedule';
import { readScaled } from '@/components/readScaled';
import type { FieldColumn } from './FieldTable';

/* The columns of each schedule's table, what is typed into them, and how a pasted block is laid over them. */

type Columns<K extends ScheduleKind> = readonly FieldColumn<RowOf<K>>[];

export type ColumnGround = {
  readonly book: Book;
  readonly periods: readonly Period[];
  /** What a row comes to in the budget's months, in words. */
  readonly comesTo: (row: ScheduleRow) => string;
};

const name = <R extends { readonly name: string }>(label: string): FieldColumn<R> => ({
  as: 'text',
  key: 'name',
  label,
  most: LIMITS.accountName,
  of: (r) => r.name,
  set: (r, text) => ({ ...r, name: text }),
});

const optionsOf = (accounts: readonly Account[]) =>
  accounts.map((a) => ({ value: a.id, label: a.code ? `${a.code} ${a.name}` : a.name }));

/** The accounts that may serve a purpose, and the one that is there, whatever it is. */
const choiceOf = (book: Book, purpose: Purpose, own: string) => {
  const all = accountsFor(book.accounts, purpose);
  const there = all.some((a) => a.id === own) ? [] : book.accounts.filter((a) => a.id === own);
  return optionsOf([...there, ...all]);
};

const amount = (a: Minor | null): Minor | null => (a === null ? minor(0) : a < 0 ? null : a);

const year = ({ periods }: ColumnGround) => fiscalYearsLabel(periods);

const PER: Record<RowOf<'staff'>['pay']['per'], string> = {
  year: 'a year',
  month: 'a month',
  payday: 'a payday',
  hour: 'an hour',
};

/** The same pay by another measure; hours of a full month where none are said. */
export function payBy(
  { pay }: Pick<RowOf<'staff'>, 'pay'>,
  per: RowOf<'staff'>['pay']['per'],
): RowOf<'staff'>['pay'] {
  if (per === 'hour')
    return pay.per === 'hour' ? pay : { per, amount: pay.amount, hours: { of: 'month', hours: 16_000 } };
  return { per, amount: pay.amount };
}

const REPAY: Record<RowOf<'loan'>['repay']['of'], string> = {
  level: 'level payments',
  principal: 'level principal',
  interestOnly: 'interest only',
  atEnd: 'all at the end',
  typed: 'as typed',
};

/** A loan repaid in another way. */
export function repaidAs(row: RowOf<'loan'>, of: RowOf<'loan'>['repay']['of']): RowOf<'loan'>['repay'] {
  if (of === row.repay.of) return row.repay;
  if (of === 'level') return { of, payment: null };
  return of === 'typed' ? { of, amounts: [{ day: row.first, amount: row.begins.amount }] } : { of };
}

const WAYS: Record<RowOf<'asset'>['way']['of'], string> = {
  straight: 'months, evenly',
  declining: '% of what is left',
  none: 'not used up',
};

export const wayAs = (row: RowOf<'asset'>, of: RowOf<'asset'>['way']['of']): RowOf<'asset'>['way'] =>
  of === row.way.of
    ? row.way
    : of === 'straight'
      ? { of, months: 60 }
      : of === 'declining'
        ? { of, rate: parsePercent('20')! }
        : { of };

const WHAT: Record<RowOf<'equity'>['what'], string> = {
  paidIn: 'paid in',
  drawn: 'drawn',
  dividend: 'dividend',
};

const options = <K extends string>(words: Record<K, string>) =>
  (Object.keys(words) as K[]).map((value) => ({ value, label: words[value] }));

const COLUMNS: { readonly [K in ScheduleKind]: (ground: ColumnGround) => Columns<K> } = {
  staff: (g) => [
    name('Position or name'),
    {
      as: 'hundredths',
      key: 'count',
      label: 'How many',
      of: (r) => r.count,
      set: (r, n) => (n === null || n < 0 ? null : { ...r, count: n }),
    },
    {
      as: 'money',
      key: 'pay',
      label: 'Pay',
      of: (r) => r.pay.amount,
      set: (r, a) => (amount(a) === null ? null : { ...r, pay: { ...r.pay, amount: amount(a)! } }),
    },
    {
      as: 'choice',
      key: 'per',
      label: '',
      options: () => options(PER),
      of: (r) => r.pay.per,
      set: (r, per) => ({ ...r, pay: payBy(r, per as RowOf<'staff'>['pay']['per']) }),
    },
    { as: 'day', key: 'from', label: 'From', of: (r) => r.from, set: (r, from) => ({ ...r, from }) },
    { as: 'day', key: 'until', label: 'Until', of: (r) => r.until, set: (r, until) => ({ ...r, until }) },
    {
      as: 'choice',
      key: 'account',
      label: 'Line',
      options: (r) => choiceOf(g.book, 'wages', r.account),
      of: (r) => r.account,
      set: (r, account) => ({ ...r, account }),
    },
    { as: 'shown', key: 'sum', label: `Whole cost, ${year(g)}`, text: g.comesTo },
  ],
  loan: (g) => [
    name('Loan'),
    {
      as: 'choice',
      key: 'begins',
      label: '',
      options: () => [
        { value: 'stands', label: 'stands at' },
        { value: 'drawn', label: 'is drawn' },
      ],
      of: (r) => r.begins.of,
      set: (r, of) => ({ ...r, begins: { ...r.begins, of: of as 'stands' } }),
    },
    {
      as: 'money',
      key: 'amount',
      label: 'Amount',
      of: (r) => r.begins.amount,
      set: (r, a) => (amount(a) === null ? null : { ...r, begins: { ...r.begins, amount: amount(a)! } }),
    },
    {
      as: 'day',
      key: 'day',
      label: 'On',
      of: (r) => r.begins.day,
      set: (r, day) => day && { ...r, begins: { ...r.begins, day } },
    },
    { as: 'percent', key: 'rate', label: 'A year', of: (r) => r.rate, set: (r, rate) => ({ ...r, rate }) },
    {
      as: 'choice',
      key: 'repay',
      label: 'Repaid by',
      options: () => options(REPAY),
      of: (r) => r.repay.of,
      set: (r, of) => ({ ...r, repay: repaidAs(r, of as 'level') }),
    },
    {
      as: 'day',
      key: 'first',
      label: 'First payment',
      of: (r) => r.first,
      set: (r, first) => first && { ...r, first },
    },
    {
      as: 'whole',
      key: 'payments',
      label: 'Payments',
      least: 1,
      most: 600,
      of: (r) => r.payments,
      set: (r, payments) => ({ ...r, payments }),
    },
    { as: 'shown', key: 'sum', label: `Interest, ${year(g)}`, text: g.comesTo },
  ],
  asset: (g) => [
    name('Asset'),
    {
      as: 'day',
      key: 'bought',
      label: 'In use from',
      of: (r) => r.bought,
      set: (r, bought) => bought && { ...r, bought },
    },
    {
      as: 'money',
      key: 'cost',
      label: 'Cost',
      of: (r) => r.cost,
      set: (r, a) => (amount(a) === null ? null : { ...r, cost: amount(a)! }),
    },
    {
      as: 'text',
      most: 12,
      key: 'life',
      label: 'Used up over',
      of: (r) =>
        r.way.of === 'straight' ? String(r.way.months) : r.way.of === 'declining' ? r.way.rate : '',
      set: (r, text) => {
        if (r.way.of === 'straight') {
          const months = Number(text);
          return Number.isInteger(months) && months >= 1 && months <= 1200
            ? { ...r, way: { of: 'straight', months } }
            : null;
        }
        const rate = r.way.of === 'declining' ? parsePercent(text) : null;
        return rate === null ? null : { ...r, way: { of: 'declining', rate } };
      },
    },
    {
      as: 'choice',
      key: 'way',
      label: '',
      options: () => options(WAYS),
      of: (r) => r.way.of,
      set: (r, of) => ({ ...r, way: wayAs(r, of as 'straight') }),
    },
    {
      as: 'money',
      key: 'residual',
      label: 'Worth then',
      of: (r) => r.residual,
      set: (r, a) => (amount(a) === null ? null : { ...r, residual: amount(a)! }),
    },
    {
      as: 'choice',
      key: 'account',
      label: 'Account',
      options: (r) => choiceOf(g.book, 'asset', r.account),
      of: (r) => r.account,
      set: (r, account) => ({ ...r, account }),
    },
    { as: 'shown', key: 'sum', label: `Written off, ${year(g)}`, text: g.comesTo },
  ],
  release: (g) => [
    name('What for'),
    {
      as: 'choice',
      key: 'account',
      label: 'Line',
      options: () => optionsOf(g.book.accounts.filter((a) => a.active && PROFIT.has(a.kind))),
      of: (r) => r.account,
      set: (r, account) => ({ ...r, account }),
    },
    {
      as: 'choice',
      key: 'against',
      label: 'Stands on',
      options: (r) => [
        ...choiceOf(g.book, 'prepaid', r.against),
        ...optionsOf(accountsFor(g.book.accounts, 'deferred').filter((a) => a.id !== r.against)),
      ],
      of: (r) => r.against,
      set: (r, against) => ({ ...r, against }),
    },
    {
      as: 'money',
      key: 'amount',
      label: 'Amount',
      of: (r) => r.amount,
      set: (r, a) => (amount(a) === null ? null : { ...r, amount: amount(a)! }),
    },
    {
      as: 'choice',
      key: 'from',
      label: 'From',
      options: (r) => {
        const all = g.periods.map((p) => ({ value: p.id as string, label: p.label }));
        return all.some((o) => o.value === r.from) ? all : [{ value: r.from, label: r.from }, ...all];
      },
      of: (r) => r.from,
      set: (r, from) => ({ ...r, from: from as RowOf<'release'>['from'] }),
    },
    {
      as: 'whole',
      key: 'months',
      label: 'Months',
      least: 1,
      most: 600,
      of: (r) => r.months,
      set: (r, months) => ({ ...r, months }),
    },
    { as: 'shown', key: 'sum', label: year(g), text: g.comesTo },
  ],
  incomeTax: (g) => [
    name('Tax'),
    { as: 'percent', key: 'rate', label: 'Of profit', of: (r) => r.rate, set: (r, rate) => ({ ...r, rate }) },
    {
      as: 'money',
      key: 'losses',
      label: 'Losses brought forward',
      of: (r) => r.losses,
      set: (r, a) => (amount(a) === null ? null : { ...r, losses: amount(a)! }),
    },
    {
      as: 'choice',
      key: 'account',
      label: 'Line',
      options: (r) => choiceOf(g.book, 'tax', r.account),
      of: (r) => r.account,
      set: (r, account) => ({ ...r, account }),
    },
    { as: 'shown', key: 'sum', label: `Tax, ${year(g)}`, text: g.comesTo },
  ],
  equity: (g) => [
    name('What for'),
    {
      as: 'choice',
      key: 'what',
      label: '',
      options: () => options(WHAT),
      of: (r) => r.what,
      set: (r, what) => ({ ...r, what: what as 'drawn' }),
    },
    {
      as: 'money',
      key: 'amount',
      label: 'Amount',
      of: (r) => r.amount,
      set: (r, a) => (amount(a) === null ? null : { ...r, amount: amount(a)! }),
    },
    {
      as: 'day',
      key: 'first',
      label: 'First on',
      of: (r) => r.first,
      set: (r, first) => first && { ...r, first },
    },
    {
      as: 'choice',
      key: 'repeat',
      label: 'Then',
      options: () => [
        { value: '', label: 'once only' },
        { value: '1', label: 'every month' },
        { value: '3', label: 'every quarter' },
        { value: '6', label: 'every half year' },
        { value: '12', label: 'every year' },
      ],
      of: (r) => (r.repeat === null || r.repeat.unit !== 'months' ? '' : String(r.repeat.every)),
      set: (r, every) => ({
        ...r,
        repeat: every === '' ? null : { every: Number(every), unit: 'months', until: null, times: null },
      }),
    },
    {
      as: 'choice',
      key: 'account',
      label: 'Account',
      options: (r) => choiceOf(g.book, 'equity', r.account),
      of: (r) => r.account,
      set: (r, account) => ({ ...r, account }),
    },
    { as: 'shown', key: 'sum', label: year(g), text: g.comesTo },
  ],
};

const PROFIT: ReadonlySet<Account['kind']> = new Set([
  'income',
  'costOfSales',
  'expense',
  'otherIncome',
  'otherExpense',
]);

/** The columns of a schedule's table. */
export const columnsOf = (kind: ScheduleKind, ground: ColumnGround): readonly FieldColumn<ScheduleRow>[] =>
  COLUMNS[kind](ground) as unknown as readonly FieldColumn<ScheduleRow>[];

/** A text as a value of a column; undefined where it is none. */
function valueOf(column: FieldColumn<ScheduleRow>, row: ScheduleRow, text: string, book: Book): unknown {
  switch (column.as) {
    case 'text':
      return text.trim() === '' ? undefined : text.trim();
    case 'money': {
      const read = readTyped(text, minorDigits(book.currency), numberFormatOf(book.locale));
      return read.ok && !read.percent ? read.value : undefined;
    }
    case 'percent':
      return parsePercent(text) ?? undefined;
    case 'day': {
      if (text.trim() === '') return null;
      const n = parseDate(text, dateOrderOf(book.locale));
      return n === null ? undefined : (fromDayNumber(n) satisfies Day);
    }
    case 'whole':
      return /^\d{1,4}$/.test(text.trim()) && Number(text) >= column.least && Number(text) <= column.most
        ? Number(text)
        : undefined;
    case 'hundredths':
      return readScaled(text, 2, book.locale)?.value ?? undefined;
    case 'choice': {
      const low = text.trim().toLowerCase();
      return column
        .options(row)
        .find(
          (o) =>
            o.value.toLowerCase() === low ||
            o.label.toLowerCase() === low ||
            o.label.toLowerCase().endsWith(` ${low}`),
        )?.value;
    }
    case 'shown':
      return undefined;
  }
}

/**
 * A block of text laid over rows from a field on: rows beyond the last are made by `fresh`. A text that a field cannot hold
 * stops the whole paste and is named; what reaches beyond the columns is counted.
 */
export function pasted(
  columns: readonly FieldColumn<ScheduleRow>[],
  rows: readonly ScheduleRow[],
  at: { readonly row: number; readonly column: number },
  block: readonly (readonly string[])[],
  book: Book,
  fresh: (i: number) => ScheduleRow,
): { readonly rows: readonly ScheduleRow[]; readonly leftOut: number } | { readonly trouble: string } {
  const out: ScheduleRow[] = [];
  let leftOut = 0;
  for (const [r, texts] of block.entries()) {
    if (texts.every((t) => t.trim() === '')) continue;
    let row = rows[at.row + r] ?? fresh(at.row + r - rows.length);
    for (const [c, text] of texts.entries()) {
      const column = columns[at.column + c];
      if (!column || column.as === 'shown') {
        leftOut += 1;
        continue;
      }
      const value = valueOf(column, row, text, book);
      const next =
        value === undefined
          ? null
          : (column.set as (row: ScheduleRow, v: unknown) => ScheduleRow | null)(row, value);
      if (next === null)
        return {
          trouble: `“${text}” does not go under “${column.label || column.key}”. Nothing was pasted.`,
        };
      row = next;
    }
    out.push(row);
  }
  return { rows: out, leftOut };
}
