import {
  fromDayNumber,
  indexOfId,
  parseIsoDay,
  toDayNumber,
  type FiscalCalendar,
  type PeriodIndex,
} from '@/core/calendar';
import type { Adjustment, Adjusts, AmountWay, Book, Case, ReachName, RowField, When } from '@/core/model';
import {
  editText,
  minor,
  minorDigits,
  mostAmountText,
  numberFormatOf,
  parsePercent,
  readTyped,
} from '@/core/money';
import { percentOfSize, SIZE_BOUNDS, sizeOfPercent, unitOfSize, type SizeUnit } from '@/core/scenario';
import type { OutcomeId } from '@/core/whatif';
import { dayText, moneyFormat } from './format';
import { KIND_NAMES } from './kindNames';

/* Adjustments, their sizes and what they lead to, in words. */

export const OUTCOME_WORDS: Readonly<Record<OutcomeId, string>> = {
  income: 'Income',
  grossMargin: 'Gross margin',
  netProfit: 'Net profit',
  lowBank: 'Lowest bank day',
  lowAfterLine: 'Lowest after the line',
  highestDrawing: 'Most drawn',
  daysUnder: 'Days under the floor',
  closingBank: 'Bank at the end',
  equity: 'Equity at the end',
};

/** Sizes that say how much more or less; others say a value. */
export function isChange(what: Adjusts): boolean {
  switch (what.on) {
    case 'amounts':
    case 'driver':
      return what.way.as !== 'new';
    case 'rowField':
      return what.by === 'percent';
    case 'rate':
      return what.by === 'more';
    case 'items':
      return what.as === 'later';
    case 'rowAdded':
    case 'rowGone':
    case 'termsNew':
      return false;
    default:
      return true;
  }
}

type Writes = Pick<Book, 'currency' | 'locale' | 'settings'>;

const signed = (size: number, text: string): string => (size > 0 ? `+${text}` : text);
const many = (n: number, one: string): string => `${n} ${one}${n === 1 ? '' : 's'}`;
const turned = (size: number, one: string): string =>
  size === 0 ? `no ${one}s` : `${many(Math.abs(size), one)} ${size > 0 ? 'later' : 'earlier'}`;

/** A percentage without zeros behind its last digit: "4.125", "−8". */
const percentText = (size: number): string =>
  percentOfSize(size)
    .replace(/(\.\d*?)0+$/, '$1')
    .replace(/\.$/, '')
    .replace('-', '−');

/** A size as the matrix shows it: "+5%", "20 days later", "yes". `decimals`: of a driver’s quantity. */
export function sizeText(what: Adjusts, size: number, book: Writes, decimals = 0): string {
  const unit = unitOfSize(what);
  const change = isChange(what);
  switch (unit) {
    case 'percent': {
      const points = what.on === 'termsLost' || what.on === 'oncosts' || (what.on === 'rate' && change);
      const text = `${percentText(size)}${points ? ' points' : '%'}`;
      return change ? signed(size, text) : text;
    }
    case 'money': {
      const money = moneyFormat(book);
      return change ? money.signed(minor(size)) : money.text(minor(size));
    }
    case 'days':
      return what.on === 'termsDays' || what.on === 'items' ? turned(size, 'day') : many(size, 'day');
    case 'months':
      return turned(size, 'month');
    case 'count':
      return (size / 100).toLocaleString(book.locale);
    case 'payments':
      return many(size, 'payment');
    case 'day':
      return dayText(fromDayNumber(size), book.locale);
    case 'quantity': {
      const text = (size / 10 ** decimals).toLocaleString(book.locale);
      return change ? signed(size, text) : text;
    }
    case 'yes':
      return 'yes';
  }
}

/** A size as it is edited, which `readSize` reads again. */
export function sizeDraft(what: Adjusts, size: number, book: Writes, decimals = 0): string {
  switch (unitOfSize(what)) {
    case 'percent':
      return percentText(size).replace('−', '-');
    case 'money':
      return editText(minor(size), book.currency, book.locale);
    case 'day':
      return fromDayNumber(size);
    case 'count':
      return String(size / 100);
    case 'quantity':
      return String(size / 10 ** decimals);
    case 'yes':
      return 'yes';
    default:
      return String(size);
  }
}

/** The least and the most that a size may be, in words. */
const BOUNDS: Readonly<Record<Exclude<SizeUnit, 'money' | 'day' | 'yes' | 'quantity'>, string>> = {
  percent: 'from −1,000% to 10,000%',
  days: 'from −1,000 to 1,000 days',
  months: 'from −120 to 120 months',
  count: 'from 0 to 100,000',
  payments: 'from 1 to 600',
};

export type ReadSize =
  { readonly ok: true; readonly size: number | null } | { readonly ok: false; readonly why: string };
const taken = (size: number | null): ReadSize => ({ ok: true, size });
const refused = (why: string): ReadSize => ({ ok: false, why });

/** Reads a size as someone types it; blank, a dash and "no" mean that the adjustment is off there. */
export function readSize(what: Adjusts, typed: string, book: Writes, decimals = 0): ReadSize {
  const text = typed.trim().replace(/[−–]/g, '-');
  if (text === '' || text === '-' || /^(no|off)$/i.test(text)) return taken(null);
  const unit = unitOfSize(what);
  switch (unit) {
    case 'yes':
      return /^(yes|y|1|x)$/i.test(text) ? taken(1) : refused('“yes”, or nothing');
    case 'day': {
      const day = parseIsoDay(text);
      if (day === null) return refused('A day, such as 2027-03-01');
      const [least, most] = SIZE_BOUNDS.day;
      const size = toDayNumber(day);
      return size < least || size > most ? refused('A day from 1990 to 2199') : taken(size);
    }
    case 'money': {
      const read = readTyped(
        text.replace(/^\+/, ''),
        minorDigits(book.currency),
        numberFormatOf(book.locale),
      );
      if (read.ok && !read.percent && read.value !== null) return taken(read.value);
      return refused(
        !read.ok && read.code === 'tooLarge'
          ? `${mostAmountText(book.currency, book.locale)} at most`
          : 'An amount',
      );
    }
    case 'percent': {
      const p = parsePercent(text.replace(/(points?|pts|%)\s*$/i, '').trim());
      return p === null ? refused('A percentage') : within(sizeOfPercent(p), unit);
    }
    case 'count':
    case 'quantity': {
      const n = Number(text.replace(',', '.').replace(/^\+/, ''));
      const size = Math.round(n * (unit === 'count' ? 100 : 10 ** decimals));
      if (!Number.isSafeInteger(size)) return refused('A number');
      return unit === 'count' ? within(size, unit) : taken(size);
    }
    default: {
      const m = /^([+-]?\d{1,9})\s*(?:d|days?|m|months?|payments?)?\s*(later|earlier)?$/i.exec(text);
      if (!m) return refused(`A whole number of ${unit}`);
      const n = Number(m[1]);
      return within(m[2]?.toLowerCase() === 'earlier' ? -Math.abs(n) : n, unit);
    }
  }
}

function within(size: number, unit: keyof typeof BOUNDS): ReadSize {
  const [least, most] = SIZE_BOUNDS[unit];
  return size < least || size > most ? refused(`It must be ${BOUNDS[unit]}`) : taken(size);
}

/** Whether an adjustment is for months that are said of it; the others have days of their own, or hold throughout. */
export const hasMonths = (what: Adjusts): boolean =>
  ['amounts', 'driver', 'linesMoved', 'pay', 'oncosts', 'termsDays', 'termsLost', 'termsNew'].includes(
    what.on,
  ) ||
  (what.on === 'rate' && (what.of === 'incomeTax' || what.of === 'interest'));

/** When an adjustment comes, in words. */
export function whenWords(
  calendar: FiscalCalendar,
  { what, when }: Pick<Adjustment, 'what' | 'when'>,
): string {
  if (!hasMonths(what)) return what.on === 'rate' ? 'throughout' : '';
  return monthsWords(calendar, when);
}

function monthsWords(calendar: FiscalCalendar, { from, until, every, times, ramp }: When): string {
  const name = (id: When['from']) => {
    const at = indexOfId(calendar, id);
    return at === null ? id : calendar.period(at).label;
  };
  /** Both ends, the year once where it is the same. */
  const spell = (a: string, b: string) => {
    const year = / \d{4}$/.exec(b)?.[0];
    return `${year && a.endsWith(year) ? a.slice(0, -year.length) : a} – ${b}`;
  };
  const over = ramp === null ? '' : `, over ${many(ramp, 'month')}`;
  if (until === from || times === 1) return `${name(from)}${over}`;
  if (every === 1) return (until === null ? `from ${name(from)}` : spell(name(from), name(until))) + over;
  const end = times !== null ? `, ${times} times` : until === null ? '' : ` until ${name(until)}`;
  return `every ${every} months from ${name(from)}${end}${over}`;
}

/** The lines that a reach names. */
export function reachWords(lines: readonly ReachName[], { accounts }: Pick<Book, 'accounts'>): string {
  const words = lines.map((l) => {
    switch (l.of) {
      case 'account':
        return accounts.find((a) => a.id === l.account)?.name ?? 'a line that is gone';
      case 'group':
        return l.group;
      case 'kind':
        return `all ${KIND_NAMES[l.kind].toLowerCase()}`;
      case 'costs':
        return 'all costs';
      case 'income':
        return 'all income';
    }
  });
  return words.length > 3 ? `${words.slice(0, 2).join(', ')} and ${words.length - 2} more` : words.join(', ');
}

const WAY_WORDS: Readonly<Record<AmountWay['as'], string>> = {
  percent: 'so many percent',
  amount: 'an amount each month',
  new: 'a new amount',
  growth: 'growth a month',
  onBefore: 'an amount on the month before',
  formula: 'a formula',
};

export const FIELD_WORDS: Readonly<Record<RowField, string>> = {
  pay: 'pay',
  count: 'how many',
  from: 'first day',
  until: 'last day',
  rate: 'rate',
  amount: 'amount',
  payments: 'payments',
  bought: 'day it is bought',
  cost: 'cost',
  price: 'price it is sold for',
};

/** The name of a row of schedules, wherever it stands. */
const rowName = ({ budgets }: Pick<Book, 'budgets'>, id: string): string =>
  budgets.flatMap((b) => b.schedules).find((r) => r.id === id)?.name ?? 'a row that is gone';

/** What an adjustment does, in a line. */
export function adjustsWords(what: Adjusts, book: Book): string {
  const driver = (id: string) =>
    book.budgets.flatMap((b) => b.drivers).find((d) => d.id === id)?.name ?? 'a driver that is gone';
  switch (what.on) {
    case 'amounts':
      return `${reachWords(what.reach.lines, book)}: ${WAY_WORDS[what.way.as]}`;
    case 'driver':
      return `${driver(what.driver)}: ${WAY_WORDS[what.way.as]}`;
    case 'linesMoved':
      return `${reachWords(what.reach.lines, book)}: months later or earlier`;
    case 'rowMoved':
      return `${rowName(book, what.row)}: months later or earlier`;
    case 'datedMoved':
      return `${book.cash.dated.find((d) => d.id === what.item)?.name ?? 'An item that is gone'}: months later or earlier`;
    case 'rowAdded':
      return `${what.row.name}: added${what.by === 'day' ? ', from a day on' : ''}`;
    case 'rowGone':
      return `${rowName(book, what.row)}: taken out`;
    case 'rowField':
      return `${rowName(book, what.row)}: ${FIELD_WORDS[what.field]}`;
    case 'pay':
      return what.accounts.length === 0 ? 'Pay of all staff' : 'Pay of some staff';
    case 'oncosts':
      return 'What the employer pays on top of all pay';
    case 'termsDays':
      return `${reachWords(what.reach.lines, book)}: paid days later or earlier`;
    case 'termsLost':
      return `${reachWords(what.reach.lines, book)}: a part is never paid`;
    case 'termsNew':
      return `${reachWords(what.reach.lines, book)}: other terms`;
    case 'items': {
      const whose =
        what.item !== null
          ? 'One open item'
          : (what.counterparty ?? (what.side === 'in' ? 'All open invoices' : 'All open bills'));
      const how = { later: 'paid later', paid: 'paid in part', never: 'never paid' }[what.as];
      return `${whose}: ${how}`;
    }
    case 'rate':
      return {
        incomeTax: 'Rate of the income tax',
        interest: 'Interest of all loans',
        lineRate: 'Interest of the credit line',
        limit: 'Limit of the credit line',
        floor: 'Floor of the bank',
      }[what.of];
  }
}

/** Whether what an adjustment names is there: a row, a driver, a dated item may have been taken away since. */
export function namesWhatIs(what: Adjusts, { budgets, cash }: Pick<Book, 'budgets' | 'cash'>): boolean {
  switch (what.on) {
    case 'rowMoved':
    case 'rowGone':
    case 'rowField':
      return budgets.some((b) => b.schedules.some((r) => r.id === what.row));
    case 'driver':
      return budgets.some((b) => b.drivers.some((d) => d.id === what.driver));
    case 'datedMoved':
      return cash.dated.some((d) => d.id === what.item);
    default:
      return true;
  }
}

/**
 * An adjustment whose months are all closed, which does nothing any more, with the months that it would be for if it began
 * with the first that is open; null while it has months ahead.
 */
export function movedOn(
  calendar: FiscalCalendar,
  { what, when }: Pick<Adjustment, 'what' | 'when'>,
  closed: PeriodIndex | null,
): When | null {
  if (!hasMonths(what) || closed === null) return null;
  const first = indexOfId(calendar, when.from);
  if (first === null) return null;
  const last =
    when.until !== null
      ? indexOfId(calendar, when.until)
      : when.times === null
        ? null
        : first + (when.times - 1) * when.every;
  const stays = what.on === 'amounts' && what.way.as === 'growth' && what.way.stays;
  if (last === null || last > closed || stays) return null;
  const by = closed + 1 - first;
  const on = (id: When['from']) => calendar.period(indexOfId(calendar, id)! + by).id;
  return { ...when, from: on(when.from), until: when.until && on(when.until) };
}

/** How many decimals the quantity of an adjustment has. */
export const decimalsOf = ({ budgets }: Pick<Book, 'budgets'>, what: Adjusts): number =>
  what.on === 'driver'
    ? (budgets.flatMap((b) => b.drivers).find((d) => d.id === what.driver)?.decimals ?? 0)
    : 0;

/** The size of an adjustment in a case; null where it is off there. */
export const sizeIn = ({ sizes }: Pick<Case, 'sizes'>, adjustment: string): number | null =>
  Object.hasOwn(sizes, adjustment) ? sizes[adjustment]!.size : null;

/** What a sign beside a line or a row says: the adjustments that were taken into it, and those that cases try. */
export const markWords = (
  taken: readonly Adjustment[] | undefined,
  tried: readonly Adjustment[] | undefined,
): string =>
  [['Taken in', taken] as const, ['Tried in cases', tried] as const]
    .flatMap(([how, all]) => (all?.length ? [`${how}: ${all.map((a) => a.name).join(', ')}`] : []))
    .join('. ');
