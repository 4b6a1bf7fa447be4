import { unitOf, type Minor } from '@/core/money';
import { columnLetters } from '@/core/files/columnLetters';
import type { Approved, SegmentId } from '@/core/model';
import { frozenFigures, type Figures } from '@/core/plan';
import { rowName } from '@/core/report';
import {
  HEADS,
  LEAD,
  planSheets,
  totalCell,
  valueOf,
  type PlanCell,
  type PlanInput,
  type PlanSheet,
} from './planSheets';

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
  const same = (a: readonly (Minor | null)[], b: readonly (Minor | null)[]) =>
    a.length === b.length && a.every((v, i) => v === b[i]);
  return approved.lines.every((l) => {
    const now: Figures | undefined = reckoning.lines.get(l);
    return now !== undefined && same(l.amounts, now.amounts) && same(l.wholes, now.wholes);
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
function together(
  p: Omit<PlanInput, 'segment' | 'suffix' | 'asValues'>,
  parts: readonly PlanSheet[],
): PlanSheet {
  const width = p.facts.periods.length;
  const spread = parts.some((s) => s.rows[HEADS - 1]!.includes('Unphased'));
  const last = LEAD + width + (spread ? 1 : 0);
  const unit = unitOf(p.currency);
  const rows: PlanCell[][] = p.rows.map((row, i) => {
    const r = HEADS + i;
    const { label } = rowName(row);
    if (row.kind === 'section') return ['', label];
    const cells: PlanCell[] = [row.kind === 'line' ? row.account.code : '', label, '', null, null];
    if (row.kind !== 'line') return cells;
    for (let c = LEAD; c < last; c++) {
      // A segment without whole-year amounts has its total where others have those.
      const of = parts.filter(
        (s) =>
          (c < LEAD + width || s.rows[HEADS - 1]![c] === 'Unphased') && (s.rows[r]?.[c] ?? null) !== null,
      );
      if (of.length > 0)
        cells[c] = {
          formula: of.map((s) => `'${s.name}'!${columnLetters(c + 1)}${r + 1}`).join('+'),
          result: Math.round(of.reduce((t, s) => t + valueOf(s.rows[r]![c]!), 0) * unit) / unit,
        };
    }
    return cells;
  });
  const done = [...Array.from({ length: HEADS }, () => []), ...rows];
  p.rows.forEach((row, i) => {
    if (row.kind === 'section') return;
    const cells = rows[i]!;
    if (row.kind !== 'line') for (let c = LEAD; c < last; c++) cells[c] = totalCell(row.terms, c, done, unit);
    const months = cells.slice(LEAD, last);
    const balance = row.kind === 'line' && p.facts.isBalance(row.account.id);
    const [from, to] = [LEAD, last - 1].map((c) => `${columnLetters(c + 1)}${HEADS + i + 1}`);
    if (balance)
      cells[last] = {
        formula: `${columnLetters(LEAD + width)}${HEADS + i + 1}`,
        result: valueOf(cells[LEAD + width - 1]),
      };
    else if (months.some((c) => (c ?? null) !== null))
      cells[last] = {
        formula: `SUM(${from}:${to})`,
        result: Math.round(months.reduce<number>((t, c) => t + valueOf(c), 0) * unit) / unit,
      };
    rows[i] = Array.from(cells, (c) => c ?? null);
  });
  return {
    name: 'Budget',
    rows: [
      [p.book],
      [`${p.title} · ${p.currency}`],
      [p.subtitle],
      [
        'Code',
        'Line',
        '',
        '',
        '',
        ...p.facts.periods.map((x) => x.label),
        ...(spread ? ['Unphased'] : []),
        'Total',
      ],
      ...rows,
    ],
    heads: HEADS,
    lead: LEAD,
    money: true,
    totals: p.rows.flatMap((r, i) => (r.kind === 'line' || r.kind === 'section' ? [] : [HEADS + i])),
  };
}
