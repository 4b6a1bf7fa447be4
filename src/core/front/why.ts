import type { Account, VarianceNote } from '@/core/model';
import { minor, plus, type Minor } from '@/core/money';
import { cellOf, type ReportRow, type ReportTable } from '@/core/report';
import { effectOf } from '@/core/variance';

/* Why a result is another one than what it is compared with: line by line, and as far as somebody said why. */

export type WhyLine = {
  readonly row: ReportRow;
  /** Natural: more of it is more, whether it helps or hurts. */
  readonly difference: Minor;
  /** What it does to the result. */
  readonly effect: Minor;
  readonly note: VarianceNote | null;
  /** How much of its effect the note tells; none of it where there is no note. */
  readonly told: Minor;
};

export type Why = {
  /** Lines that differ, those that move the result most first. */
  readonly lines: readonly WhyLine[];
  /** What they come to together, and what of it was told and was not: the two add up to it. */
  readonly effect: Minor;
  readonly told: Minor;
  readonly untold: Minor;
};

/** How much of a difference a note tells, in natural amounts: its parts; all of it where a part is the rest, or there is none. */
export function toldOf({ parts }: Pick<VarianceNote, 'parts'>, difference: Minor): Minor {
  if (parts.length === 0 || parts.some((p) => p.amount === null)) return difference;
  return minor(parts.reduce((t, p) => plus(t, p.amount!), 0));
}

/** Why a table's result differs in a block of its columns, the month or the year to date. `notes`: by account, of the month. */
export function whyOf(
  table: ReportTable,
  accounts: readonly Account[],
  block: 'month' | 'toDate',
  notes: Readonly<Record<string, VarianceNote>>,
): Why {
  const kinds = new Map(accounts.map((a) => [a.id, a.kind]));
  const lines = table.rows
    .flatMap((row): WhyLine[] => {
      if (row.kind !== 'line' || row.account === null) return [];
      const helps = effectOf(kinds.get(row.account)!);
      const difference = cellOf(table, row, `${block}Diff`) as Minor | null;
      if (!difference || helps === 0) return [];
      const note = notes[row.account] ?? null;
      const told = note ? toldOf(note, difference) * helps : 0;
      return [{ row, difference, effect: minor(difference * helps), note, told: minor(told) }];
    })
    .sort((a, b) => Math.abs(b.effect) - Math.abs(a.effect));
  const sum = (of: (l: WhyLine) => number) => minor(lines.reduce((t, l) => plus(t, of(l)), 0));
  const [effect, told] = [sum((l) => l.effect), sum((l) => l.told)];
  return { lines, effect, told, untold: minor(effect - told) };
}
