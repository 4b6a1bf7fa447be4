import type { Layout } from '@/core/model';
import type { ReportCell, ReportRow } from '../table';
import type { Made } from './columns';
import type { Figures, Values } from './figures';
import type { PlainRow } from './rows';
import type { Scope } from './sides';

/**
 * The columns whose figures of a row are partly of lines that stand apart: of those that carry a formula, or of all in which
 * something is compared.
 */
export function partlyKeys(
  columns: readonly Made[],
  valuesIn: (scope: Scope) => Values,
  compared = false,
): string[] {
  return columns.flatMap((c) => {
    if (!c.pair || !(compared || c.column.formula)) return [];
    const all = c.pair.within ?? c.pair.shown;
    if (all === c.pair.compared) return [];
    const values = valuesIn(c.scope);
    const [a, b] = all.map((n) => values[n] ?? null);
    const [x, y] = c.pair.compared.map((n) => values[n] ?? null);
    const partly = a !== x || b !== y;
    return partly && (!compared || x !== null || y !== null) ? [c.column.key] : [];
  });
}

/** The rows in sight: headings and groups go with their last line, results with any choice of sections. */
export function keptRows(
  layout: Layout,
  rows: readonly PlainRow[],
  ofRow: Figures['ofRow'],
  columns: readonly Made[],
  flags: readonly boolean[],
): number[] {
  const { kinds } = layout.rows;
  const sections = new Set<string>(kinds);
  // The whole first: most rows say something there, and their segments need not be asked.
  const asked = columns.toSorted((a, b) => Number(b.scope === 'all') - Number(a.scope === 'all'));
  const says = (r: number, of: (c: Made) => number | null | undefined): boolean =>
    asked.some((c) => {
      const need = of(c);
      return need !== null && need !== undefined && (ofRow(r, c.scope)[need] ?? 0) !== 0;
    });
  const budgets = (c: Made) => c.pair?.shown[1] ?? (c.spec.show === 'compared' ? c.shows : null);
  const hasFigures = (r: number): boolean =>
    says(r, (c) => c.shows) || says(r, (c) => c.pair?.shown[0]) || says(r, (c) => c.pair?.shown[1]);
  const passes = (r: number): boolean => {
    switch (layout.filter) {
      case 'all':
        return true;
      case 'withFigures':
        return hasFigures(r);
      case 'withBudget':
        return says(r, budgets);
      case 'flagged':
        return flags[r]!;
      case 'silent':
        return !hasFigures(r);
    }
  };
  const own = layout.rows.own.length > 0;
  const there = new Set<number>();
  rows.forEach((row, r) => {
    if (row.kind === 'line') {
      if ((sections.size === 0 || (row.section && sections.has(row.section))) && passes(r)) there.add(r);
    } else if (row.kind === 'result') {
      if (sections.size === 0) there.add(r);
    } else if (sections.size === 0 || !row.section || sections.has(row.section)) there.add(r);
  });
  // A heading stands while a line does before the next one; a group while one of its lines does.
  const withLines = new Set([...there].flatMap((r) => (rows[r]!.kind === 'line' ? [rows[r]!.section] : [])));
  return rows.flatMap((row, r) => {
    if (!there.has(r)) return [];
    switch (row.kind) {
      case 'section':
        if (own) return hasLines(rows, there, r) ? [r] : [];
        return withLines.has(row.section) ? [r] : [];
      case 'group':
        return row.terms.some((t) => there.has(t.row)) ? [r] : [];
      default:
        return [r];
    }
  });
}

function hasLines(rows: readonly PlainRow[], there: ReadonlySet<number>, from: number): boolean {
  for (let r = from + 1; r < rows.length && rows[r]!.kind !== 'section'; r++) {
    if (rows[r]!.kind === 'line' && there.has(r)) return true;
  }
  // A heading of someone's own may stand over others.
  return rows[from + 1]?.kind === 'section' || rows[from + 1]?.kind === 'blank';
}

/** What a row asks for when someone looks at it. */
export type RowMaker = {
  readonly cells: () => ReportCell[];
  /** Where the rows of the report stand by now. */
  readonly placeOf: ReadonlyMap<number, number>;
  readonly apart: () => string[];
};

/** A row whose cells are made when they are first asked for: a thousand rows cost what is seen of them. */
class LazyRow implements ReportRow {
  readonly kind: ReportRow['kind'];
  readonly key: string;
  readonly account: ReportRow['account'];
  readonly code: string;
  readonly label: string;
  readonly lastOf: boolean;
  readonly firstOf: boolean;
  readonly addsUp: boolean;
  readonly effect: 1 | 0 | -1;
  readonly own: number | null;
  readonly linked: ReportRow['linked'];
  readonly tied: ReportRow['tied'];
  readonly grows: ReportRow['grows'];
  private made: ReportCell[] | null = null;

  constructor(
    private readonly row: PlainRow,
    private readonly maker: RowMaker,
    readonly flagged: boolean,
    readonly unit: ReportRow['unit'],
  ) {
    this.kind = row.kind;
    this.key = row.key;
    this.account = row.account;
    this.code = row.code;
    this.label = row.label;
    this.lastOf = row.roll === 'last';
    this.firstOf = row.roll === 'first';
    this.addsUp = row.roll !== 'none';
    this.effect = row.effect;
    this.own = row.own;
    this.linked = row.linked;
    this.tied = row.tied;
    this.grows = row.grows;
  }

  get cells(): readonly ReportCell[] {
    return (this.made ??= this.maker.cells());
  }

  /** None where one of them is out of sight: a formula over the rest would be wrong. */
  get terms(): ReportRow['terms'] {
    const { placeOf } = this.maker;
    return this.row.terms.every((t) => placeOf.has(t.row))
      ? this.row.terms.map((t) => ({ row: placeOf.get(t.row)!, sign: t.sign }))
      : [];
  }

  get apart(): readonly string[] {
    return this.row.terms.length > 0 ? this.maker.apart() : [];
  }
}

export const lazyRow = (
  row: PlainRow,
  maker: RowMaker,
  flagged: boolean,
  unit: ReportRow['unit'],
): ReportRow => new LazyRow(row, maker, flagged, unit);

/** A detail of a row: the same of one value of the axis. It counts in no total. */
class DetailRow implements ReportRow {
  readonly kind = 'detail';
  readonly code = '';
  readonly terms = [];
  readonly flagged = false;
  readonly key: string;
  readonly account: ReportRow['account'];
  readonly effect: 1 | 0 | -1;
  readonly lastOf: boolean;
  readonly firstOf: boolean;
  private made: ReportCell[] | null = null;

  constructor(
    row: PlainRow,
    readonly scope: Scope,
    readonly label: string,
    private readonly make: () => ReportCell[],
  ) {
    this.key = `${row.key} ${scope ?? ''}`;
    this.lastOf = row.roll === 'last';
    this.firstOf = row.roll === 'first';
    this.account = row.account;
    this.effect = row.effect;
  }

  get cells(): readonly ReportCell[] {
    return (this.made ??= this.make());
  }
}

export const detailRow = (row: PlainRow, scope: Scope, label: string, make: () => ReportCell[]): ReportRow =>
  new DetailRow(row, scope, label, make);
