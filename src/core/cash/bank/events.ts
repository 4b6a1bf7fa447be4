import type { DayNumber } from '@/core/calendar';
import { isProfitAndLoss, type Account, type CashSource } from '@/core/model';
import { STAND_INS, lostOf } from '@/core/schedule';
import type { AccountTable } from '../postings';
import type { Part, Projected } from '../projected';

/** Postings of an event that stand together and come to nothing: one payment, or its net amount or its tax. */
export type Group = {
  readonly first: number;
  readonly count: number;
  /** Where its bank posting stands. */
  readonly bank: number;
  readonly amount: number;
};

/** Money that is planned to move on a day by one cause. */
export type Event = {
  readonly part: Part;
  readonly day: DayNumber;
  readonly month: number;
  readonly since: DayNumber;
  readonly amount: number;
  /** The place of the bank account. */
  readonly bank: number;
  readonly groups: readonly Group[];
  /** Earned or spent as it is paid, and nobody's in particular: takings, small costs. */
  readonly atOnce: boolean;
};

/** Sources whose money has a name and a day of its own: it falls due, whether it moved or not. */
const NAMED: ReadonlySet<CashSource> = new Set(['payroll', 'taxes', 'loans', 'owners', 'disposals']);

/** Parts that are one payment each. */
const SINGLE: ReadonlySet<Part['of']> = new Set(['item', 'order', 'dated', 'tax', 'schedule', 'settled']);

/** Whether what a part moves falls due by itself, and is no part of what takings and costs come to. */
export const isNamed = ({ of, source }: Part): boolean => SINGLE.has(of) || NAMED.has(source);

/** Accounts that stand in for none of the book's and belong to profit and loss. */
const PROFIT: readonly string[] = [STAND_INS.gain];

/** Whether the account at a place belongs to profit and loss. */
export function profitPlaces(table: AccountTable, accounts: readonly Account[]): (place: number) => boolean {
  const kinds = new Map(accounts.map((a) => [a.id, a.kind]));
  const known: boolean[] = [];
  return (place) =>
    (known[place] ??=
      PROFIT.includes(table.ids[place]!) ||
      lostOf(table.ids[place]!) !== null ||
      (kinds.has(table.ids[place]!) && isProfitAndLoss(kinds.get(table.ids[place]!)!)));
}

/** What is planned to move the banks up to a day of each part; parts of which nothing moves until then are not among them. */
export function eventsUntil(
  projected: Projected,
  isProfit: (place: number) => boolean,
  until: (part: Part) => DayNumber,
): ReadonlyMap<Part, readonly Event[]> {
  const out = new Map<Part, readonly Event[]>();
  for (const part of projected.parts.values()) {
    const events = eventsOf(part, projected.isBank, isProfit, until(part));
    if (events.length > 0) out.set(part, events);
  }
  return out;
}

type Gathered = { groups: Group[]; profit: boolean; amount: number };

/** The events of a part: its postings in groups that come to nothing; those of one day, month and cause are one. */
function eventsOf(
  part: Part,
  isBank: (place: number) => boolean,
  isProfit: (place: number) => boolean,
  until: DayNumber,
): readonly Event[] {
  const { columns, first, count } = part.postings;
  const { day, account, amount, month, from } = columns;
  const found = new Map<string, Gathered>();
  let begin = first;
  let sum = 0;
  for (let i = first; i < first + count; i++) {
    sum += amount[i]!;
    if (sum !== 0) continue;
    const start = begin;
    begin = i + 1;
    if (day[start]! > until) continue;
    let bank = -1;
    let [money, profit] = [0, false];
    for (let k = start; k <= i; k++)
      if (isBank(account[k]!)) {
        bank = k;
        money += amount[k]!;
      } else profit ||= isProfit(account[k]!);
    // Between two banks, or without any, no money moves.
    if (bank < 0 || money !== amount[bank]!) continue;
    const key = `${day[bank]!} ${month[bank]!} ${from[bank]!} ${account[bank]!}`;
    let gathered = found.get(key);
    if (!gathered) found.set(key, (gathered = { groups: [], profit: false, amount: 0 }));
    gathered.groups.push({ first: start, count: i + 1 - start, bank, amount: money });
    gathered.profit ||= profit;
    gathered.amount += money;
  }
  const named = isNamed(part);
  return [...found.values()]
    .filter((g) => g.amount !== 0)
    .map(({ groups, profit, amount: sumOf }) => {
      const at = groups[0]!.bank;
      return {
        part,
        day: day[at]!,
        month: month[at]!,
        since: from[at]!,
        amount: sumOf,
        bank: account[at]!,
        groups,
        atOnce: profit && !named,
      };
    })
    .sort((a, b) => a.day - b.day);
}
