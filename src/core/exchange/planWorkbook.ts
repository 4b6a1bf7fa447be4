import { unitOf } from '@/core/money';
import type { Approved, SegmentId } from '@/core/model';
import { frozenFigures, sameAmounts, type Figures } from '@/core/plan';
import {
  at,
  budgetSheet,
  exactSum,
  HEADS,
  LEAD,
  UNPHASED,
  valueOf,
  type PageInput,
  type PlanCell,
  type PlanInput,
  type PlanSheet,
} from './planLayout';
import { planSheets } from './planSheets';

export type WorkbookInput = Omit<PlanInput, 'segment' | 'suffix' | 'asValues'> & {
  /** The segments with their names; one without a name where the budget is of the whole company. */
  readonly segments: readonly { readonly id: SegmentId; readonly name: string }[];
  /** What was approved, whose figures the workbook must show; null for a draft. */
  readonly approved: Approved | null;
};

/**
 * A budget as a workbook that reckons itself: its sheets segment by segment, and before several of them one that adds
 * them up. An approved budget whose methods would reckon otherwise by now (the ledger went on) keeps its figures as
 * values; only its totals are formulas then, and the heading says so.
 */
export function planWorkbook(input: WorkbookInput): PlanSheet[] {
  const { approved, segments, ...rest } = input;
  const moved = approved !== null && !stillReckonsTo(approved, input);
  const standing = [
    approved ? 'Approved' : 'Draft',
    moved ? 'its methods reckon otherwise by now, so its lines are the approved values' : '',
  ];
  const suffixes = sheetNames(segments.map((s) => s.name));
  const sets = segments.map((s, i) =>
    planSheets({
      ...rest,
      segment: s.id,
      subtitle: [s.name, ...standing].filter(Boolean).join(' · '),
      suffix: segments.length > 1 ? suffixes[i]! : '',
      asValues: moved ? (account) => frozenFigures(approved, account, s.id) : null,
    }),
  );
  // The drivers are the whole budget's: one sheet of them, which every segment follows.
  const all = sets.flatMap((set, i) => (i === 0 ? set : set.slice(0, 2)));
  if (segments.length < 2) return all;
  const subtitle = [`${segments.length} segments added up`, ...standing].filter(Boolean).join(' · ');
  return [
    together(
      { ...rest, subtitle },
      sets.map((s) => s[0]!),
    ),
    ...all,
  ];
}

/** Whether every approved figure is what the budget comes to now. */
function stillReckonsTo(approved: Approved, { reckoning }: Pick<WorkbookInput, 'reckoning'>): boolean {
  return approved.lines.every((l) => {
    const now: Figures | undefined = reckoning.lines.get(l);
    return now !== undefined && sameAmounts(l.amounts, now.amounts) && sameAmounts(l.wholes, now.wholes);
  });
}

/** Endings of sheets' names: letters, digits and spaces, short enough, and no two alike. */
function sheetNames(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    const plain =
      name
        .replace(/[^\p{L}\p{N} ]/gu, '')
        .trim()
        .slice(0, 18) || 'Unassigned';
    let free = plain;
    for (let n = 2; taken.has(free.toLowerCase()); n++) free = `${plain} ${n}`;
    taken.add(free.toLowerCase());
    return ` ${free}`;
  });
}

/** One sheet that adds up the same cells of several: they all have the same rows. */
function together(p: PageInput, parts: readonly PlanSheet[]): PlanSheet {
  const width = p.facts.periods.length;
  const unit = unitOf(p.currency);
  const isSpread = (s: PlanSheet) => s.rows[HEADS - 1]![LEAD + width] === UNPHASED;
  const spread = parts.some(isSpread);
  return budgetSheet(p, 'Budget', ['', '', ''], spread, (account, r) => {
    const cells: PlanCell[] = [account.code, account.name, '', null, null];
    for (let c = LEAD; c < LEAD + width + (spread ? 1 : 0); c++) {
      // A segment without whole-year amounts has its total where others have those.
      const of = parts.filter((s) => (c < LEAD + width || isSpread(s)) && (s.rows[r]?.[c] ?? null) !== null);
      if (of.length > 0)
        cells[c] = {
          formula: of.map((s) => `'${s.name}'!${at(c, r)}`).join('+'),
          result: exactSum(
            of.map((s) => valueOf(s.rows[r]![c])),
            unit,
          ),
        };
    }
    return cells;
  });
}
