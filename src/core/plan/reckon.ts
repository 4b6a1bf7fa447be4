import {
  isAmount,
  MOST_AMOUNT,
  plus,
  minor,
  ratio,
  UnsafeMoneyError,
  type Minor,
  type Ratio,
} from '@/core/money';
import { changedBy, type AmountChange, type ChangeGround } from '@/core/scenario';
import { lineKey, type Driver, type Line, type LineRef, type Ref, type ScheduleRow } from '@/core/model';
import {
  computeDriver,
  computeDriverMonth,
  driverNeeds,
  driverRatio,
  isMonthlyDriver,
  type DriverResult,
} from './drivers';
import { NO_CHANGES } from './changes';
import type { Facts } from './facts';
import { graphOf, taxAccounts, type Graph, type Node, type Plan } from './graph';
import { madeOn, NOTHING_MADE, sameMadeLine, sameMadeLines, withMade, type MadeLine } from './made';
import { computeLine, computeMonth, isMonthly, needsOf } from './methods/table';
import {
  bookedProfit,
  reckonRow,
  rowGround,
  rowRange,
  scheduledAmounts,
  touchedBy,
  type RowResult,
} from './rows';
import { LinePlaces, LineResults, sameAmounts, totalOf, type LineResult, type Reckoning } from './results';
import type { Amounts, Context, LineIssue, Need } from './rule';
import { rowNeeds, type RowGround } from '@/core/schedule';

export type { LineResult, Reckoning } from './results';

export type Reckoner = (plan: Plan, facts: Facts) => Reckoning;

/**
 * A reckoner that remembers its last run: a line is computed again only when it is another object than before, or
 * when something that it needs changed. A run from scratch gives the same (a test holds it to that).
 */
export function createReckoner(): Reckoner {
  let last: Run | null = null;
  return (plan, facts) => {
    if (last && last.facts === facts && samePlan(last.plan, plan)) return last.result;
    const again = last && last.facts === facts && Boolean(last.plan.approved) === Boolean(plan.approved);
    const next = again ? last!.again(plan) : null;
    last = next ?? Run.whole(plan, facts);
    return last.result;
  };
}

const samePlan = (a: Plan, b: Plan): boolean =>
  a.lines === b.lines &&
  a.drivers === b.drivers &&
  a.schedules === b.schedules &&
  a.made === b.made &&
  a.changes === b.changes &&
  Boolean(a.approved) === Boolean(b.approved);

const NO_WHOLES: Amounts = [];
const NO_ROWS: readonly ScheduleRow[] = [];

class Run {
  private readonly lineResults: LineResult[];
  private readonly driverResults: DriverResult[];
  private readonly rowResults: RowResult[];
  /** Sums of groups and kinds, by node. */
  private readonly sums: Map<number, Amounts>;
  private cyclic: ReadonlySet<string>;
  result!: Reckoning;

  private constructor(
    readonly plan: Plan,
    readonly facts: Facts,
    private readonly graph: Graph,
    private readonly places: LinePlaces,
    before: Run | null,
  ) {
    this.lineResults = before ? [...before.lineResults] : [];
    this.driverResults = before ? [...before.driverResults] : [];
    this.rowResults = before ? [...before.rowResults] : [];
    this.sums = before ? new Map(before.sums) : new Map();
    this.cyclic = before?.cyclic ?? new Set();
  }

  static whole(plan: Plan, facts: Facts): Run {
    const places = new LinePlaces(plan.lines);
    const run = new Run(plan, facts, graphOf(plan, places, facts), places, null);
    const cyclic = new Set<string>();
    for (const c of run.graph.components)
      if (c.kind === 'cycle')
        for (const n of c.nodes) {
          const node = run.graph.nodes[n]!;
          if (node.kind === 'line') cyclic.add(lineKey(plan.lines[node.line]!));
        }
    run.cyclic = cyclic;
    for (let at = 0; at < run.graph.components.length; at++) run.component(at);
    return run.finish();
  }

  /** Only what changed since this run, and what depends on it; null when lines came, went or need other things. */
  again(plan: Plan): Run | null {
    const dirty: number[] = [];
    const compare = <T extends Line | Driver | ScheduleRow>(
      was: readonly T[],
      now: readonly T[],
      alike: (a: T, b: T) => boolean,
      shift: number,
    ): boolean => {
      if (was === now) return true;
      if (was.length !== now.length) return false;
      for (let i = 0; i < now.length; i++) {
        if (was[i] === now[i]) continue;
        if (!alike(was[i]!, now[i]!)) return false;
        dirty.push(shift + i);
      }
      return true;
    };
    const { lines, drivers, schedules = NO_ROWS } = this.plan;
    if (
      !compare(lines, plan.lines, sameLine, 0) ||
      !compare(drivers, plan.drivers, sameDriver, lines.length) ||
      !compare(
        schedules,
        plan.schedules ?? NO_ROWS,
        (a, b) => sameTouch(a, b, this.facts),
        lines.length + drivers.length,
      )
    )
      return null;
    const [was, now] = [this.plan.made ?? NOTHING_MADE, plan.made ?? NOTHING_MADE];
    if (!sameMadeLines(was, now)) return null;
    const [before, changes] = [this.plan.changes ?? NO_CHANGES, plan.changes ?? NO_CHANGES];
    if (before.needs !== changes.needs || !sameLines(before.added, changes.added)) return null;
    if (before !== changes) {
      for (const [was, now] of [
        [before, changes],
        [before.first, changes.first],
      ] as const) {
        for (const key of changedKeys(was.lines, now.lines)) {
          const place = this.places.ofKey(key);
          if (place !== undefined) dirty.push(place);
        }
        for (const id of changedKeys(was.drivers, now.drivers)) {
          const n = this.graph.driverNode(id);
          if (n !== undefined) dirty.push(n);
        }
      }
    }
    now.forEach((m, i) => {
      const place = sameMadeLine(was[i]!, m) ? undefined : this.places.of(m);
      if (place !== undefined) dirty.push(place);
    });
    const run = new Run(plan, this.facts, this.graph, this.places, this);
    run.follow(dirty);
    return run.finish();
  }

  private follow(dirty: readonly number[]): void {
    const { placeOf, dependents, components } = this.graph;
    // Components stand in the order of their needs, so the smallest place is always ready.
    const waiting = new Set(dirty.map((n) => placeOf[n]!));
    const order = [...waiting].sort((a, b) => b - a);
    while (order.length > 0) {
      const at = order.pop()!;
      waiting.delete(at);
      const changed = this.component(at);
      if (!changed) continue;
      const c = components[at]!;
      for (const n of c.kind === 'one' ? [c.node] : c.nodes)
        for (const d of dependents.get(n) ?? []) {
          if (d === at || waiting.has(d)) continue;
          waiting.add(d);
          let place = order.length;
          while (place > 0 && order[place - 1]! < d) place--;
          order.splice(place, 0, d);
        }
    }
  }

  private finish(): Run {
    const { plan } = this;
    const { changes = NO_CHANGES } = plan;
    this.result = {
      lines: new LineResults(plan.lines, this.places, this.lineResults),
      drivers: new Map(plan.drivers.map((driver, i) => [driver.id, { ...this.driverResults[i]!, driver }])),
      rows: new Map(this.rowResults.map((r) => [r.row.id, r])),
      scheduled: (ref) =>
        this.graph.rowsOf.has(ref.account) || this.madeOf(ref) ? this.scheduledOf(ref).amounts : null,
      rowGround: () => this.rowGround(),
      cyclic: this.cyclic,
      contextOf: (line) => this.contextOf(line),
      stepsOf: (line, amounts, which) => this.stepsOf(line, amounts, which),
      unreached: changes.unreached,
    };
    return this;
  }

  /** Reckons a component; whether any figure of it is another than before. */
  private component(at: number): boolean {
    const c = this.graph.components[at]!;
    if (c.kind === 'one') return this.node(c.node);
    if (c.kind === 'cycle') return c.nodes.map((n) => this.blank(n)).includes(true);
    return this.byMonth(c.nodes);
  }

  private node(n: number): boolean {
    const node = this.graph.nodes[n]!;
    switch (node.kind) {
      case 'line': {
        const line = this.plan.lines[node.line]!;
        const made = computeLine(line, this.contextOf(line));
        return this.keepLine(node.line, made.amounts, made.issue, made.wholes ?? NO_WHOLES);
      }
      case 'driver': {
        const driver = this.plan.drivers[node.driver]!;
        if (!isMonthlyDriver(driver)) {
          const { values, issue } = computeDriver(driver, this.facts);
          return this.keepDriver(node.driver, {
            values: this.changedDriver(driver, values as Amounts),
            issue,
          });
        }
        return this.byMonth([n]);
      }
      case 'row':
        return this.keepRow(node.row, this.makeRow(node.row));
      case 'sum':
        return this.keepSum(
          n,
          this.facts.periods.map((_, i) => this.sumAt(node.members, i)),
        );
    }
  }

  /** A node that can be reckoned month by month: a row never comes here. */
  private monthly(n: number): Exclude<Node, { kind: 'row' }> {
    const node = this.graph.nodes[n]!;
    if (node.kind === 'row') throw new Error('A row is reckoned whole');
    return node;
  }

  /** Nodes that need each other's earlier months: month after month, each in its order. */
  private byMonth(nodes: readonly number[]): boolean {
    const made = nodes.map(() => [] as (number | null)[]);
    const issues: (LineIssue | null)[] = nodes.map(() => null);
    const before = nodes.map((n) => this.figures(n));
    nodes.forEach((n, k) => this.begin(n, made[k]!));
    /** Lines as their methods have them, before what was taken into the plan; and before what a case makes of them, as drivers are. */
    const plain = nodes.map(() => [] as (Minor | null)[]);
    const bases = nodes.map(() => [] as (Minor | null)[]);
    for (let i = 0; i < this.facts.periods.length; i++)
      nodes.forEach((n, k) => {
        const node = this.monthly(n);
        if (node.kind === 'sum') made[k]!.push(this.sumAt(node.members, i));
        else if (node.kind === 'driver') {
          const driver = this.plan.drivers[node.driver]!;
          const { value, issue } = computeDriverMonth(driver, i, (id, m) => this.driverAt(id, m));
          const base = bases[k]!;
          base.push(value as Minor | null);
          made[k]!.push(this.changedDriver(driver, base)[i] ?? null);
          issues[k] ??= issue;
        } else {
          const line = this.plan.lines[node.line]!;
          const { amount, issue } = computeMonth(line, this.contextOf(line), i);
          made[k]!.push(amount);
          issues[k] ??= issue;
          const typed = this.typedAt(line, i);
          const shown = this.lineResults[node.line]!.amounts as (Minor | null)[];
          const base = bases[k]!;
          plain[k]!.push(amount);
          base.push(typed === undefined ? (this.begun(line, plain[k]!, BY_MONTH).amounts[i] ?? null) : typed);
          shown.push(this.changed(line, base, BY_MONTH).amounts[i] ?? null);
        }
      });
    let changed = false;
    nodes.forEach((n, k) => {
      const node = this.monthly(n);
      const values = made[k]! as (Minor | null)[];
      this.put(n, before[k]);
      const kept =
        node.kind === 'sum'
          ? this.keepSum(n, values)
          : node.kind === 'driver'
            ? this.keepDriver(node.driver, { values, issue: issues[k]! })
            : this.keepLine(node.line, values, issues[k]!, NO_WHOLES, BY_MONTH);
      changed ||= kept;
    });
    return changed;
  }

  private figures(n: number): unknown {
    const node = this.monthly(n);
    if (node.kind === 'sum') return this.sums.get(n);
    return node.kind === 'driver' ? this.driverResults[node.driver] : this.lineResults[node.line];
  }

  private put(n: number, was: unknown): void {
    const node = this.monthly(n);
    if (node.kind === 'sum') {
      if (was) this.sums.set(n, was as Amounts);
      else this.sums.delete(n);
    } else if (node.kind === 'driver') this.driverResults[node.driver] = was as DriverResult;
    else this.lineResults[node.line] = was as LineResult;
  }

  /** Lets what needs earlier months of a node see them while they are made. */
  private begin(n: number, months: (number | null)[]): void {
    const node = this.monthly(n);
    if (node.kind === 'sum') this.sums.set(n, months as Amounts);
    else if (node.kind === 'driver') this.driverResults[node.driver] = { values: months, issue: null };
    else
      this.lineResults[node.line] = {
        amounts: [],
        method: [],
        typed: [],
        wholes: NO_WHOLES,
        total: null,
        issue: null,
      };
  }

  private blank(n: number): boolean {
    const node = this.graph.nodes[n]!;
    const none = this.facts.periods.map(() => null);
    if (node.kind === 'line') return this.keepLine(node.line, none, 'cycle', NO_WHOLES);
    if (node.kind === 'driver') return this.keepDriver(node.driver, { values: none, issue: 'cycle' });
    if (node.kind === 'row') {
      const row = this.plan.schedules![node.row]!;
      const { first } = rowRange(this.facts);
      return this.keepRow(node.row, { row, first, postings: [], moves: new Map(), issue: 'cycle' });
    }
    return this.keepSum(n, none);
  }

  private keepLine(
    place: number,
    method: Amounts,
    stopped: LineIssue | null,
    wholes: Amounts,
    how: ByMonth | null = null,
  ): boolean {
    const line = this.plan.lines[place]!;
    const old = this.lineResults[place];
    const typed = typedMonths(line, this.facts);
    const { amounts: begun, issue: first } = this.begun(line, method, how);
    const own = typed === NOT_TYPED ? begun : begun.map((a, i) => (typed[i] ? this.typedAt(line, i)! : a));
    const { amounts, issue: beyond } = this.changed(line, own, how);
    const issue = first ?? beyond ?? stopped;
    // Equal amounts keep their identity, so that whatever was made from them still stands.
    const steady = old !== undefined && sameAmounts(old.amounts, amounts) && sameAmounts(old.wholes, wholes);
    const shown = steady ? old.amounts : amounts;
    this.lineResults[place] = {
      amounts: shown,
      method: steady && method === amounts ? shown : method,
      typed,
      wholes: steady ? old.wholes : wholes,
      total: totalOf(amounts, wholes, this.facts.isBalance(line.account)),
      issue,
    };
    return !steady;
  }

  /** Amounts of a line as a case leaves them; the same list where it says nothing of it. */
  private changed(line: Line, own: Amounts, how: ByMonth | null): Changed {
    return this.after(this.changesOf(line), line, own, how);
  }

  /** Amounts of a line's method as what was taken into the plan leaves them. */
  private begun(line: Line, method: Amounts, how: ByMonth | null): Changed {
    return this.after(this.firstOf(line), line, method, how);
  }

  private after(all: readonly AmountChange[], line: Line, own: Amounts, how: ByMonth | null): Changed {
    if (all.length === 0) return { amounts: own, issue: null };
    const ground = this.changeGround(line);
    try {
      let amounts = own;
      for (const c of all) if (how === null || isByMonth(c)) amounts = changedBy(c, amounts, ground);
      return amounts.every((a) => a === null || isAmount(a))
        ? { amounts, issue: null }
        : { amounts: own.map(() => null), issue: 'tooLarge' };
    } catch (error) {
      if (error instanceof UnsafeMoneyError) return { amounts: own.map(() => null), issue: 'tooLarge' };
      throw error;
    }
  }

  private changesOf(line: LineRef): readonly AmountChange[] {
    const { changes = NO_CHANGES } = this.plan;
    return changes === NO_CHANGES ? NO_LIST : (changes.lines.get(lineKey(line)) ?? NO_LIST);
  }

  private firstOf(line: LineRef): readonly AmountChange[] {
    const { changes = NO_CHANGES } = this.plan;
    return changes === NO_CHANGES ? NO_LIST : (changes.first.lines.get(lineKey(line)) ?? NO_LIST);
  }

  /** What each change of a line makes of it, from what it is without them; for the reasons of a month. */
  private stepsOf(
    line: Line,
    own: Amounts,
    which: 'first' | 'case',
  ): { readonly change: AmountChange; readonly after: Amounts }[] {
    const ground = this.changeGround(line);
    let amounts = own;
    return (which === 'first' ? this.firstOf(line) : this.changesOf(line)).map((change) => ({
      change,
      after: (amounts = changedBy(change, amounts, ground)),
    }));
  }

  private changeGround(line: Line): ChangeGround {
    const { facts } = this;
    const first = facts.periods[0]!.index;
    const context = this.contextOf(line);
    const made = new Map<readonly string[], Amounts>();
    return {
      unit: facts.unit,
      actual: (i) =>
        i < 0 || facts.isActual(first + i) ? facts.actual(line.account, line.segment, first + i) : null,
      value(name, i) {
        if (name.of === 'driver') return context.driver(name.driver, i) ?? null;
        const amount = context.amount(name, i);
        return amount === null ? null : ratio(amount, facts.unit);
      },
      rows: (rows, i) => {
        let amounts = made.get(rows);
        if (!amounts) {
          const own = this.rowResults.filter((r) => rows.includes(r.row.id));
          made.set(rows, (amounts = scheduledAmounts(own, facts, line.account, line.segment)));
        }
        return amounts[i] ?? 0;
      },
    };
  }

  /** Values of a driver as a case leaves them; blank where they come to more than a quantity may be. */
  private changedDriver(driver: Driver, own: Amounts): Amounts {
    const { changes = NO_CHANGES } = this.plan;
    const all = [
      ...(changes.first.drivers.get(driver.id) ?? NO_LIST),
      ...(changes.drivers.get(driver.id) ?? NO_LIST),
    ];
    if (all.length === 0) return own;
    const ground: ChangeGround = {
      unit: 10 ** driver.decimals,
      actual: (i) => (i < 0 ? (driver.opening as Minor | null) : null),
      value: (name, i) => (name.of === 'driver' ? (this.driverAt(name.driver, i) ?? null) : null),
      rows: () => 0,
    };
    try {
      const out = all.reduce((amounts, c) => changedBy(c, amounts, ground), own);
      return out.map((a) => (a === null || isAmount(a) ? a : null));
    } catch (error) {
      if (error instanceof UnsafeMoneyError) return own.map(() => null);
      throw error;
    }
  }

  private keepDriver(place: number, next: DriverResult): boolean {
    const old = this.driverResults[place];
    const steady = old !== undefined && sameAmounts(old.values as Amounts, next.values as Amounts);
    this.driverResults[place] = steady ? { ...next, values: old.values } : next;
    return !steady;
  }

  private makeRow(place: number): RowResult {
    return reckonRow(this.plan.schedules![place]!, this.rowGround());
  }

  /** What rows look at, with the figures that stand now. */
  private rowGround(): RowGround {
    const { facts, plan } = this;
    const taxes = taxAccounts(plan.schedules ?? NO_ROWS);
    const start = facts.periods[0]!.index;
    // What is closed is known: a year that runs goes on from there.
    const isBooked = (period: number) => !plan.approved && facts.isActual(period);
    return rowGround(facts, rowRange(facts), {
      driver: (id, period) => this.driverAt(id, period - start),
      booked: (account, period) => (isBooked(period) ? (facts.actual(account, null, period) ?? 0) : null),
      profit: (period) =>
        period < start || isBooked(period)
          ? bookedProfit(facts, taxes, period)
          : this.graph.taxed.reduce(
              (t, { line, sign }) => plus(t, sign * (this.lineResults[line]!.amounts[period - start] ?? 0)),
              0,
            ),
    });
  }

  private keepRow(place: number, next: RowResult): boolean {
    const old = this.rowResults[place];
    this.rowResults[place] = next;
    return old === undefined || old.issue !== next.issue || !sameMoves(old.moves, next.moves);
  }

  private rowsOf(account: string): RowResult[] {
    return (this.graph.rowsOf.get(account) ?? []).map((place) => this.rowResults[place]!);
  }

  private scheduledOf({ account, segment }: LineRef): ReturnType<Context['scheduled']> {
    const rows = this.rowsOf(account);
    const amounts = (of: readonly RowResult[]) => scheduledAmounts(of, this.facts, account, segment);
    const made = this.madeOf({ account, segment });
    return {
      amounts: made ? withMade(amounts(rows), made) : amounts(rows),
      made,
      rows: rows.map((r) => ({ id: r.row.id, issue: r.issue, amounts: () => amounts([r]) })),
    };
  }

  private madeOf(ref: LineRef): MadeLine | null {
    return madeOn(this.plan.made ?? NOTHING_MADE, ref);
  }

  private keepSum(n: number, next: Amounts): boolean {
    const old = this.sums.get(n);
    const steady = old !== undefined && sameAmounts(old, next);
    if (!steady) this.sums.set(n, next);
    return !steady;
  }

  private sumAt(members: readonly number[], i: number): Minor | null {
    let total = 0;
    let met = false;
    // So few figures cannot come to more than is exact, whatever they are.
    const few = members.length * MOST_AMOUNT <= Number.MAX_SAFE_INTEGER;
    for (const m of members) {
      const v = this.lineResults[m]?.amounts[i];
      if (v === null || v === undefined) continue;
      met = true;
      total = few ? total + v : plus(total, v);
    }
    // Too large, there is nothing to be a share of; the lines themselves stand.
    return met && !Number.isNaN(total) ? minor(total) : null;
  }

  private typedAt(line: Line, i: number): Minor | null | undefined {
    const { id } = this.facts.periods[i]!;
    return Object.hasOwn(line.overrides, id) ? line.overrides[id]! : undefined;
  }

  private driverAt(id: string, i: number): Ratio | null | undefined {
    const n = this.graph.driverNode(id);
    if (n === undefined) return undefined;
    const driver = this.plan.drivers[n - this.plan.lines.length]!;
    const value =
      i < 0 ? driver.opening : (this.driverResults[n - this.plan.lines.length]?.values[i] ?? null);
    return value === null ? null : driverRatio(driver, value);
  }

  private contextOf(line: Line): Context {
    const { facts } = this;
    const first = facts.periods[0]!.index;
    const typed = anyTyped(line);
    return {
      line,
      facts,
      typed: typed ? (i) => this.typedAt(line, i) : nothingTyped,
      has: (ref) => this.graph.nodeOf(ref, line.segment) !== undefined,
      driver: (id, i) => this.driverAt(id, i),
      scheduled: () => this.scheduledOf(line),
      amount: (ref, i) => {
        if (i < 0) return this.actualOf(ref, line, first + i);
        const n = this.graph.nodeOf(ref, line.segment);
        if (n === undefined) return null;
        return (ref.of === 'account' ? this.lineResults[n]?.amounts[i] : this.sums.get(n)?.[i]) ?? null;
      },
    };
  }

  private actualOf(ref: Ref, line: Line, index: number): Minor | null {
    let total = 0;
    let met = false;
    for (const account of this.facts.members(ref)) {
      const v = this.facts.actual(account, line.segment, index);
      if (v === null) continue;
      met = true;
      total = plus(total, v);
    }
    return met && !Number.isNaN(total) ? minor(total) : null;
  }
}

const sameMoves = (a: RowResult['moves'], b: RowResult['moves']): boolean =>
  a.size === b.size &&
  [...a].every(([key, months]) => {
    const other = b.get(key);
    return other?.length === months.length && months.every((v, i) => v === other[i]);
  });

/** Whether a row leads to the same lines and follows the same as another in its place. */
const sameTouch = (a: ScheduleRow, b: ScheduleRow, facts: Facts): boolean =>
  a.id === b.id &&
  a.kind === b.kind &&
  JSON.stringify(rowNeeds(a)) === JSON.stringify(rowNeeds(b)) &&
  [...touchedBy(a, facts)].join() === [...touchedBy(b, facts)].join();

type Changed = { readonly amounts: Amounts; readonly issue: LineIssue | null };
const NO_LIST: readonly AmountChange[] = [];
type ByMonth = 'byMonth';
const BY_MONTH: ByMonth = 'byMonth';
/** Of lines that need each other's earlier months only what looks at no later month can be told. */
const isByMonth = (c: AmountChange): boolean => c.as !== 'moved' || c.months >= 0;

/** The keys under which two tables have other lists. */
const changedKeys = <T>(a: ReadonlyMap<string, T>, b: ReadonlyMap<string, T>): string[] => [
  ...[...a.keys()].filter((key) => !b.has(key)),
  ...[...b].filter(([key, list]) => a.get(key) !== list).map(([key]) => key),
];
const sameLines = (a: readonly Line[], b: readonly Line[]): boolean =>
  a === b || (a.length === b.length && a.every((l, i) => lineKey(l) === lineKey(b[i]!)));

const nothingTyped = () => undefined;

function anyTyped(line: Line): boolean {
  for (const _ in line.overrides) return true;
  return false;
}

const NOT_TYPED: readonly boolean[] = [];

/** Which months are typed over; the same empty list where none is. */
function typedMonths(line: Line, facts: Facts): readonly boolean[] {
  return anyTyped(line) ? facts.periods.map((p) => Object.hasOwn(line.overrides, p.id)) : NOT_TYPED;
}

const sameNeeds = (a: readonly Need[], b: readonly Need[]): boolean =>
  a.length === b.length && JSON.stringify(a) === JSON.stringify(b);

const sameLine = (a: Line, b: Line): boolean =>
  a.account === b.account &&
  a.segment === b.segment &&
  (a.method === b.method ||
    ((a.method.kind === 'schedule') === (b.method.kind === 'schedule') &&
      isMonthly(a.method) === isMonthly(b.method) &&
      sameNeeds(needsOf(a.method), needsOf(b.method))));

const sameDriver = (a: Driver, b: Driver): boolean =>
  a.id === b.id && isMonthlyDriver(a) === isMonthlyDriver(b) && sameNeeds(driverNeeds(a), driverNeeds(b));
