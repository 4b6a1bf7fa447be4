import { indexOfId, periodsOf, type FiscalCalendar, type Period } from '@/core/calendar';
import { reckoned, yearBefore, type Ground } from '@/core/ground';
import {
  accountsOfRow,
  isProfitAndLoss,
  lineKey,
  namesNature,
  segmentName,
  type Account,
  type Axis,
  type Budget,
  type HandedLine,
  type Handout,
  type Line,
  type LineRef,
  type Round,
} from '@/core/model';
import type { Minor } from '@/core/money';
import { checksumOf, type Anchor } from './marks';

/** The months that a round asks for. */
export const roundPeriods = (
  calendar: FiscalCalendar,
  { first, length }: Pick<Round, 'first' | 'length'>,
): readonly Period[] => {
  const start = indexOfId(calendar, first);
  return start === null ? [] : periodsOf(calendar, { first: start, last: start + length - 1 });
};

/** Lines of a budget that can be handed out: of profit and loss; pay stays in unless it is asked for. */
export function linesToHand(
  { book }: Ground,
  budget: Budget,
  fits: (account: Account, line: Line) => boolean,
  withPay: boolean,
): readonly Line[] {
  const accounts = new Map(book.accounts.map((a) => [a.id, a]));
  const pay = payAccounts(budget, book.accounts);
  return budget.lines.filter((line) => {
    const account = accounts.get(line.account);
    if (!account || !isProfitAndLoss(account.kind) || !account.active) return false;
    return (withPay || !pay.has(account.id)) && fits(account, line);
  });
}

/** Names that tell of pay: what people earn, what comes on top, and what is given once. */
const tellsPay = (name: string): boolean =>
  namesNature(name, 'wages') || namesNature(name, 'oncosts') || /\bbonus(es)?\b/i.test(name);

/** Accounts of pay: those that rows of staff post to, and those whose name or group says so. */
export function payAccounts(
  budget: Pick<Budget, 'schedules'>,
  accounts: readonly Account[],
): ReadonlySet<string> {
  const rows = budget.schedules.filter((r) => r.kind === 'staff');
  const staff = new Set(rows.flatMap((r) => [...accountsOfRow(r)]));
  return new Set(
    accounts
      .filter((a) => isProfitAndLoss(a.kind) && (staff.has(a.id) || tellsPay(a.name) || tellsPay(a.group)))
      .map((a) => a.id),
  );
}

/** What a line of a budget stands at by month of a round; null where it says nothing. */
export function draftOf(ground: Ground, budget: Budget, round: Pick<Round, 'first' | 'length'>) {
  const whole = reckoned(ground, budget);
  const start = whole.facts.periods[0]?.index ?? 0;
  const periods = roundPeriods(ground.calendar, round);
  return ({ account, segment }: LineRef): (Minor | null)[] => {
    const amounts = whole.amounts(account, segment);
    return periods.map((p) => {
      const amount = amounts?.[p.index - start] ?? null;
      return amount === null || Number.isNaN(amount) ? null : amount;
    });
  };
}

/** The same months a year before, as far as the ledger or a budget that stands in for it tells. */
export function yearBeforeOf(ground: Ground, budget: Budget, round: Pick<Round, 'first' | 'length'>) {
  const whole = reckoned(ground, budget);
  const start = whole.facts.periods[0]?.index ?? 0;
  const before = yearBefore(ground, whole);
  const periods = roundPeriods(ground.calendar, round);
  return {
    label: before.label,
    of: ({ account, segment }: LineRef): (Minor | null)[] => {
      const months = before.of(account, segment);
      return periods.map((p) => months[p.index - start] ?? null);
    },
  };
}

/** What a line is called on a sheet; returns are read by it where the marks are gone. */
export const lineName = (
  { name }: Account,
  axis: Axis | null,
  { segment }: Pick<LineRef, 'segment'>,
): string => (axis ? `${name}, ${segmentName(axis, segment)}` : name);

/** A handout that is not made yet. */
export const newHandout = (
  id: string,
  to: string,
  address: string,
  lines: readonly HandedLine[],
): Handout => ({ id, to, address, lines: [...lines], sent: null, reminders: 0, returns: [] });

/** Lines as they are handed out: with what the draft says of them now, and the target that they have. */
export function handedLines(
  ground: Ground,
  budget: Budget,
  round: Pick<Round, 'first' | 'length'>,
  lines: readonly (LineRef & { readonly target?: Minor | null })[],
): HandedLine[] {
  const draft = draftOf(ground, budget, round);
  return lines.map(({ account, segment, target = null }) => ({
    account,
    segment,
    handed: draft({ account, segment }),
    target,
  }));
}

/** What a sheet of a handout says of itself. */
export const anchorOf = (book: string, round: Round, handout: Handout): Anchor => ({
  book,
  round: round.id,
  handout: handout.id,
  checksum: checksumOf([round.first, String(round.length), round.answer, ...handout.lines.map(lineKey)]),
});
