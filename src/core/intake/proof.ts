import { plus, minor, type Minor } from '@/core/money';
import {
  calendarFrom,
  fromDayNumber,
  type CalendarSpec,
  type Day,
  type FiscalCalendar,
  type PeriodIndex,
  type PeriodRange,
} from '@/core/calendar';
import { isProfitAndLoss, profitSign, type Account, type Source } from '@/core/model';
import {
  ACTIVITY,
  CLOSING,
  openingsIn,
  openingsOff,
  sidesOff,
  stoodBefore,
  totalsOf,
  type Balances,
  type LedgerBlock,
  type OpeningOff,
} from '@/core/ledger';
import type { Draft } from './draft';
import type { AccountChoice } from './match';
import { settle } from './settle';
import { kindsThatTie, type KindHint } from './suggest';
import type { Bases } from './trials';

export type ProofMonth = {
  readonly period: PeriodIndex;
  readonly entries: number;
  readonly debit: Minor;
  readonly credit: Minor;
  /** Income less costs, positive for a profit. */
  readonly profit: Minor;
};

export type ControlResult = {
  readonly row: number;
  readonly label: string;
  readonly mismatches: readonly { readonly day: Day | null; readonly theirs: Minor; readonly ours: Minor }[];
};

/** What keeps a file from tying. */
export type Fault = 'nothing' | 'unreadable' | 'unbalanced' | 'openings' | 'controls';

export type SetAside = { readonly count: number; readonly debit: Minor; readonly credit: Minor };

/** Evidence that what arrived is what was sent. */
export type Proof = {
  readonly months: readonly ProofMonth[];
  /** Activity by account place and period, debits positive: what the file brings to each month. */
  readonly cells: readonly {
    readonly account: number;
    readonly period: PeriodIndex;
    readonly amount: Minor;
  }[];
  /** Activity and closings. */
  readonly debit: Minor;
  readonly credit: Minor;
  readonly openings: SetAside;
  /** Balances brought forward that do not meet, or are not what the book stands at; by place of the account. */
  readonly openingsOff: readonly OpeningOff<number>[];
  readonly closings: SetAside;
  readonly controls: readonly ControlResult[];
  readonly controlsTied: number;
  readonly faults: readonly Fault[];
  /** Its debits need not equal its credits: see `Source`. */
  readonly oneSided: boolean;
  /** Debits less credits of what will stand in the book. */
  readonly off: Minor;
  readonly ties: boolean;
  /** Sources of the book that hold the same file, or entries of the same days and accounts. */
  readonly same: Source | null;
  readonly overlapping: readonly Source[];
  readonly firstDay: Day | null;
  readonly lastDay: Day | null;
  /** A cumulative trial balance with nothing before it in the book: its first month holds all months since this one. */
  readonly lumpFrom: PeriodIndex | null;
  /** Months between the file's first and last that it says nothing of, and between the book's last and the file's first. */
  readonly missing: readonly PeriodIndex[];
  readonly gap: readonly PeriodIndex[];
  /** Days that two columns of the file are both of. */
  readonly twice: readonly Day[];
  /** Accounts whose kinds would make more of the file's totals agree. */
  readonly hint: KindHint | null;
};

export type ProofGround = {
  readonly calendar: CalendarSpec;
  readonly fingerprint: string;
  readonly sheet: string | null;
  readonly sources: readonly Source[];
  /** Periods with activity in the book; null in an empty one. */
  readonly range: PeriodRange | null;
  /** What the book has before a first trial balance: see `basesOf`. */
  readonly bases: Bases | null;
  /** What the book stands at before the file's openings, by its accounts: see `stoodBy`; null for nothing. */
  readonly stood: StoodBy | null;
};

/** What the book stands at before a file's openings, by the file's accounts; 0 of one that it does not have. */
export type StoodBy = { readonly of: readonly number[]; readonly unclosed: number };

/** Reads off the book's balances what a file's openings repeat; null where it has none, or the book nothing before them. */
export function stoodBy(
  { opensOn }: Pick<Draft, 'opensOn'>,
  choices: readonly AccountChoice[],
  balances: Balances,
  calendar: FiscalCalendar,
  accounts: readonly Account[],
): StoodBy | null {
  const stood = opensOn === undefined ? null : stoodBefore(balances, calendar, accounts, opensOn);
  if (!stood) return null;
  return {
    of: choices.map(({ existing }) => (existing === null ? 0 : stood.of(existing))),
    unclosed: stood.unclosed,
  };
}

type MonthSum = {
  entries: number;
  debit: number;
  credit: number;
  readonly cells: Float64Array;
  readonly has: Uint8Array;
};

const emptyMonth = (accounts: number): MonthSum => ({
  entries: 0,
  debit: 0,
  credit: 0,
  cells: new Float64Array(accounts),
  has: new Uint8Array(accounts),
});

/** Proves a draft, settled under the person's choices, against the file's own totals and against the book. */
export function proofOf(
  draft: Draft,
  settled: LedgerBlock,
  said: readonly AccountChoice[],
  { calendar: spec, fingerprint, sheet, sources, range, bases, stood }: ProofGround,
): Proof {
  const calendar = calendarFrom(spec);
  const block = settled;
  const choices = withGone(said, settled, bases);
  const totals = totalsOf(block);
  const months = new Map<PeriodIndex, MonthSum>();
  const counts = choices.map((c) => isProfitAndLoss(c.kind));
  const aside = [0, 1, 2].map(() => ({ count: 0, debit: 0, credit: 0 }));
  const byDay = new Map<number, MonthSum>();
  // Rows of one entry share their day: the month is looked up when it changes.
  let lastDayNumber = NaN;
  let m: MonthSum | undefined;
  for (let i = 0; i < block.count; i++) {
    const amount = block.amount[i]!;
    const sum = aside[block.mark[i]!]!;
    sum.count++;
    // Each only ever grows: what is beyond 2^53 at the end is told then.
    if (amount > 0) sum.debit += amount;
    else sum.credit -= amount;
    if (block.mark[i] !== ACTIVITY) continue;
    const day = block.day[i]!;
    if (day !== lastDayNumber || !m) {
      lastDayNumber = day;
      m = byDay.get(day);
      if (!m) {
        const period = calendar.indexOfDay(day);
        m = months.get(period);
        if (!m) months.set(period, (m = emptyMonth(choices.length)));
        byDay.set(day, m);
      }
    }
    const account = block.account[i]!;
    m.entries++;
    if (amount > 0) m.debit += amount;
    else m.credit -= amount;
    m.cells[account] = plus(m.cells[account]!, amount);
    m.has[account] = 1;
  }
  const inOrder = [...months].sort(([a], [b]) => a - b);
  const [activity, openings, closings] = aside.map((s) => ({
    count: s.count,
    debit: minor(s.debit),
    credit: minor(s.credit),
  })) as [SetAside, SetAside, SetAside];
  const controls = draft.controls.map((c) => checkControl(draft, choices, c));
  const controlsTied = controls.filter((c) => c.mismatches.length === 0).length;
  const firstDay = (totals?.firstDay ?? null) as Day | null;
  const lastDay = (totals?.lastDay ?? null) as Day | null;
  const same = sources.find((s) => s.fingerprint === fingerprint && s.sheet === sheet) ?? null;
  const faults: Fault[] = [];
  if (block.count === 0) faults.push('nothing');
  if (draft.issueCount > 0) faults.push('unreadable');
  // By the rule of the checks, over what will stand in the book: what ties here never fails there.
  const off = sidesOff(block, draft.mapping.shape);
  const oneSided = off !== 0 && (draft.balance === 'oneSided' || bookIsOneSided(draft, said, spec, bases));
  if (draft.balance === 'unbalanced' || (off !== 0 && !oneSided)) faults.push('unbalanced');
  const openingFaults = oneSided ? [] : openingFaultsOf(draft, block, choices, stood);
  if (openingFaults.length > 0) faults.push('openings');
  if (controlsTied !== controls.length) faults.push('controls');
  return {
    months: inOrder.map(([period, m]) => ({
      period,
      entries: m.entries,
      debit: minor(m.debit),
      credit: minor(m.credit),
      profit: minor(m.cells.reduce((t, amount, i) => (counts[i] ? plus(t, -amount) : t), 0)),
    })),
    cells: inOrder.flatMap(([period, m]) =>
      choices.flatMap((_, account) =>
        m.has[account] ? [{ account, period, amount: minor(m.cells[account]!) }] : [],
      ),
    ),
    debit: minor(activity.debit + closings.debit),
    credit: minor(activity.credit + closings.credit),
    openings,
    openingsOff: openingFaults,
    closings,
    controls,
    controlsTied,
    faults,
    oneSided,
    off,
    ties: faults.length === 0,
    same,
    overlapping:
      firstDay && lastDay
        ? sources.filter((s) => s !== same && s.firstDay <= lastDay && s.lastDay >= firstDay)
        : [],
    firstDay,
    lastDay,
    lumpFrom: lumpFrom(draft, bases, choices, calendar),
    missing: between(inOrder.at(0)?.[0], inOrder.at(-1)?.[0]).filter((p) => !months.has(p)),
    gap: range ? between(range.last, inOrder.at(0)?.[0]) : [],
    twice: daysTwice(draft),
    hint: controlsTied === controls.length ? null : kindsThatTie(draft, said, controls),
  };
}

/** The periods after one and before another. */
const between = (after: PeriodIndex | undefined, before: PeriodIndex | undefined): PeriodIndex[] =>
  after === undefined || before === undefined
    ? []
    : Array.from({ length: Math.max(0, before - after - 1) }, (_, i) => after + 1 + i);

/** Days that several columns of one role are of: a month that stands twice. */
function daysTwice({ mapping }: Draft): Day[] {
  if (mapping.shape === 'entries') return [];
  const met = new Set<string>();
  const out = new Set<Day>();
  for (const c of mapping.columns) {
    if (!('day' in c) || c.day === null) continue;
    const key = `${c.as} ${c.day}`;
    if (met.has(key)) out.add(c.day);
    met.add(key);
  }
  return [...out];
}

/** The choices with those accounts of the book that the file leaves out, where they move all the same. */
function withGone(
  choices: readonly AccountChoice[],
  settled: LedgerBlock,
  bases: Bases | null,
): readonly AccountChoice[] {
  const more = settled.accounts.slice(choices.length);
  if (more.length === 0) return choices;
  const kinds = new Map(bases?.gone.map((g) => [g.id, g.kind]));
  return [
    ...choices,
    ...more.map((existing): AccountChoice => ({
      existing,
      kind: kinds.get(existing)!,
      group: '',
      why: 'book',
      sure: true,
      maybe: null,
      rename: false,
    })),
  ];
}

/**
 * Whether a trial balance ties by itself and only what the book has keeps its differences from meeting: months across, say,
 * of profit and loss alone.
 */
const bookIsOneSided = (
  draft: Draft,
  choices: readonly AccountChoice[],
  spec: CalendarSpec,
  bases: Bases | null,
): boolean =>
  draft.trials !== null && bases !== null && sidesOff(settle(draft, choices, spec, null), 'balances') === 0;

/** What is wrong with the balances brought forward of a file of entries; those of trial balances are in its sides. */
function openingFaultsOf(
  { mapping, balance }: Draft,
  block: LedgerBlock,
  choices: readonly AccountChoice[],
  stood: StoodBy | null,
): OpeningOff<number>[] {
  const opened = mapping.shape === 'entries' && balance !== 'oneSided' ? openingsIn(block) : null;
  if (!opened) return [];
  const openings = [...opened.amounts].map(([account, amount]) => ({
    account,
    kind: choices[account]!.kind,
    amount,
  }));
  return openingsOff(openings, stood && { of: (place) => stood.of[place] ?? 0, unclosed: stood.unclosed });
}

/** The first month of the year, when the first trial balance is of a later one and the book knows nothing before it. */
function lumpFrom(
  draft: Draft,
  bases: Bases | null,
  choices: readonly AccountChoice[],
  calendar: FiscalCalendar,
): PeriodIndex | null {
  if (draft.baseline === null) return null;
  const at = calendar.indexOfDay(draft.baseline);
  const first = calendar.firstOfYear(calendar.period(at).year);
  const known = bases?.had.some((v, i) => v !== null && isProfitAndLoss(choices[i]!.kind)) ?? false;
  return at === first || known ? null : first;
}

function checkControl(
  draft: Draft,
  choices: readonly AccountChoice[],
  control: Draft['controls'][number],
): ControlResult {
  const { block } = draft;
  const ours = new Map<number | null, number>([[null, 0]]);
  if (control.over.length > 0 && control.theirs.some((t) => t.ours === undefined)) {
    const over = new Set(control.over);
    for (let i = 0; i < block.count; i++) {
      const account = block.account[i]!;
      if (!over.has(account) || block.mark[i] === CLOSING) continue;
      // A file that signs by profit or by side nets by plain addition; natural signs take costs off.
      const sign =
        control.mode === 'net' && draft.sign === 'natural' && profitSign(choices[account]!.kind) < 0 ? -1 : 1;
      const amount = sign * block.amount[i]!;
      ours.set(block.day[i]!, (ours.get(block.day[i]!) ?? 0) + amount);
      ours.set(null, ours.get(null)! + amount);
    }
  }
  const mismatches = control.theirs.flatMap(({ day, value, ours: known }) => {
    const mine = known ?? minor(ours.get(day) ?? 0);
    return mine === value
      ? []
      : [{ day: day === null ? null : fromDayNumber(day), theirs: value, ours: mine }];
  });
  return { row: control.row, label: control.label, mismatches };
}
