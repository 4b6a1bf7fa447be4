import {
  calendarFrom,
  fromDayNumber,
  toDayNumber,
  type CalendarSpec,
  type DayNumber,
  type FiscalCalendar,
} from '@/core/calendar';
import { ACTIVITY, CLOSING, textAt, type LedgerBlock } from '@/core/ledger';
import { isProfitAndLoss, naturalSign } from '@/core/model';
import type { Draft } from './draft';
import type { AccountChoice } from './match';
import { toDebitPositive } from './sign';
import { activityOf, type Bases } from './trials';

/**
 * The draft's entries as they will stand in the ledger under the person's choices: amounts debit-positive,
 * cumulative trial balances as the activity that they tell of, and year-end closing entries marked as such.
 */
export function settle(
  draft: Draft,
  choices: readonly AccountChoice[],
  calendar: CalendarSpec,
  bases: Bases | null,
): LedgerBlock {
  // A kind says what a trial balance's figure is: another kind is another reading of it.
  if (draft.trials !== null)
    return activityOf(
      draft.trials,
      choices,
      draft.accounts.map((a) => a.name),
      calendar,
      bases,
    );
  const turn = choices.map((c) => toDebitPositive(draft.sign, naturalSign(c.kind)));
  const { amount: read, account } = draft.block;
  const amount = new Float64Array(read.length);
  // Turning a sign makes no new figure: the reading has checked each.
  for (let i = 0; i < read.length; i++) amount[i] = read[i] === 0 ? 0 : read[i]! * turn[account[i]!]!;
  const block = { ...draft.block, amount };
  return draft.mapping.shape === 'entries'
    ? { ...block, mark: markClosings(block, choices, calendarFrom(calendar)) }
    : block;
}

const CLOSING_WORDS =
  /year[\s-]*end clos|clos(e|ing)\b.*\b(entr|journal|year|books|retained|p ?& ?l|profit)|\b(to|transfer)\b.*\bretained earnings/i;

/**
 * Finds year-end closing entries. By arithmetic: on a fiscal year's last day, entries that bring nearly all
 * accounts of profit and loss to nothing, against equity. By words: an entry on such a day that says so and moves
 * profit and loss against equity only. (That closing entries empty the income statement into equity is common
 * practice of double-entry bookkeeping.)
 */
export function markClosings(
  block: LedgerBlock,
  choices: readonly AccountChoice[],
  calendar: FiscalCalendar,
): Uint8Array {
  const flow = choices.map((c) => isProfitAndLoss(c.kind));
  const equity = choices.map((c) => c.kind === 'equity');
  if (!equity.includes(true)) return block.mark;
  const onLastDay = lastDays(block, calendar);
  if (onLastDay.size === 0) return block.mark;
  const mark = block.mark.slice();
  for (const [day, entries] of onLastDay) {
    const groups = new Map<string, number[]>();
    for (const i of entries) {
      const reference = textAt(block.texts, block.reference[i]!);
      const list = groups.get(reference);
      if (list) list.push(i);
      else groups.set(reference, [i]);
    }
    const from = toDayNumber(
      calendar.period(calendar.firstOfYear(calendar.period(calendar.indexOfDay(day)).year)).start,
    );
    const sums = new Float64Array(choices.length);
    for (let i = 0; i < block.count; i++)
      if (
        flow[block.account[i]!] &&
        block.mark[i] === ACTIVITY &&
        block.day[i]! >= from &&
        block.day[i]! <= day
      )
        sums[block.account[i]!]! += block.amount[i]!;
    const named: number[] = [];
    const bare: number[] = [];
    for (const list of groups.values()) {
      const only = list.every((i) => flow[block.account[i]!] || equity[block.account[i]!]);
      const both = list.some((i) => flow[block.account[i]!]) && list.some((i) => equity[block.account[i]!]);
      if (only && both && list.some((i) => CLOSING_WORDS.test(wordsOf(block, i)))) named.push(...list);
      else bare.push(...list);
    }
    for (const i of named) mark[i] = CLOSING;
    if (named.length > 0) continue;
    // An entry that is the whole of its account's year, turned: the account ends at nothing because of it.
    const zeroing = bare.filter((i) => {
      const account = block.account[i]!;
      return flow[account] && sums[account] === 0 && block.amount[i] !== 0;
    });
    const emptied = new Set(zeroing.map((i) => block.account[i]!));
    const moved = new Set<number>();
    for (let i = 0; i < block.count; i++)
      if (flow[block.account[i]!] && block.day[i]! >= from && block.day[i]! <= day)
        moved.add(block.account[i]!);
    if (emptied.size < 2 || emptied.size < moved.size * 0.9) continue;
    // Of several entries on the day, the closing one is the last of its account.
    const last = new Map<number, number>();
    for (const i of zeroing) last.set(block.account[i]!, i);
    const closing = [...last.values()];
    const references = new Set(closing.map((i) => block.reference[i]!));
    const against = bare.filter((i) => equity[block.account[i]!] && references.has(block.reference[i]!));
    const net = [...closing, ...against].reduce((t, i) => t + block.amount[i]!, 0);
    if (against.length > 0 && net === 0) for (const i of [...closing, ...against]) mark[i] = CLOSING;
  }
  return mark;
}

/** Entries on the last day of a fiscal year, by day. */
function lastDays(block: LedgerBlock, calendar: FiscalCalendar): Map<DayNumber, number[]> {
  const isLast = new Map<DayNumber, boolean>();
  const out = new Map<DayNumber, number[]>();
  let before = NaN;
  let last = false;
  for (let i = 0; i < block.count; i++) {
    const day = block.day[i]!;
    if (day !== before) {
      before = day;
      const known = isLast.get(day);
      if (known !== undefined) last = known;
      else {
        const p = calendar.period(calendar.indexOfDay(day));
        last = p.number === calendar.periodsIn(p.year) && p.end === fromDayNumber(day);
        isLast.set(day, last);
      }
    }
    if (!last || block.mark[i] !== ACTIVITY) continue;
    const list = out.get(day);
    if (list) list.push(i);
    else out.set(day, [i]);
  }
  return out;
}

const wordsOf = (block: LedgerBlock, i: number): string =>
  `${textAt(block.texts, block.reference[i]!)} ${textAt(block.texts, block.memo[i]!)}`;
