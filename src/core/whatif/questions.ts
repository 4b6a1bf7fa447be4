import { assertNever } from '@/core/assertNever';
import {
  parseIsoDay,
  toDayNumber,
  type DayNumber,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import { asOf, groundAssuming, type Ground } from '@/core/ground';
import { isProfitAndLoss, type Budget } from '@/core/model';
import { SIZE_STEP, unitOfSize, type Assumed, type Assumption } from '@/core/scenario';
import { draw, type Draws } from './draws';
import { distanceOf, type Distance, type MonthTold } from './nearest';
import { bankAhead, outcomeOf, outcomesOf, BETTER, type Outcome, type OutcomeId } from './outcomes';
import { seek, type Answer } from './seek';
import { stepsOf, type Steps } from './steps';
import { tableOf, type Table } from './table';

/*
 * Questions about cases, as data: whoever asks may be elsewhere. Each is a way that gives way after every size that it tries, with
 * how much of it is done, so that it may be stopped.
 */

/** An assumption with how low and how high it may come to be. */
export type Ranged = Assumption & { readonly low: number | null; readonly high: number | null };

export type Question =
  /** Which size of one of the assumptions brings an outcome to a goal; `origin` is where a change is measured from. */
  | {
      readonly ask: 'seek';
      readonly assumed: Assumed;
      readonly adjustment: string;
      readonly outcome: OutcomeId;
      readonly goal: number;
      readonly origin: number;
      readonly ends: readonly [number, number];
    }
  /** What each of the assumptions does to an outcome, in order and alone, and at its ends. */
  | { readonly ask: 'steps'; readonly assumed: readonly Ranged[]; readonly outcome: OutcomeId }
  /** Two sizes against one outcome. */
  | {
      readonly ask: 'table';
      readonly assumed: Assumed;
      readonly down: { readonly adjustment: string; readonly sizes: readonly number[] };
      readonly across: { readonly adjustment: string; readonly sizes: readonly number[] };
      readonly outcome: OutcomeId;
    }
  /** How far each of the assumptions may go, all else as it is, before something breaks. */
  | {
      readonly ask: 'howFar';
      readonly assumed: Assumed;
      readonly ends: Readonly<Record<string, readonly [number, number]>>;
    }
  /** How often what comes out. */
  | {
      readonly ask: 'draws';
      readonly assumed: readonly Ranged[];
      readonly seed: number;
      readonly count: number;
    }
  /** How far what cases said of months that have closed since is from what happened. */
  | {
      readonly ask: 'nearest';
      readonly cases: readonly { readonly id: string; readonly at: string; readonly assumed: Assumed }[];
    };

/** A cell of a table: what comes out, and what it breaks that the plan as it is does not, and what that breaks too. */
export type Cell = {
  readonly outcome: Outcome | null;
  readonly newly: readonly string[];
  readonly asPlanned: readonly string[];
};

/** What an outcome is where an assumption has its lowest and its highest size; null where none was said. */
export type Swing = { readonly low: number | null; readonly high: number | null };

/** How far one adjustment may go, all else as it is. */
export type HowFar = {
  readonly adjustment: string;
  /** For which sizes nothing breaks that holds now: its present size is among them. */
  readonly keeps: Answer;
  /** For which sizes nothing is broken at all; null where nothing is broken now. */
  readonly mends: Answer | null;
};

export type Nearest = readonly {
  /** Null is the plan as it is. */
  readonly id: string | null;
  /** The months since it was made; null where none has closed since. */
  readonly since: PeriodRange | null;
  readonly distance: Distance | null;
}[];

export type Answers = {
  readonly seek: Answer;
  readonly steps: (Steps<string> & { readonly swings: readonly Swing[] }) | null;
  readonly table: Table<Cell>;
  readonly howFar: readonly HowFar[];
  /** The bank before the credit line at ends of weeks; what is broken by name: the floor, covenants by id. */
  readonly draws: Draws & { readonly weeks: readonly DayNumber[] };
  readonly nearest: Nearest;
};
export type AskOf<K extends Question['ask']> = Extract<Question, { ask: K }>;

/** The name by which a broken floor goes among what is broken; covenants go by their ids. */
export const FLOOR = 'floor';

/** What questions are asked of: the plan as it is, over a range of periods. */
export type Asked = { readonly ground: Ground; readonly look: Budget | null; readonly range: PeriodRange };

type Way<T> = Generator<number, T, void>;

/** Answers a question. */
export function answering<K extends Question['ask']>(asked: Asked, question: AskOf<K>): Way<Answers[K]>;
export function answering(asked: Asked, question: Question): Way<Answers[Question['ask']]> {
  switch (question.ask) {
    case 'seek':
      return seekIn(asked, question);
    case 'steps':
      return stepsIn(asked, question);
    case 'table':
      return tableIn(asked, question);
    case 'howFar':
      return howFarIn(asked, question);
    case 'draws':
      return drawsIn(asked, question);
    case 'nearest':
      return nearestIn(asked, question);
    default:
      return assertNever(question);
  }
}

/** The answer at once, for whoever need not give way. */
export function answered<K extends Question['ask']>(asked: Asked, question: AskOf<K>): Answers[K] {
  const way = answering(asked, question);
  for (;;) {
    const next = way.next();
    if (next.done) return next.value;
  }
}

/** The same assumptions with other sizes, by adjustment. */
const sized = (assumed: Assumed, sizes: ReadonlyMap<string, number>): Assumed =>
  assumed.map((a) => {
    const size = sizes.get(a.adjustment.id);
    return size === undefined ? a : { adjustment: a.adjustment, size };
  });

/** What a ground breaks in the range: its floor before the credit line, and covenants. */
function brokenOn(ground: Ground, { look, range }: Asked): readonly string[] {
  const { floor } = ground.book.cash;
  const low = floor === null ? null : outcomeOf(ground, look, range, 'lowBank');
  const under = low !== null && low.amount < floor! ? [FLOOR] : [];
  if (ground.book.covenants.length === 0) return under;
  const covenants = outcomesOf(ground, look, range)?.covenants ?? [];
  return [...under, ...covenants.flatMap((c) => (c.broken === null ? [] : [c.covenant.id]))];
}

function* seekIn({ ground, look, range }: Asked, q: AskOf<'seek'>): Way<Answer> {
  const { what } = q.assumed.find((a) => a.adjustment.id === q.adjustment)!.adjustment;
  return yield* seek({
    ask: (size) =>
      outcomeOf(
        groundAssuming(ground, 'sought', sized(q.assumed, new Map([[q.adjustment, size]]))),
        look,
        range,
        q.outcome,
      )?.amount ?? null,
    goal: q.goal,
    meets: BETTER[q.outcome] === 'more' ? 'atLeast' : 'atMost',
    origin: q.origin,
    least: q.ends[0],
    most: q.ends[1],
    step: SIZE_STEP[unitOfSize(what)],
  });
}

function* stepsIn(
  { ground, look, range }: Asked,
  { assumed, outcome }: AskOf<'steps'>,
): Way<Answers['steps']> {
  const known = new Map<string, number | null>();
  const keyOf = (list: Assumed) => list.map((a) => `${a.adjustment.id} ${a.size}`).join();
  const ends = (a: Ranged) => [a.low, a.high].filter((size) => size !== null);
  const lists: Assumed[] = [
    [],
    ...assumed.map((_, i) => assumed.slice(0, i + 1)),
    ...assumed.map((a) => [a]),
    ...assumed.flatMap((a) => ends(a).map((size) => sized(assumed, new Map([[a.adjustment.id, size]])))),
  ];
  for (const [i, list] of lists.entries()) {
    const key = keyOf(list);
    if (!known.has(key))
      known.set(key, outcomeOf(groundAssuming(ground, 'steps', list), look, range, outcome)?.amount ?? null);
    yield (i + 1) / lists.length;
  }
  const steps = stepsOf(assumed, (list) => known.get(keyOf(list)) ?? null);
  const byName = (all: Steps<Ranged>['steps']) =>
    all.map((s) => ({ of: s.of.adjustment.id, effect: s.effect }));
  const swing = (a: Ranged, size: number | null) =>
    size === null ? null : (known.get(keyOf(sized(assumed, new Map([[a.adjustment.id, size]])))) ?? null);
  return (
    steps && {
      ...steps,
      steps: byName(steps.steps),
      alone: byName(steps.alone),
      swings: assumed.map((a) => ({ low: swing(a, a.low), high: swing(a, a.high) })),
    }
  );
}

function* tableIn(asked: Asked, q: AskOf<'table'>): Way<Table<Cell>> {
  const { ground, look, range } = asked;
  const planned = new Set(brokenOn(ground, asked));
  return yield* tableOf(q.down.sizes, q.across.sizes, (down, across): Cell => {
    const sizes = new Map([
      [q.down.adjustment, down],
      [q.across.adjustment, across],
    ]);
    const own = groundAssuming(ground, 'table', sized(q.assumed, sizes));
    const broken = brokenOn(own, asked);
    return {
      outcome: outcomeOf(own, look, range, q.outcome),
      newly: broken.filter((b) => !planned.has(b)),
      asPlanned: broken.filter((b) => planned.has(b)),
    };
  });
}

function* howFarIn(asked: Asked, { assumed, ends }: AskOf<'howFar'>): Way<Answers['howFar']> {
  const out: HowFar[] = [];
  const asks = assumed.filter((a) => ends[a.adjustment.id] !== undefined);
  const now = brokenOn(groundAssuming(asked.ground, 'far', assumed), asked);
  for (const [i, { adjustment, size }] of asks.entries()) {
    const known = new Map<number, readonly string[]>();
    const brokenWith = (s: number) => {
      let broken = known.get(s);
      if (!broken) {
        const list = sized(assumed, new Map([[adjustment.id, s]]));
        known.set(s, (broken = brokenOn(groundAssuming(asked.ground, 'far', list), asked)));
      }
      return broken;
    };
    const [least, most] = ends[adjustment.id]!;
    const answer = function* (count: (broken: readonly string[]) => number): Way<Answer> {
      const way = seek({
        ask: (s) => count(brokenWith(s)),
        goal: 0,
        meets: 'atMost',
        origin: size,
        least: Math.min(least, size),
        most: Math.max(most, size),
        step: SIZE_STEP[unitOfSize(adjustment.what)],
      });
      for (;;) {
        const next = way.next();
        if (next.done) return next.value;
        yield (i + next.value) / asks.length;
      }
    };
    out.push({
      adjustment: adjustment.id,
      keeps: yield* answer((broken) => broken.filter((b) => !now.includes(b)).length),
      // The sizes were tried already.
      mends: now.length === 0 ? null : yield* answer((broken) => broken.length),
    });
  }
  return out;
}

/** The ends of weeks in the range, as far as they are ahead; its last day ends the last of them. */
function weeksOf({ ground, range }: Asked, start: DayNumber): DayNumber[] {
  const first = Math.max(start + 1, toDayNumber(ground.calendar.period(range.first).start));
  const last = toDayNumber(ground.calendar.period(range.last).end);
  const out: DayNumber[] = [];
  for (let day = first + 6; day < last; day += 7) out.push(day);
  if (last >= first) out.push(last);
  return out;
}

function* drawsIn(asked: Asked, { assumed, seed, count }: AskOf<'draws'>): Way<Answers['draws']> {
  const { ground, look } = asked;
  const start = bankAhead(ground, look)?.start ?? 0;
  const weeks = weeksOf(asked, start);
  const drawn = yield* draw(
    assumed.map((a) => ({
      low: Math.min(a.size, a.low ?? a.size),
      size: a.size,
      high: Math.max(a.size, a.high ?? a.size),
      step: SIZE_STEP[unitOfSize(a.adjustment.what)],
    })),
    { seed, count },
    (sizes) => {
      const list = assumed.map((a, i) => ({ adjustment: a.adjustment, size: sizes[i]! }));
      const own = groundAssuming(ground, 'drawn', list);
      const bank = bankAhead(own, look);
      return {
        figures: weeks.map((day) => bank?.plain[Math.min(bank.plain.length, day - start) - 1] ?? 0),
        broken: brokenOn(own, asked),
      };
    },
  );
  return { ...drawn, weeks };
}

function* nearestIn({ ground, look }: Asked, { cases }: AskOf<'nearest'>): Way<Nearest> {
  const { calendar, closedThrough } = ground;
  const out: Nearest[number][] = [];
  const first = Math.min(...cases.map((c) => madeIn(c.at)));
  const all = [{ id: null, at: null, assumed: [] as Assumed }, ...cases];
  const grounds = new Map<PeriodIndex, Ground>();
  function madeIn(at: string): PeriodIndex {
    const day = parseIsoDay(at.slice(0, 10));
    return day === null ? (closedThrough ?? 0) + 1 : calendar.indexOfDay(toDayNumber(day));
  }
  for (const [i, c] of all.entries()) {
    const from = c.at === null ? first : madeIn(c.at);
    if (closedThrough === null || from > closedThrough) out.push({ id: c.id, since: null, distance: null });
    else {
      const since = { first: from, last: closedThrough };
      let base = grounds.get(from);
      if (!base) grounds.set(from, (base = asOf(ground, from - 1)));
      const own = c.id === null ? base : groundAssuming(base, c.id, c.assumed);
      const said = toldOf(outcomesOf(own, look, since));
      const was = happenedIn(ground, since);
      const known = said !== null && said.length === was.length;
      out.push({ id: c.id, since, distance: known ? distanceOf(said, was) : null });
    }
    yield (i + 1) / all.length;
  }
  return out;
}

/** What a look ahead said of months. */
const toldOf = (outcomes: ReturnType<typeof outcomesOf>): readonly MonthTold[] | null =>
  outcomes && outcomes.months.map((m) => ({ profit: m.profit, bank: m.bank ?? 0 }));

/** What happened in closed months, by the ledger. */
function happenedIn({ book, balances }: Ground, { first, last }: PeriodRange): readonly MonthTold[] {
  const ofProfit = book.accounts.filter((a) => isProfitAndLoss(a.kind));
  const banks = book.accounts.filter((a) => a.kind === 'bank');
  return Array.from({ length: last - first + 1 }, (_, i) => ({
    profit: ofProfit.reduce((t, a) => t - (balances.movement(a.id, first + i) ?? 0), 0),
    bank: banks.reduce((t, a) => t + balances.balance(a.id, first + i, true), 0),
  }));
}
