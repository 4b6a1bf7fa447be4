import type { Period } from '@/core/calendar';
import {
  lineKey,
  type CellValue,
  type Handout,
  type LineRef,
  type Return,
  type ReturnedLine,
  type Round,
  type SaidCell,
} from '@/core/model';
import { minor, plus, splitEven, splitLike, sumBlank, ZERO, type Minor } from '@/core/money';

import { BLANK } from './readCells';

/* A returned file beside what was handed out and what the draft is now, cell by cell, and what of it goes in. */

/** What a blank and a zero mean in a file. Nothing is assumed: one is chosen for the file, and can be said otherwise. */
export type Meaning = {
  /** Nothing said; the month becomes blank; or nothing at all, a zero. */
  readonly blank: 'leave' | 'clear' | 'zero';
  readonly zero: 'zero' | 'leave';
  /** Their figures in place of the draft's, or what they changed on top of it. */
  readonly how: 'replace' | 'add';
};
export const USUAL_MEANING: Meaning = { blank: 'leave', zero: 'zero', how: 'replace' };

/**
 * A cell of a return: as it was handed out; another; what the draft says by now anyway; made blank; nothing said; no
 * amount; changed by them and, since it was handed out, by us.
 */
export type CellState = 'same' | 'changed' | 'agrees' | 'blanked' | 'left' | 'unread' | 'conflict';

export type ComparedCell = {
  readonly state: CellState;
  readonly handed: Minor | null;
  readonly theirs: SaidCell;
  readonly ours: Minor | null;
  /** What it becomes: undefined leaves the draft as it is. */
  readonly becomes: Minor | null | undefined;
};

export type ComparedLine = LineRef & {
  readonly line: ReturnedLine;
  /** By month of the round; a line that is answered as a whole has one. */
  readonly cells: readonly ComparedCell[];
  /** What the months become, of an answer as a whole spread over them; undefined leaves a month as it is. */
  readonly months: readonly (Minor | null | undefined)[];
  /** Their own total less the sum of what was read; null where they have none, or nothing was said. */
  readonly off: number | null;
  readonly beyond: boolean;
};

/** Which side a cell goes to, where someone chose. */
export type PickedSide = 'theirs' | 'ours' | 'handed';
export type Picks = {
  /** By line, then by place of the cell. */
  readonly cells: ReadonlyMap<string, PickedSide>;
  readonly lines: ReadonlyMap<string, PickedSide>;
};
export const NO_PICKS: Picks = { cells: new Map(), lines: new Map() };
export const cellKey = (line: LineRef, place: number): string => `${lineKey(line)}#${place}`;

export type Comparing = {
  readonly round: Round;
  readonly handout: Handout;
  readonly returned: Return;
  readonly periods: readonly Period[];
  /** What the draft says now, by month of the round. */
  readonly draft: (line: LineRef) => readonly (Minor | null)[];
  readonly lastYear: (line: LineRef) => readonly (Minor | null)[];
  readonly meaning: Meaning;
  readonly picks: Picks;
};

/** A return beside the draft. */
export function compareReturn(c: Comparing): ComparedLine[] {
  const handed = new Map(c.handout.lines.map((l) => [lineKey(l), l]));
  const without = new Set(c.returned.without);
  return c.returned.lines.flatMap((line): ComparedLine[] => {
    const was = handed.get(lineKey(line));
    return was ? [compareLine(c, line, was, without)] : [];
  });
}

function compareLine(
  c: Comparing,
  line: ReturnedLine,
  was: Handout['lines'][number],
  without: ReadonlySet<string>,
): ComparedLine {
  const { round, meaning, picks } = c;
  const { account, segment } = line;
  const key = lineKey(line);
  const [before, now] = [was.handed, c.draft(line)];
  const byMonth = round.answer === 'months';
  const all = byMonth
    ? before.map((h, i) => [h, now[i] ?? null] as const)
    : [[sumBlank(before), sumBlank(now)] as const];
  const cells = all.map(([h, o], i): ComparedCell => {
    const theirs = line.cells[i] ?? BLANK;
    const missing = byMonth && without.has(c.periods[i]!.id);
    const cell = { handed: h, theirs, ours: o, was: round.shows.draft ? h : null };
    const state = missing ? 'left' : stateOf(cell, meaning);
    const pick = picks.cells.get(cellKey(line, i)) ?? picks.lines.get(key) ?? null;
    return { state, handed: h, theirs, ours: o, becomes: becomes(state, cell, meaning, pick) };
  });
  const said = cells.reduce((t, x) => plus(t, x.theirs.amount ?? 0), 0);
  const months = byMonth ? cells.map((x) => x.becomes) : spread(c, line, cells[0]!, now);
  const comes = months.reduce((t: number, m, i) => plus(t, (m === undefined ? now[i] : m) ?? 0), 0);
  return {
    account,
    segment,
    line,
    cells,
    months,
    off: line.total === null || !byMonth ? null : line.total - said,
    beyond: was.target !== null && comes > was.target,
  };
}

/** What a cell says by the file's meaning: undefined where it says nothing. */
function meant(theirs: SaidCell, { blank, zero }: Meaning): Minor | null | undefined {
  if (theirs.is === 'blank') return blank === 'leave' ? undefined : blank === 'zero' ? ZERO : null;
  if (theirs.amount === 0 && zero === 'leave') return undefined;
  return theirs.is === 'amount' ? theirs.amount : undefined;
}

type Cell = {
  readonly handed: Minor | null;
  readonly theirs: SaidCell;
  readonly ours: Minor | null;
  /** What they were shown of the draft: what they were not shown they cannot have left as it was. */
  readonly was: Minor | null;
};

function stateOf({ handed, theirs, ours, was }: Cell, meaning: Meaning): CellState {
  if (theirs.is !== 'amount' && theirs.is !== 'blank') return 'unread';
  if (theirs.amount === was && (theirs.is === 'amount') === (was !== null))
    return theirs.is === 'blank' ? 'left' : 'same';
  const says = meant(theirs, meaning);
  if (says === undefined) return 'left';
  // What goes on top takes nothing away from what we changed.
  if (meaning.how === 'add') return (says ?? 0) === (was ?? 0) ? 'left' : 'changed';
  if (says === ours) return 'agrees';
  if (ours !== handed) return 'conflict';
  return says === null ? 'blanked' : 'changed';
}

function becomes(
  state: CellState,
  { handed, theirs, ours, was }: Cell,
  meaning: Meaning,
  pick: PickedSide | null,
): Minor | null | undefined {
  if (pick === 'ours') return undefined;
  if (pick === 'handed') return handed === ours ? undefined : handed;
  const says = meant(theirs, meaning);
  // A conflict goes in only where someone chose; anything else where it says something new.
  const goes = pick === 'theirs' || state === 'changed' || state === 'blanked';
  if (!goes || says === undefined) return undefined;
  // On top goes what they changed of what they were shown.
  const next = meaning.how === 'add' ? minor(plus(ours ?? 0, plus(says ?? 0, -(was ?? 0)))) : says;
  return next === ours ? undefined : next;
}

/** An amount for the whole of the months, as it falls on them. */
function spread(
  c: Comparing,
  line: ReturnedLine,
  cell: ComparedCell,
  now: readonly (Minor | null)[],
): readonly (Minor | null | undefined)[] {
  const { becomes: total } = cell;
  if (total === undefined) return now.map(() => undefined);
  if (total === null) return now.map(() => null);
  const shape = line.spread === 'lastYear' ? c.lastYear(line) : line.spread === 'draft' ? now : [];
  return (
    (shape.length > 0
      ? splitLike(
          total,
          shape.map((a) => a ?? ZERO),
        )
      : null) ?? splitEven(total, now.length)
  );
}

export type Merged = {
  readonly cells: readonly CellValue[];
  /** Cells that go in, that stay as the draft has them, that are no amounts, and conflicts that nobody settled. */
  readonly counts: {
    readonly in: number;
    readonly same: number;
    readonly unread: number;
    readonly open: number;
  };
  /** Sums over all lines: what was read, what goes in, and how far their own totals are from what was read. */
  readonly read: number;
  readonly goesIn: number;
  readonly off: number | null;
};

/** What of a comparison goes into the budget. */
export function mergeOf(lines: readonly ComparedLine[], c: Pick<Comparing, 'periods' | 'picks'>): Merged {
  const cells: CellValue[] = [];
  const counts = { in: 0, same: 0, unread: 0, open: 0 };
  let [read, goesIn] = [0, 0];
  let off: number | null = null;
  for (const line of lines) {
    const { account, segment } = line;
    line.cells.forEach((cell, i) => {
      read = plus(read, cell.theirs.amount ?? 0);
      const picked = c.picks.cells.has(cellKey(line, i)) || c.picks.lines.has(lineKey(line));
      if (cell.becomes !== undefined) counts.in++;
      else if (cell.state === 'unread') counts.unread++;
      else if (cell.state === 'conflict' && !picked) counts.open++;
      else counts.same++;
    });
    line.months.forEach((value, i) => {
      if (value === undefined) return;
      cells.push({ account, segment, period: c.periods[i]!.id, value });
      goesIn = plus(goesIn, value ?? 0);
    });
    if (line.off !== null) off = plus(off ?? 0, line.off);
  }
  return { cells, counts, read, goesIn, off };
}
