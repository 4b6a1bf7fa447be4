import { fromDayNumber, type DayNumber } from '@/core/calendar';
import type { Cause } from '@/core/cash';
import { EXPLAINED, type CashView, type Ground } from '@/core/ground';
import { dueDay } from '@/core/schedule';
import type { DayRule, DueRule, Terms, TermsOf, TermsRule } from '@/core/model';
import { dayText } from './format';
import { rowOfKey, SCHEDULE_NAMES } from './scheduleWords';

export const onDay = (day: DayNumber): string => dayText(fromDayNumber(day));

/** What a cause is called, and in a line what it follows from. */
export function causeWords(
  ground: Ground,
  view: CashView,
  { part, month, since, day, rule = 0 }: Pick<Cause, 'part' | 'month' | 'since' | 'day'> & Partial<Cause>,
): { readonly name: string; readonly why: string } {
  const { book, calendar } = ground;
  const key = part.key.slice(part.key.indexOf(' ') + 1);
  switch (part.of) {
    case 'pending': {
      // What closed months leave to come: of a line or a row, by whose terms it is due.
      const by = key.startsWith('schedule ') ? 'schedule' : 'line';
      const of = causeWords(ground, view, { part: { ...part, of: by, key }, month: -1, since, day, rule });
      return { name: of.name, why: [`of ${onDay(since)}`, 'closed and not settled yet'].join(' · ') };
    }
    case 'line': {
      const own = view.lines.get(key);
      const period = view.input.periods[month];
      return {
        name: own ? lineName(ground, view, own) : key,
        why: [
          own?.budget.name,
          key.endsWith(EXPLAINED) ? 'explained beyond the plan' : '',
          period?.label,
          since !== day ? `of ${onDay(since)}` : '',
          own ? partWords(own.line.terms.parts, rule, { since, day }) : '',
        ]
          .filter(Boolean)
          .join(' · '),
      };
    }
    case 'item':
    case 'order': {
      const item = view.items.find((i) => i.key === key);
      if (!item) return { name: key, why: '' };
      return {
        name: [item.counterparty || 'Brought forward', item.number].filter(Boolean).join(' '),
        why: [
          `dated ${onDay(item.dated)}`,
          `due ${onDay(item.due)}`,
          item.change?.day ? `moved: ${item.change.reason || 'no reason given'}` : '',
        ]
          .filter(Boolean)
          .join(' · '),
      };
    }
    case 'tax': {
      const scheme = book.cash.taxes.find((t) => key.startsWith(`${t.id} `));
      return { name: scheme?.name ?? 'Tax', why: `return of the period to ${onDay(since)}` };
    }
    case 'schedule': {
      const row = rowOfKey(book, key);
      const planned = / missed .* (-?\d+)$/.exec(key)?.[1];
      return row
        ? {
            name: row.row.name,
            why: [
              row.budget.name,
              SCHEDULE_NAMES[row.row.kind],
              planned
                ? `planned for ${onDay(Number(planned))}, and not in the ledger`
                : since !== day
                  ? `of ${onDay(since)}`
                  : '',
            ]
              .filter(Boolean)
              .join(' · '),
          }
        : { name: key, why: '' };
    }
    case 'settled': {
      const account = book.accounts.find((a) => a.id === key);
      return { name: account?.name ?? key, why: 'stood owed at the start; paid on the first day it is due' };
    }
    case 'balance': {
      const [budget, id] = key.split(' ') as [string, string];
      const account = book.accounts.find((a) => a.id === id);
      const plan = book.budgets.find((b) => b.id === budget);
      const against = book.accounts.find((a) => a.id === plan?.contras[id]);
      return {
        name: `${account?.name ?? id}, as budgeted`,
        why: `closing balance of ${plan?.name ?? budget}; what is missing comes from ${against?.name ?? 'the bank'}`,
      };
    }
    case 'dated': {
      const [id, planned] = key.split(' ');
      const item = book.cash.dated.find((d) => d.id === id);
      const why = planned
        ? `planned for ${onDay(Number(planned))}, and not in the ledger`
        : item?.repeat
          ? repeatWords(item.repeat)
          : 'once';
      return { name: item?.name ?? key, why };
    }
    case 'underWay': {
      const entry = view.today?.entries.find((e) => e.key === key);
      return {
        name: [entry?.counterparty, entry?.reference].filter(Boolean).join(' ') || 'Entry of the ledger',
        why: entry ? `in the ledger on ${onDay(entry.day)}, not cleared by the bank at the closed day` : '',
      };
    }
    case 'moved': {
      const movement = view.today?.stands.flatMap((s) => s.movements).find((m) => m.key === key);
      if (movement)
        return {
          name: movement.counterparty || movement.memo || movement.reference || 'A movement',
          why: 'moved at the bank, and is nothing that was planned',
        };
      const account = book.accounts.find((a) => key === `off ${a.id}`);
      return { name: account?.name ?? key, why: 'what the bank says beyond what is known to have moved' };
    }
    case 'runOff': {
      const account = book.accounts.find((a) => a.id === key);
      return {
        name: account?.name ?? key,
        why: `stood without items at ${calendar.period(calendar.indexOfDay(view.input.start)).label}’s end; runs off in equal parts until ${onDay(view.input.runOffEnd(key))}`,
      };
    }
  }
}

/** A line by its account, and by its segment where another line has the same. */
function lineName({ book }: Ground, view: CashView, { line, budget }: LineAhead): string {
  const { account, segment } = line;
  const axis = book.axes.find((a) => a.id === budget.axis);
  if (!axis) return account.name;
  const alike = [...view.lines.values()].filter(
    (o) => o.budget.axis === axis.id && o.line.account === account,
  );
  if (alike.length < 2) return account.name;
  return `${account.name}, ${axis.values.find((v) => v.id === segment)?.name ?? 'unassigned'}`;
}
type LineAhead = CashView['lines'] extends ReadonlyMap<string, infer T> ? T : never;

/** The part of a line's terms that something follows from: its percentage where there are several, and the share due then. */
function partWords(
  parts: Terms['parts'],
  at: number,
  { since, day }: { readonly since: DayNumber; readonly day: DayNumber },
): string {
  const { percent, rule } = parts[at] ?? parts[0]!;
  const of = parts.length > 1 ? `${percent}% of it ` : '';
  if (rule.kind !== 'onAccount' || rule.shares.length < 2 || since === day) return `${of}${termsWords(rule)}`;
  // Of several shares the one whose days have passed, by the days alone: a payday may have moved.
  const share = rule.shares.reduce((best, s) =>
    Math.abs(daysUntil(s.due, since) - (day - since)) < Math.abs(daysUntil(best.due, since) - (day - since))
      ? s
      : best,
  );
  return `${of}invoiced ${dayRuleWords(rule.invoiced)}, ${share.percent}% ${dueWords(share.due)}`;
}

/** About so many days after an invoice a share is due. */
const daysUntil = (due: DueRule, since: DayNumber): number => dueDay(since, due) - since;

export const repeatWords = ({
  every,
  unit,
}: {
  readonly every: number;
  readonly unit: 'weeks' | 'months';
}): string => (every === 1 ? `every ${unit.slice(0, -1)}` : `every ${every} ${unit}`);

const ordinal = (n: number): string =>
  `${n}${n % 10 === 1 && n !== 11 ? 'st' : n % 10 === 2 && n !== 12 ? 'nd' : n % 10 === 3 && n !== 13 ? 'rd' : 'th'}`;

export function dayRuleWords(rule: DayRule): string {
  switch (rule.of) {
    case 'monthDay':
      return rule.day === 31 ? 'at the month’s end' : `on the ${ordinal(rule.day)}`;
    case 'spread':
      return 'over the working days';
    case 'own':
      return 'on the line’s own days';
    case 'days':
      return rule.on.of === 'weeks'
        ? rule.on.every === 1
          ? 'every week'
          : `every ${rule.on.every} weeks`
        : rule.on.of === 'workingDays'
          ? 'each working day'
          : 'on its days';
  }
}

export const dueWords = (due: DueRule): string =>
  due.of === 'days'
    ? due.days === 0
      ? 'at once'
      : `after ${due.days} days`
    : `on the ${ordinal(due.day)}${due.months === 0 ? '' : due.months === 1 ? ' of the next month' : `, ${due.months} months on`}`;

/** When shares are paid: each, where there are few; else from the first to the last. */
function sharesWords(shares: TermsOf<'onAccount'>['shares']): string {
  const [first] = shares;
  if (shares.length === 1)
    return `${first!.percent === '100' ? 'paid' : `${first!.percent}% paid`} ${dueWords(first!.due)}`;
  const days = shares.map((s) => (s.due.of === 'days' ? s.due.days : null));
  if (shares.length > 2 && days.every((d) => d !== null))
    return `paid after ${Math.min(...days)} to ${Math.max(...days)} days`;
  return shares.map((s) => `${s.percent}% ${dueWords(s.due)}`).join(', ');
}

/** A rule of terms in a few words. */
export function termsWords(rule: TermsRule): string {
  switch (rule.kind) {
    case 'atOnce':
      return `paid ${dayRuleWords(rule.on)}`;
    case 'onAccount':
      return `invoiced ${dayRuleWords(rule.invoiced)}, ${sharesWords(rule.shares)}`;
    case 'daysOutstanding':
      return `${rule.days} days outstanding`;
    case 'fromStock':
      return rule.target.of === 'days'
        ? `${rule.target.days} days in stock; bought ${dayRuleWords(rule.bought)}`
        : `${rule.target.percent}% of next month in stock; bought ${dayRuleWords(rule.bought)}`;
    case 'inAdvance':
      return `every ${rule.every} months in advance from ${dayText(rule.first)}`;
    case 'withoutMoney':
      return 'no money moves';
    case 'payroll':
      return `${rule.net}% net ${dayRuleWords(rule.on)}, the rest ${dueWords(rule.rest)}`;
  }
}
