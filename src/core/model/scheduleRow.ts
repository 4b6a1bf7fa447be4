import * as z from 'zod/mini';
import { list, text, whole } from '@/core/bounded';
import { dueRuleSchema, repeatSchema } from './cash';
import { LIMITS } from './limits';
import { occurrenceSchema } from './methods';
import { dayText, id, money, percentText, periodId } from './parts';

/* Rows of schedules: each makes several lines of its budget, and the postings behind them. */

const account = z.nullable(id);
const positive = money.check(z.gte(0)) as typeof money;
const base = { id, name: text(LIMITS.accountName), note: text(LIMITS.note) };
/** A value of the budget's axis; null for the whole company. */
const segment = z.nullable(id);
const moved = z.enum(['stays', 'next', 'previous']);

const staffSchema = z.strictObject({
  kind: z.literal('staff'),
  ...base,
  account: id,
  /** Where the employer's on-costs go; null: with the pay. */
  oncostAccount: account,
  /** What is withheld, and the on-costs, until they are due; null for the usual account. */
  through: account,
  bank: account,
  /** Hundredths of a full position: 150 is one and a half. */
  count: whole(0, 10_000_000),
  pay: z.discriminatedUnion('per', [
    z.strictObject({ per: z.literal('year'), amount: positive }),
    z.strictObject({ per: z.literal('month'), amount: positive }),
    z.strictObject({ per: z.literal('payday'), amount: positive }),
    z.strictObject({
      per: z.literal('hour'),
      amount: positive,
      hours: z.discriminatedUnion('of', [
        /** Hundredths of an hour a month. */
        z.strictObject({ of: z.literal('month'), hours: whole(0, 10_000_000) }),
        z.strictObject({ of: z.literal('driver'), driver: id }),
      ]),
    }),
  ]),
  /** First and last day of work; null: always. */
  from: z.nullable(dayText),
  until: z.nullable(dayText),
  raises: list(
    z.strictObject({
      from: dayText,
      change: z.discriminatedUnion('of', [
        z.strictObject({ of: z.literal('percent'), percent: percentText }),
        z.strictObject({ of: z.literal('amount'), amount: money }),
      ]),
    }),
    0,
    40,
  ),
  paydays: occurrenceSchema,
  moved,
  oncosts: list(
    z.strictObject({
      name: text(LIMITS.accountName),
      percent: percentText,
      /** Of so much pay of one full position in a year at most. */
      cap: z.nullable(positive),
      /** The year of the cap: the fiscal one, or one that begins in a calendar month. */
      year: z.union([z.literal('fiscal'), whole(1, 12)]),
      /** Of pay from a day on, or up to one; else always. */
      from: z.optional(z.nullable(dayText)),
      until: z.optional(z.nullable(dayText)),
    }),
    0,
    12,
  ),
  /** What of the pay is withheld, and when it and the on-costs are due after the payday. */
  withheld: percentText.check(z.refine((p) => Number(p) >= 0 && Number(p) <= 100, 'not between 0 and 100 %')),
  remitted: dueRuleSchema,
  /** What she needs when she comes: tools, a desk. */
  once: list(z.strictObject({ account: id, name: text(LIMITS.accountName), amount: positive }), 0, 12),
  /** Whose cost it is. */
  split: list(z.strictObject({ segment, percent: percentText }), 1, 40).check(
    z.refine(
      (all) => Math.round(all.reduce((t, s) => t + Number(s.percent), 0) * 1e6) === 100e6,
      'shares do not come to 100 %',
    ),
  ),
});

const dayAmounts = list(z.strictObject({ day: dayText, amount: positive }), 0, 600);

const loanSchema = z.strictObject({
  kind: z.literal('loan'),
  ...base,
  account: id,
  interest: id,
  /** Where interest stands from month to month until it is paid; null: it counts in the month in which it is paid. */
  accrued: account,
  bank: account,
  segment,
  /** It stands at so much at the end of a day, or is drawn on it. */
  begins: z.strictObject({ of: z.enum(['stands', 'drawn']), day: dayText, amount: positive }),
  /** Yearly rate in percent, and other ones from a day on. */
  rate: percentText,
  rates: list(z.strictObject({ from: dayText, rate: percentText }), 0, 60),
  repay: z.discriminatedUnion('of', [
    /** One payment time after time; as the lender says it, or reckoned. */
    z.strictObject({ of: z.literal('level'), payment: z.nullable(positive) }),
    z.strictObject({ of: z.literal('principal') }),
    z.strictObject({ of: z.literal('interestOnly') }),
    z.strictObject({ of: z.literal('atEnd') }),
    /** Principal paid as it was agreed, with the interest up to each day. */
    z.strictObject({ of: z.literal('typed'), amounts: dayAmounts }),
  ]),
  /** The first payment, months from one to the next, how many there are, and of how many interest alone is paid. */
  first: dayText,
  every: z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(6), z.literal(12)]),
  payments: whole(1, 600),
  grace: whole(0, 600),
  days: z.enum(['30/360', 'actual/365']),
  extra: dayAmounts,
  /** What an extra repayment does: fewer payments, or smaller ones. */
  afterExtra: z.enum(['shorter', 'lower']),
});

const assetSchema = z.strictObject({
  kind: z.literal('asset'),
  ...base,
  account: id,
  expense: id,
  accumulated: account,
  segment,
  bought: dayText,
  cost: positive,
  /** What was written off by the end of a day, as the ledger has it, and the months left then; null: reckoned from the start. */
  standing: z.nullable(z.strictObject({ day: dayText, accumulated: positive, months: whole(0, 1200) })),
  residual: positive,
  way: z.discriminatedUnion('of', [
    z.strictObject({ of: z.literal('straight'), months: whole(1, 1200) }),
    /** So many percent a year of what it stands at when a fiscal year begins. */
    z.strictObject({ of: z.literal('declining'), rate: percentText }),
    /** Land. */
    z.strictObject({ of: z.literal('none') }),
  ]),
  paid: z.strictObject({ due: dueRuleSchema, through: account, bank: account }),
  tax: z.nullable(z.strictObject({ scheme: id, rate: percentText })),
  sold: z.nullable(z.strictObject({ day: dayText, price: positive, gain: account })),
});

/** What the ledger has paid or received in advance, and the months that it belongs to. */
const releaseSchema = z.strictObject({
  kind: z.literal('release'),
  ...base,
  account: id,
  against: id,
  segment,
  amount: positive,
  from: periodId,
  months: whole(1, 600),
});

const incomeTaxSchema = z.strictObject({
  kind: z.literal('incomeTax'),
  ...base,
  account: id,
  payable: account,
  bank: account,
  segment,
  rate: percentText,
  /** Other rates, of the fiscal years from that of a period on. */
  rates: z.optional(list(z.strictObject({ from: periodId, rate: percentText }), 0, 60)),
  /** Losses of years before the budget that are not used up. */
  losses: positive,
  /** Paid in advance: so many months after the fiscal year's first, on a day. */
  installments: list(z.strictObject({ months: whole(0, 36), day: whole(1, 31), amount: positive }), 0, 24),
  /** When the rest is due after the fiscal year's end. */
  due: dueRuleSchema,
});

const equitySchema = z.strictObject({
  kind: z.literal('equity'),
  ...base,
  account: id,
  bank: account,
  what: z.enum(['paidIn', 'drawn', 'dividend']),
  amount: positive,
  first: dayText,
  repeat: z.nullable(repeatSchema),
});

export const scheduleRowSchema = z.discriminatedUnion('kind', [
  staffSchema,
  loanSchema,
  assetSchema,
  releaseSchema,
  incomeTaxSchema,
  equitySchema,
]);

export type ScheduleRow = z.infer<typeof scheduleRowSchema>;
export type ScheduleKind = ScheduleRow['kind'];
export type RowOf<K extends ScheduleKind> = Extract<ScheduleRow, { kind: K }>;

type Rename = (account: string) => string;
const one = (name: string | null, rename: Rename): string | null => (name === null ? null : rename(name));

/** Every kind of row names its accounts here, or the program does not compile. */
const RENAMED: { readonly [K in ScheduleKind]: (row: RowOf<K>, rename: Rename) => RowOf<K> } = {
  staff: (r, rename) => ({
    ...r,
    account: rename(r.account),
    oncostAccount: one(r.oncostAccount, rename),
    through: one(r.through, rename),
    bank: one(r.bank, rename),
    once: r.once.map((o) => ({ ...o, account: rename(o.account) })),
  }),
  loan: (r, rename) => ({
    ...r,
    account: rename(r.account),
    interest: rename(r.interest),
    accrued: one(r.accrued, rename),
    bank: one(r.bank, rename),
  }),
  asset: (r, rename) => ({
    ...r,
    account: rename(r.account),
    expense: rename(r.expense),
    accumulated: one(r.accumulated, rename),
    paid: { ...r.paid, through: one(r.paid.through, rename), bank: one(r.paid.bank, rename) },
    sold: r.sold && { ...r.sold, gain: one(r.sold.gain, rename) },
  }),
  release: (r, rename) => ({ ...r, account: rename(r.account), against: rename(r.against) }),
  incomeTax: (r, rename) => ({
    ...r,
    account: rename(r.account),
    payable: one(r.payable, rename),
    bank: one(r.bank, rename),
  }),
  equity: (r, rename) => ({ ...r, account: rename(r.account), bank: one(r.bank, rename) }),
};

/** A row with other accounts named. */
export const renamedRow = (row: ScheduleRow, rename: Rename): ScheduleRow =>
  (RENAMED[row.kind] as (row: ScheduleRow, rename: Rename) => ScheduleRow)(row, rename);

/** Every account that a row names. */
export function accountsOfRow(row: ScheduleRow): ReadonlySet<string> {
  const named = new Set<string>();
  renamedRow(row, (account) => {
    named.add(account);
    return account;
  });
  return named;
}

/** The segments that a row's costs belong to. */
export const segmentsOfRow = (row: ScheduleRow): readonly (string | null)[] =>
  row.kind === 'staff' ? row.split.map((s) => s.segment) : row.kind === 'equity' ? [null] : [row.segment];

/** The accounts of profit and loss whose lines a row makes. */
export function linesOfRow(row: ScheduleRow): readonly string[] {
  switch (row.kind) {
    case 'staff':
      return [
        row.account,
        ...(row.oncosts.length > 0 && row.oncostAccount !== null ? [row.oncostAccount] : []),
        ...row.once.map((o) => o.account),
      ];
    case 'loan':
      return [row.interest];
    case 'asset':
      return [...(row.way.of === 'none' ? [] : [row.expense]), ...(row.sold?.gain ? [row.sold.gain] : [])];
    case 'release':
    case 'incomeTax':
      return [row.account];
    case 'equity':
      return [];
  }
}

/** What balances stand against, with other accounts named; none stands against itself. The first of two for one account stays. */
export function renamedContras(
  contras: Readonly<Record<string, string>>,
  rename: Rename,
): Record<string, string> {
  const out: Record<string, string> = {};
  for (const [of, against] of Object.entries(contras))
    if (rename(of) !== rename(against)) out[rename(of)] ??= rename(against);
  return out;
}
