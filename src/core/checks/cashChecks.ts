import { fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import { CLOSING } from '@/core/ledger';
import { minor, plainDecimal } from '@/core/money';
import { isProfitAndLoss, profitSign, type AccountKind, type Budget } from '@/core/model';
import type { CovenantState } from '@/core/statements';
import {
  aheadOf,
  bankFloors,
  offBalance,
  type Ahead,
  type CashView,
  ALL_SOURCES,
  cashOf,
  closingsAt,
  covenantsOf,
  linesApart,
  madeAhead,
  madeBy,
  outlookAt,
  planNames,
  reckoned,
  scheduleTies,
  unborneOf,
  type Ground,
} from '@/core/ground';
import type { Check } from './checks';

/**
 * The checks of the money ahead, by the plan in force (or by `chosen`, the id of a budget that is looked at instead): none
 * where nothing is known of it. What is reckoned day by day is added up once more from the postings, and the start from the
 * ledger's entries.
 */
export function checkCash(ground: Ground, chosen: string | null): Check[] {
  const budget = ground.book.budgets.find((b) => b.id === chosen) ?? null;
  const checks = checksBy(ground, budget);
  const plan = budget?.name ?? planNames(ground).join(', ');
  return plan === '' ? checks : checks.map((c) => ({ ...c, plan }));
}

/** Kinds of account that someone is owed on, and that have no items or terms of their own to be paid by. */
const OWED: ReadonlySet<AccountKind> = new Set(['loan', 'otherLiability', 'taxPayable', 'payable']);

function checksBy(ground: Ground, budget: Budget | null): Check[] {
  const { book } = ground;
  const view = cashOf(ground, budget, ALL_SOURCES);
  if (!view) return [];
  const { forecast, projected, input } = view;
  const plans = budget ? [budget] : view.plans.map((p) => p.budget);
  // The floor is held against the forecast that is the company's own, as the screens show it.
  const { below, low } = (cashOf(ground, budget) ?? view).forecast;
  const money = (amount: number) => plainDecimal(minor(amount), book.currency);
  const check = (code: Check['code'], off: number): Check => ({
    code,
    subject: '',
    holds: off === 0,
    detail: off === 0 ? '' : money(off),
  });
  const out: Check[] = [];
  if (view.opening === 'ledger')
    out.push(check('cashOpening', projected.opening - bankOfLedger(ground, input.start)));
  const last = input.start + forecast.closing.length;
  const stands = closingsAt(view, [last]);
  let [bank, sum, opened] = [0, 0, 0];
  for (const [id, [amount]] of stands) {
    sum += amount!;
    opened += input.opening.get(id) ?? 0;
  }
  projected.table.ids.forEach((id, place) => {
    if (projected.isBank(place)) bank += stands.get(id)?.[0] ?? 0;
  });
  out.push(check('cashPostings', (forecast.closing.at(-1) ?? forecast.opening) - bank));
  out.push(check('cashBalanced', sum - opened));
  const all = [view.withoutItems.in, -view.withoutItems.out];
  // What a list has beyond the ledger is a fault of one of them; what it lacks has other ways to come.
  const listed = (side: 'in' | 'out') =>
    view.items.filter((i) => i.side === side && i.kind === 'invoice' && i.from !== null);
  const over = (['in', 'out'] as const).filter((side, i) => all[i]! < 0 && listed(side).length > 0);
  const left = all.filter((v, i) => v !== 0 && !over.includes(i === 0 ? 'in' : 'out'));
  for (const side of over)
    out.push({
      code: 'itemsOver',
      subject: [...new Set(listed(side).map((i) => i.from))].join(', '),
      holds: false,
      detail: money(Math.abs(view.withoutItems[side])),
    });
  const invoices = new Set(book.cash.items.flatMap((i) => (i.kind === 'invoice' ? [i.from] : [])));
  // A list of both sides is one list.
  const days = new Map<string, Day | null>();
  for (const l of book.cash.lists) if (!days.has(l.from)) days.set(l.from, l.day);
  for (const [from, day] of days)
    if (day !== null && toDayNumber(day) < input.start && invoices.has(from))
      out.push({ code: 'listOfDay', subject: from, holds: false, notice: true, detail: day });
  if (view.items.length > 0)
    out.push({
      code: 'itemsTie',
      subject: '',
      holds: left.length === 0,
      notice: true,
      detail: left.map(money).join(', '),
    });
  // A debt that stands to the last day as it stood at the start is paid by nobody.
  const unpaid = book.accounts.filter(({ id, kind }) => {
    const stood = input.opening.get(id) ?? 0;
    return OWED.has(kind) && stood < 0 && (stands.get(id)?.[0] ?? stood) === stood;
  });
  if (unpaid.length > 0)
    out.push({
      code: 'debtsPaid',
      subject: '',
      holds: false,
      notice: true,
      detail: unpaid.map((a) => `${a.name} ${money(-input.opening.get(a.id)!)}`).join(', '),
    });
  const waiting = view.missed.filter((m) => m.state === 'counted' || m.state === 'held');
  if (view.missed.length > 0) {
    const names = [...new Set(waiting.map((m) => m.name))];
    out.push({
      code: 'plannedCame',
      subject: '',
      holds: waiting.length === 0,
      notice: true,
      detail: [...names.slice(0, 3), ...(names.length > 3 ? ['…'] : [])].join(', '),
    });
  }
  out.push(...checkBanks(ground, view));
  out.push(...checkProfit(ground, budget, view));
  out.push(...checkStatements(ground, budget), ...plans.flatMap((p) => checkSchedules(ground, p)));
  if (book.cash.floor !== null) {
    const [first] = below;
    out.push({
      code: 'floorKept',
      subject: money(book.cash.floor),
      holds: first === undefined,
      notice: true,
      detail: first
        ? `${fromDayNumber(first.from)} – ${fromDayNumber(below.at(-1)!.to)}, ${money(low!.amount)}`
        : '',
    });
  }
  return out;
}

/** The profit of the outlook, line by line, is that of the statements, which is read off all postings; and what it leaves out. */
function checkProfit(ground: Ground, budget: Budget | null, view: CashView): Check[] {
  const { book, calendar } = ground;
  const money = (amount: number) => plainDecimal(minor(amount), book.currency);
  const out: Check[] = [];
  const apart = unborneOf(view);
  if (apart.length > 0)
    out.push({
      code: 'madeInPlan',
      subject: '',
      holds: false,
      notice: true,
      detail: apart
        .map(({ account, amount }) =>
          [book.accounts.find((a) => a.id === account)?.name, money(amount)].filter(Boolean).join(' '),
        )
        .join(', '),
    });
  const ahead = aheadOf(ground, budget);
  // A place's budget looked at by itself is not the company that its statements are of.
  if (!ahead || (budget && budget.axis !== null)) return out;
  const plans = budget ? madeBy(ground, budget) : { ...ground, made: madeAhead };
  const off = view.input.periods.flatMap(({ index }) => {
    const by = view.plans.filter((p) => p.periods.some((q) => q.index === index)).map((p) => p.budget);
    if (by.length === 0) return [];
    let sum = 0;
    for (const a of ahead.accounts)
      sum -= isProfitAndLoss(a.kind) ? (ahead.balances.movement(a.id, index) ?? 0) : 0;
    for (const b of by) {
      const whole = reckoned(plans, b);
      for (const a of book.accounts)
        if (isProfitAndLoss(a.kind))
          sum -= profitSign(a.kind) * (outlookAt(whole, a.id, b.segments, index) ?? 0);
    }
    return sum === 0 ? [] : [`${calendar.period(index).label}, ${money(sum)}`];
  });
  out.push({ code: 'profitOne', subject: '', holds: off.length === 0, detail: off[0] ?? '' });
  return out;
}

/**
 * What banks say of days after the closed one: what they held comes to the ledger's balance, its uncleared entries and their
 * movements; days without movements are told, and balances that say nothing of days ahead.
 */
function checkBanks({ book }: Ground, view: CashView): Check[] {
  const { today, input } = view;
  const name = (account: string) => book.accounts.find((a) => a.id === account)?.name ?? account;
  const money = (amount: number) => plainDecimal(minor(amount), book.currency);
  const day = (n: number) => fromDayNumber(n);
  const used = new Set(today?.stands.map((s) => s.account));
  const unused = book.cash.banks.balances
    .filter((b) => !used.has(b.account))
    .map((b): Check => ({
      code: 'bankUsed',
      subject: name(b.account),
      holds: false,
      notice: true,
      detail: b.day,
    }));
  const told = (today?.stands ?? []).flatMap(({ account, gaps, day: last, atStart }): Check[] => {
    const off = today!.off.get(account)!;
    const out: Check[] = [];
    if (gaps.length > 0)
      out.push({
        code: 'bankKnown',
        subject: name(account),
        holds: false,
        notice: true,
        detail: gaps.map((g) => `${day(g.from)} – ${day(g.to)}`).join(', '),
      });
    // Where days are not known, what moved on them is no fault.
    const [by, on] =
      off.atStart !== 0 ? [off.atStart, input.start] : gaps.length === 0 ? [off.atEnd, last] : [0, last];
    if (atStart !== null || gaps.length === 0)
      out.push({
        code: 'bankTies',
        subject: name(account),
        holds: by === 0,
        detail: by === 0 ? '' : `${money(by)}, ${day(on)}`,
      });
    return out;
  });
  const floors = bankFloors(view, book.cash.banks.floors).map((f): Check => ({
    code: 'bankFloor',
    subject: [name(f.account), money(f.floor)].join('\t'),
    holds: f.under === null,
    notice: true,
    detail: f.under ? `${day(f.under.from)} – ${day(f.under.until)}, ${money(f.low.amount)}` : '',
  }));
  return [...told, ...unused, ...floors];
}

/** What the banks hold at the end of a day, entry by entry. */
function bankOfLedger({ book, blocks, view }: Ground, until: number): number {
  const banks = new Set(book.accounts.filter((a) => a.kind === 'bank').map((a) => a.id));
  let sum = 0;
  for (const block of blocks) {
    const isBank = block.accounts.map((a) => banks.has(view.merged.get(a) ?? a));
    for (let i = 0; i < block.count; i++)
      if (block.day[i]! <= until && block.mark[i] !== CLOSING && isBank[block.account[i]!])
        sum += block.amount[i]!;
  }
  return sum;
}

/** Where the ledger has balances, all accounts together stand at nothing: what they are off by is named. */
function sheetBalances({ book, calendar }: Ground, ahead: Ahead): Check[] {
  if (ahead.view.opening !== 'ledger') return [];
  const off = offBalance(ahead, ahead.start);
  const detail =
    off === 0 ? '' : `${plainDecimal(minor(off), book.currency)} in ${calendar.period(ahead.start).label}`;
  return [{ code: 'sheetBalances', subject: '', holds: off === 0, detail }];
}

/** Schedules: they stand where the ledger stands, and the lines that they post to are made by them. */
function checkSchedules(ground: Ground, budget: Budget): Check[] {
  const { book, calendar } = ground;
  if (budget.schedules.length === 0) return [];
  const name = (account: string) => book.accounts.find((a) => a.id === account)?.name ?? account;
  const [off] = scheduleTies(ground, budget).filter((t) => t.ledger !== t.schedules);
  const [apart] = linesApart(ground, budget);
  const money = (amount: number) => plainDecimal(minor(amount), book.currency);
  return [
    {
      code: 'schedulesTie',
      subject: budget.name,
      holds: off === undefined,
      notice: true,
      detail: off ? `${name(off.account)} ${money(off.schedules - off.ledger)}` : '',
    },
    {
      code: 'schedulesMade',
      subject: budget.name,
      holds: apart === undefined,
      notice: true,
      detail: apart
        ? `${name(apart.account)}, ${calendar.period(apart.period).label}, ${money(apart.by)}`
        : '',
    },
  ];
}

/** The statements: profit leads to the bank in every period, and covenants are kept. */
function checkStatements(ground: Ground, budget: Budget | null): Check[] {
  const { book, calendar } = ground;
  const ahead = aheadOf(ground, budget);
  if (!ahead) return [];
  const { balances, accounts, last } = ahead;
  const first = balances.range?.first ?? last + 1;
  const off: string[] = [];
  for (let p = first; p <= last; p++) {
    let [sum, stands] = [0, false];
    for (const a of accounts) {
      const moved = balances.movement(a.id, p);
      if (moved === null) continue;
      sum += moved;
      stands ||= !isProfitAndLoss(a.kind);
    }
    // A month that tells profit and loss alone has no other side to be held against.
    if (stands && sum !== 0)
      off.push(`${calendar.period(p).label} ${plainDecimal(minor(sum), book.currency)}`);
  }
  return [
    { code: 'flowTies', subject: '', holds: off.length === 0, detail: off[0] ?? '' },
    ...sheetBalances(ground, ahead),
    ...covenantsOf(ground, ahead).flatMap((state) => covenantChecks(ground, state)),
  ];
}

/** A covenant is kept where its ratio is known; where it is not, nothing is kept, and that is told. */
function covenantChecks({ book, calendar }: Ground, state: CovenantState): Check[] {
  const { covenant, broken, tested, unknown } = state;
  const { name, ratio } = covenant;
  // Of a ratio of the trade its id, of one of the book's own its name.
  const own = typeof ratio === 'string' ? ratio : book.ownRatios.find((r) => r.id === ratio.own)?.name;
  const subject = [name, own ?? ''].join('\t');
  const of = (code: Check['code'], fails: number | null): Check => ({
    code,
    subject,
    holds: fails === null,
    notice: true,
    detail: fails === null ? '' : calendar.period(fails).label,
  });
  return [
    ...(unknown.length < tested ? [of('covenantKept', broken)] : []),
    ...(tested > 0 ? [of('covenantKnown', unknown[0] ?? null)] : []),
  ];
}
