import { accountsOfRow, type Book, type Budget, type ScheduleKind, type ScheduleRow } from '@/core/model';
import type { Made, MadeLine } from '@/core/plan';
import type { RowIssue, RowLineKey } from '@/core/schedule';

/** What the schedules are called. */
export const SCHEDULE_NAMES: Record<ScheduleKind, string> = {
  staff: 'Staff',
  loan: 'Loans',
  asset: 'Assets',
  release: 'Prepaid and deferred',
  incomeTax: 'Income tax',
  equity: 'Equity',
};

/** “Staff”: the badge of a line by the schedule that makes it; several are “Schedules”. */
const MADE_BY: Record<ScheduleKind, string> = {
  staff: 'Staff',
  loan: 'Loans',
  asset: 'Assets',
  release: 'Prepaid',
  incomeTax: 'Tax',
  equity: 'Equity',
};

const FROM_AHEAD: Record<MadeLine['parts'][number]['of'], string> = {
  lost: 'Terms',
  interest: 'Credit line',
  approved: 'Money ahead',
  beyond: 'Money ahead',
  inCase: 'what the case moves of it',
};

/** What the lines of a budget that schedules and money ahead make are called, by account. */
export function madeBy(schedules: readonly ScheduleRow[], made: Made): ReadonlyMap<string, string> {
  const out = new Map<string, string>();
  const put = (account: string, by: string) => {
    const was = out.get(account);
    out.set(account, was === undefined || was === by ? by : 'Schedules');
  };
  for (const row of schedules) for (const account of accountsOfRow(row)) put(account, MADE_BY[row.kind]);
  for (const { account, parts } of made) for (const { of } of parts) put(account, FROM_AHEAD[of]);
  return out;
}

export const ROW_ISSUES: Record<RowIssue, string> = {
  driverMissing: 'The driver that its hours come from is not on the drivers sheet.',
  paymentTooSmall: 'The payment does not even pay the interest, so the loan grows.',
  principalLeft: 'Principal is left after the last payment that was typed.',
  tooLarge: 'A figure would be larger than money can be.',
  cycle: 'It depends on itself through the lines that it makes.',
};

/** The row of a cause's key: a budget's id and the row's, with what comes of it. */
export function rowOfKey(
  { budgets }: Pick<Book, 'budgets'>,
  key: string,
): { readonly row: ScheduleRow; readonly budget: Budget } | null {
  const [first = '', second = ''] = key.split(' ');
  for (const b of budgets) {
    const row = first === 'paid' || first === b.id ? b.schedules.find((r) => r.id === second) : undefined;
    if (row) return { row, budget: b };
  }
  return null;
}

/** What each line of a row's months is called. */
export const ROW_LINES: Record<RowLineKey, string> = {
  pay: 'Pay',
  oncost: 'On-costs',
  once: 'Once, when she comes',
  cost: 'Whole cost',
  drawn: 'Drawn',
  interest: 'Interest',
  principal: 'Principal repaid',
  owed: 'Owed at the end',
  bought: 'Bought',
  writtenOff: 'Written off',
  gain: 'Gain on its sale',
  book: 'Book value at the end',
  part: 'Its part',
  left: 'Left at the end',
  profit: 'Profit of the year so far',
  losses: 'Losses brought forward',
  tax: 'Tax',
  owners: 'From owners, to owners below zero',
};
