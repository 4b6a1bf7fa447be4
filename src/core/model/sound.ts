import { calendarFrom, indexOfId, type FiscalCalendar } from '@/core/calendar';
import { accountsOfAdjusts } from './adjustment';
import { lineKey } from './lines';
import { nameKey } from './names';
import type { Budget } from './budget';
import { accountsOfTerms, termsKey } from './termsAccounts';
import type { Cash } from './cash';
import type { VarianceNote } from './explanation';
import { ACCOUNT_KINDS } from './kinds';
import { accountsOfRow, segmentsOfRow } from './scheduleRow';
import type { Book } from './schema';

/** A part of a book that could not be kept, and why: the book is opened without it, and the person is told. */
export type SetAside = {
  readonly part:
    | 'account'
    | 'merged'
    | 'axis'
    | 'segment'
    | 'source'
    | 'closedThrough'
    | 'budget'
    | 'inForce'
    | 'line'
    | 'driver'
    | 'revises'
    | 'weights'
    | 'varianceNote'
    | 'flag'
    | 'outlookWay'
    | 'quantity'
    | 'message'
    | 'layout'
    | 'flowClass'
    | 'costBehavior'
    | 'covenant'
    | 'adjustment'
    | 'case'
    | 'ratio'
    | 'round'
    | 'terms'
    | 'schedule'
    | 'cash'
    | 'locale'
    | 'amount'
    | 'journal';
  /** What the part is called, as far as it is called anything. */
  readonly name: string;
  readonly because:
    | 'twice'
    | 'noSuchAccount'
    | 'noSuchSegment'
    | 'noSuchPeriod'
    | 'noSuchAxis'
    | 'noSuchBudget'
    | 'noSuchRatio'
    | 'noSuchAdjustment'
    | 'figuresMissing'
    | 'stateUnclear'
    | 'circle'
    | 'unknownLocale'
    | 'daysTurned'
    | 'entriesMissing'
    | 'tooLarge';
};

export type Sound = { readonly book: Book; readonly setAside: readonly SetAside[] };

/**
 * Brings a book of the right shape to one that every screen can rely on: ids that are there and there once, periods that
 * the calendar has, figures as many as there are periods. What breaks these rules is taken out and told. The same book
 * when nothing does.
 */
export function soundBook(book: Book): Sound {
  const setAside: SetAside[] = [];
  const away = (part: SetAside['part'], name: string, because: SetAside['because']): false => {
    setAside.push({ part, name, because });
    return false;
  };
  const calendar = calendarFrom(book.calendar);
  const has = (period: string): boolean => indexOfId(calendar, period) !== null;
  const once = firstOf();
  const accounts = kept(book.accounts, (a) => once('a', a.id) || away('account', a.name, 'twice'));
  const known = new Set(accounts.map((a) => a.id));
  const blocks = firstOf();
  const sources = kept(book.sources, (s) => {
    if (!once('s', s.id) || !blocks('', s.block)) return away('source', s.fileName, 'twice');
    return s.firstDay <= s.lastDay || s.entries === 0 || away('source', s.fileName, 'daysTurned');
  });
  const axes = keptAs(book.axes, (axis) => {
    if (!once('x', axis.id)) return (away('axis', axis.name, 'twice'), null);
    const ids = firstOf();
    const values = kept(axis.values, (v) => ids('', v.id) || away('segment', v.name, 'twice'));
    const there = new Set(values.map((v) => v.id));
    const byAccount = keptEntries(
      axis.byAccount,
      (account, value) =>
        // Entries of a merged account keep its id, so it may stand here beside those that are there.
        (there.has(value) && (known.has(account) || Object.hasOwn(book.merged, account))) ||
        away('segment', axis.name, there.has(value) ? 'noSuchAccount' : 'noSuchSegment'),
    );
    return values === axis.values && byAccount === axis.byAccount ? axis : { ...axis, values, byAccount };
  });
  const merged = keptEntries(
    book.merged,
    (from, into) => (!known.has(from) && known.has(into)) || away('merged', from, 'noSuchAccount'),
  );
  const closed = book.closedThrough === null || has(book.closedThrough);
  if (!closed) away('closedThrough', book.closedThrough!, 'noSuchPeriod');
  const weights = kept(book.weights, (w) => once('w', w.id) || away('weights', w.name, 'twice'));
  const belongs = (note: VarianceNote) => note.parts.every((p) => p.kind !== 'wrongEntry' || known.has(p.to));
  const varianceNotes = keptEntries(book.varianceNotes, (period, notes) => {
    const fine = has(period) && Object.entries(notes).every(([a, note]) => known.has(a) && belongs(note));
    return fine || away('varianceNote', period, has(period) ? 'noSuchAccount' : 'noSuchPeriod');
  });
  const messages = keptEntries(
    book.messages,
    (period) => has(period) || away('message', period, 'noSuchPeriod'),
  );
  const flagged = keptEntries(book.flags.accounts, (a) => known.has(a) || away('flag', a, 'noSuchAccount'));
  const byKind = keptEntries(
    book.flags.kinds,
    (k) => (ACCOUNT_KINDS as readonly string[]).includes(k) || away('flag', k, 'noSuchAccount'),
  );
  const flags =
    flagged === book.flags.accounts && byKind === book.flags.kinds
      ? book.flags
      : { kinds: byKind, accounts: flagged };
  const plans = new Set(book.budgets.map((b) => b.id));
  const outlookWays = keptEntries(
    book.outlookWays,
    (budget, ways) =>
      (plans.has(budget) && Object.keys(ways).every((a) => known.has(a))) ||
      away('outlookWay', budget, plans.has(budget) ? 'noSuchAccount' : 'noSuchPeriod'),
  );
  const quantities = kept(
    book.quantities,
    (q) => once('q', nameKey(q.name)) || away('quantity', q.name, 'twice'),
  );
  const flowClasses = keptEntries(
    book.flowClasses,
    (a) => known.has(a) || away('flowClass', a, 'noSuchAccount'),
  );
  const variableShares = keptEntries(
    book.variableShares,
    (a) => known.has(a) || away('costBehavior', a, 'noSuchAccount'),
  );
  const ownRatios = kept(book.ownRatios, (r) => once('o', r.id) || away('ratio', r.name, 'twice'));
  const ratios = new Set(ownRatios.map((r) => r.id));
  const covenants = kept(
    book.covenants,
    (c) =>
      (once('n', c.id) || away('covenant', c.name, 'twice')) &&
      (typeof c.ratio === 'string' || ratios.has(c.ratio.own) || away('covenant', c.name, 'noSuchRatio')),
  );
  const adjustments = kept(
    book.adjustments,
    (a) =>
      (once('j', a.id) || away('adjustment', a.name, 'twice')) &&
      ([...accountsOfAdjusts(a.what)].every((id) => known.has(id)) ||
        away('adjustment', a.name, 'noSuchAccount')),
  );
  const adjusts = new Set(adjustments.map((a) => a.id));
  const told = new Set(book.adjustments.map((a) => a.id));
  const cases = keptAs(book.cases, (c) => {
    if (!once('k', c.id)) return (away('case', c.name, 'twice'), null);
    // The size of an adjustment that was told to be gone goes with it.
    const sizes = keptEntries(
      c.sizes,
      (id) => adjusts.has(id) || (!told.has(id) && away('case', c.name, 'noSuchAdjustment')),
    );
    return sizes === c.sizes ? c : { ...c, sizes };
  });
  const rounds = keptAs(book.rounds, (round) => {
    if (!once('u', round.id)) return (away('round', round.name, 'twice'), null);
    if (!plans.has(round.budget)) return (away('round', round.name, 'noSuchBudget'), null);
    if (!has(round.first)) return (away('round', round.name, 'noSuchPeriod'), null);
    const ids = firstOf();
    const handouts = kept(
      round.handouts,
      (h) =>
        (ids('', h.id) || away('round', h.to, 'twice')) &&
        (h.lines.every((l) => known.has(l.account)) || away('round', h.to, 'noSuchAccount')) &&
        (h.lines.every((l) => l.handed.length === round.length) || away('round', h.to, 'figuresMissing')),
    );
    return handouts === round.handouts ? round : { ...round, handouts };
  });
  const layouts = keptAs(book.layouts, (layout) => {
    if (!once('y', layout.id)) return (away('layout', layout.name, 'twice'), null);
    const own = kept(
      layout.rows.own,
      (r) => r.row !== 'account' || known.has(r.account) || away('layout', layout.name, 'noSuchAccount'),
    );
    const { axis } = layout.segments;
    const fits = axis === null || axes.some((a) => a.id === axis);
    if (!fits) away('layout', layout.name, 'noSuchAxis');
    if (own === layout.rows.own && fits) return layout;
    const segments = fits ? layout.segments : { axis: null, place: 'none' as const, values: [] };
    return { ...layout, rows: { ...layout.rows, own }, segments };
  });
  const segmentsOf = new Map(axes.map((a) => [a.id, new Set<string | null>(a.values.map((v) => v.id))]));
  const circles = inCircle(book.budgets);
  // What was approved keeps the accounts of the time, whatever they have become.
  const isKnown = (b: Budget, account: string): boolean =>
    known.has(account) || (b.approved !== null && Object.hasOwn(merged, account));
  const budgets = keptAs(book.budgets, (b) => {
    if (!once('b', b.id)) return (away('budget', b.name, 'twice'), null);
    const why = budgetFault(b, calendar, segmentsOf);
    if (why) return (away('budget', b.name, why), null);
    const segments = new Set(b.segments);
    const lines = firstOf();
    const soundLines = kept(b.lines, (l) => {
      if (!lines('', lineKey(l))) return away('line', b.name, 'twice');
      if (!isKnown(b, l.account)) return away('line', b.name, 'noSuchAccount');
      return segments.has(l.segment) || away('line', b.name, 'noSuchSegment');
    });
    const drivers = kept(b.drivers, (d) => once(`d${b.id}`, d.id) || away('driver', d.name, 'twice'));
    const frozen = b.approved && kept(b.approved.lines, (l) => isKnown(b, l.account));
    if (frozen && frozen !== b.approved!.lines) return (away('budget', b.name, 'noSuchAccount'), null);
    const named = firstOf();
    const terms = kept(
      b.terms,
      (t) =>
        (named('', termsKey(t)) || away('terms', b.name, 'twice')) &&
        ([...accountsOfTerms(t)].every((a) => isKnown(b, a)) || away('terms', b.name, 'noSuchAccount')),
    );
    // A guess of an account that is gone is no loss: it is guessed anew.
    const guessed = kept(b.guessed, (g) => [...accountsOfTerms(g.terms)].every((a) => isKnown(b, a)));
    const schedules = kept(
      b.schedules,
      (r) =>
        (once(`r${b.id}`, r.id) || away('schedule', r.name, 'twice')) &&
        ([...accountsOfRow(r)].every((a) => isKnown(b, a)) || away('schedule', r.name, 'noSuchAccount')) &&
        (segmentsOfRow(r).every((s) => segments.has(s)) || away('schedule', r.name, 'noSuchSegment')),
    );
    const applied = kept(
      b.applied,
      ({ adjustment: a }) =>
        (once(`a${b.id}`, a.id) || away('adjustment', a.name, 'twice')) &&
        ([...accountsOfAdjusts(a.what)].every((id) => isKnown(b, id)) ||
          away('adjustment', a.name, 'noSuchAccount')),
    );
    const contras = keptEntries(
      b.contras,
      (of, against) =>
        (isKnown(b, of) && isKnown(b, against) && of !== against) ||
        away('schedule', b.name, 'noSuchAccount'),
    );
    const turns = circles.has(b.id);
    if (turns) away('revises', b.name, 'circle');
    const same =
      soundLines === b.lines &&
      drivers === b.drivers &&
      terms === b.terms &&
      guessed === b.guessed &&
      schedules === b.schedules &&
      applied === b.applied &&
      contras === b.contras;
    return same && !turns
      ? b
      : {
          ...b,
          lines: soundLines,
          drivers,
          terms,
          guessed,
          schedules,
          applied,
          contras,
          revises: turns ? null : b.revises,
        };
  });
  const there = new Map(budgets.map((b) => [b.id, b]));
  const inForce = kept(book.inForce, ({ budget, from }) => {
    const b = there.get(budget);
    // Of a budget that was told to be gone nothing more is said.
    if (!b) return plans.has(budget) ? false : away('inForce', budget, 'noSuchBudget');
    return has(from) || away('inForce', b.name, 'noSuchPeriod');
  });
  const cash = soundCash(book.cash, known, away);
  const locale = isLocale(book.locale);
  if (!locale) away('locale', book.locale, 'unknownLocale');
  if (setAside.length === 0) return { book, setAside };
  return {
    book: {
      ...book,
      accounts,
      sources,
      axes,
      merged,
      weights,
      varianceNotes,
      messages,
      flags,
      outlookWays,
      quantities,
      flowClasses,
      variableShares,
      covenants,
      ownRatios,
      adjustments,
      cases,
      rounds,
      layouts,
      budgets,
      inForce,
      cash,
      closedThrough: closed ? book.closedThrough : null,
      locale: locale ? book.locale : 'en-US',
    },
    setAside,
  };
}

/** What money follows, without what names an account that is not there or stands twice. */
function soundCash(
  cash: Cash,
  known: ReadonlySet<string>,
  away: (part: SetAside['part'], name: string, because: SetAside['because']) => false,
): Cash {
  const once = firstOf();
  const there = (account: string | null, name: string) =>
    account === null || known.has(account) || away('cash', name, 'noSuchAccount');
  const items = kept(
    cash.items,
    (i) => (once('i', i.id) || away('cash', i.number, 'twice')) && there(i.account, i.number),
  );
  const dated = kept(
    cash.dated,
    (d) =>
      (once('d', d.id) || away('cash', d.name, 'twice')) && there(d.against, d.name) && there(d.bank, d.name),
  );
  const taxes = kept(
    cash.taxes,
    (t) => (once('t', t.id) || away('cash', t.name, 'twice')) && there(t.payable, t.name),
  );
  const line = cash.creditLine;
  const keepsLine = line === null || [line.account, line.interest].every((a) => there(a, 'creditLine'));
  const opening = cash.opening && keptEntries(cash.opening.amounts, (a) => there(a, a));
  const bank = there(cash.bank, 'bank') ? cash.bank : null;
  const told = new Set<string>();
  const balances = kept(
    cash.banks.balances,
    (b) =>
      there(b.account, b.day) &&
      ((!told.has(b.account) && Boolean(told.add(b.account))) || away('cash', b.day, 'twice')),
  );
  const statements = kept(
    cash.banks.statements,
    (s) => (once('s', s.id) || away('cash', s.from, 'twice')) && there(s.account, s.from),
  );
  // When a balance of an account that is gone had run off is no loss.
  const runOffEnds = keptEntries(cash.runOffEnds, (a) => known.has(a));
  const numbers = keptEntries(cash.banks.numbers, (number, a) => there(a, number));
  const floors = keptEntries(cash.banks.floors, (a) => there(a, a));
  const sameBanks =
    balances === cash.banks.balances &&
    statements === cash.banks.statements &&
    numbers === cash.banks.numbers &&
    floors === cash.banks.floors;
  const same =
    items === cash.items &&
    dated === cash.dated &&
    taxes === cash.taxes &&
    keepsLine &&
    (opening === null || opening === cash.opening!.amounts) &&
    bank === cash.bank &&
    runOffEnds === cash.runOffEnds &&
    sameBanks;
  if (same) return cash;
  return {
    ...cash,
    items,
    dated,
    taxes,
    bank,
    runOffEnds,
    creditLine: keepsLine ? line : null,
    banks: sameBanks ? cash.banks : { ...cash.banks, balances, statements, numbers, floors },
    opening: cash.opening && { ...cash.opening, amounts: opening! },
  };
}

/** Why a budget cannot be kept at all; null when it can. */
function budgetFault(
  b: Budget,
  calendar: FiscalCalendar,
  segmentsOf: ReadonlyMap<string, ReadonlySet<string | null>>,
): SetAside['because'] | null {
  const first = indexOfId(calendar, b.first);
  if (first === null) return 'noSuchPeriod';
  if ((b.state === 'draft') === (b.approved !== null)) return 'stateUnclear';
  if (b.axis !== null && !segmentsOf.has(b.axis)) return 'noSuchAxis';
  const values = b.axis === null ? null : segmentsOf.get(b.axis)!;
  if (new Set(b.segments).size !== b.segments.length) return 'twice';
  if (b.segments.some((s) => s !== null && !values?.has(s))) return 'noSuchSegment';
  const years = 1 + calendar.period(first + b.length - 1).year - calendar.period(first).year;
  const whole = (l: { readonly amounts: readonly unknown[]; readonly wholes: readonly unknown[] }) =>
    l.amounts.length === b.length && (l.wholes.length === 0 || l.wholes.length === years);
  return b.approved?.lines.every(whole) === false ? 'figuresMissing' : null;
}

/** Budgets that revise themselves by way of others. */
function inCircle(budgets: Book['budgets']): ReadonlySet<string> {
  const of = new Map(budgets.map((b) => [b.id, b.revises?.budget]));
  const found = new Set<string>();
  for (const b of budgets) {
    const way = new Set<string>();
    for (let at: string | undefined = b.id; at !== undefined; at = of.get(at)) {
      if (way.has(at)) {
        if (at === b.id) found.add(b.id);
        break;
      }
      way.add(at);
    }
  }
  return found;
}

/** Whether numbers can be written by a locale: one that is none would stop every screen. */
export function isLocale(text: string): boolean {
  try {
    return Intl.getCanonicalLocales(text).length === 1;
  } catch {
    return false;
  }
}

/** Says of ids, each under a heading, whether they come for the first time. */
function firstOf(): (heading: string, id: string) => boolean {
  const met = new Set<string>();
  return (heading, id) => met.size < met.add(`${heading}\n${id}`).size;
}

/** The items that pass; the same list when all do. */
function kept<T>(list: readonly T[], passes: (item: T) => boolean): T[] {
  const out = list.filter(passes);
  return out.length === list.length ? (list as T[]) : out;
}

/** The items as they are kept, without those that are not; the same list when all are kept as they are. */
function keptAs<T>(list: readonly T[], keep: (item: T) => T | null): T[] {
  const out = list.flatMap((item) => keep(item) ?? []);
  return out.length === list.length && out.every((item, i) => item === list[i]) ? (list as T[]) : out;
}

function keptEntries<V>(
  record: Readonly<Record<string, V>>,
  passes: (key: string, value: V) => boolean,
): Record<string, V> {
  const all = Object.entries(record);
  const out = all.filter(([k, v]) => passes(k, v));
  return out.length === all.length ? (record as Record<string, V>) : Object.fromEntries(out);
}
