import * as z from 'zod/mini';
import { list, text } from '@/core/bounded';
import { layoutSchema, LIMITS, sameName, type Book, type Layout, type RowItem } from '@/core/model';

const named = z.strictObject({ code: text(LIMITS.accountCode), name: text(LIMITS.accountName) });

/** The file by which layouts go from book to book: with the names of what they name, since ids are each book's own. */
export const layoutFileSchema = z.strictObject({
  format: z.literal('tellan.layout'),
  version: z.literal(1),
  layouts: list(layoutSchema, 1, LIMITS.layouts),
  accounts: z.record(z.string(), named),
  axes: z.record(
    z.string(),
    z.strictObject({
      name: text(LIMITS.axisName),
      values: z.record(z.string(), text(LIMITS.segmentName)),
    }),
  ),
  budgets: z.record(z.string(), text(LIMITS.budgetName)),
});

export type LayoutFile = z.infer<typeof layoutFileSchema>;

/** What of a file could not be kept: it stands in no row, or another takes its place. */
export type LayoutIssue =
  | { readonly code: 'notJson' | 'notALayout' | 'newerVersion' }
  | { readonly code: 'invalid'; readonly path: string; readonly message: string }
  | {
      readonly code: 'noSuchAccount' | 'noSuchSegments' | 'noSuchBudget';
      readonly layout: string;
      readonly name: string;
    };

export type ReadLayouts = { readonly layouts: readonly Layout[]; readonly issues: readonly LayoutIssue[] };

/** Layouts as a file. */
export function layoutFile(book: Book, layouts: readonly Layout[]): string {
  const ids = new Set(
    layouts.flatMap((l) => l.rows.own.flatMap((r) => (r.row === 'account' ? [r.account] : []))),
  );
  const axes = new Set(layouts.flatMap((l) => (l.segments.axis === null ? [] : [l.segments.axis])));
  const budgets = new Set(layouts.flatMap((l) => [l.against.first, l.against.second]));
  const file: LayoutFile = {
    format: 'tellan.layout',
    version: 1,
    layouts: [...layouts],
    accounts: Object.fromEntries(
      book.accounts.filter((a) => ids.has(a.id)).map((a) => [a.id, { code: a.code, name: a.name }]),
    ),
    axes: Object.fromEntries(
      book.axes
        .filter((a) => axes.has(a.id))
        .map((a) => [
          a.id,
          { name: a.name, values: Object.fromEntries(a.values.map((v) => [v.id, v.name])) },
        ]),
    ),
    budgets: Object.fromEntries(book.budgets.filter((b) => budgets.has(b.id)).map((b) => [b.id, b.name])),
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}

const PLAIN: ReadonlySet<string> = new Set(['', 'inForce', 'lastYear', 'outlook']);

/** Reads a file of layouts into a book: accounts by code, then by name; what the book has not is left out and told. */
export function readLayouts(content: string, book: Book): ReadLayouts {
  let json: unknown;
  try {
    json = JSON.parse(content);
  } catch {
    return { layouts: [], issues: [{ code: 'notJson' }] };
  }
  const head = json as { readonly format?: unknown; readonly version?: unknown } | null;
  if (typeof head !== 'object' || head === null || head.format !== 'tellan.layout')
    return { layouts: [], issues: [{ code: 'notALayout' }] };
  if (typeof head.version === 'number' && head.version > 1)
    return { layouts: [], issues: [{ code: 'newerVersion' }] };
  const parsed = layoutFileSchema.safeParse(json);
  if (!parsed.success) {
    const { path, message } = parsed.error.issues[0]!;
    return { layouts: [], issues: [{ code: 'invalid', path: path.join('.'), message }] };
  }
  const file = parsed.data;
  const accounts = new Map(Object.entries(file.accounts));
  const axes = new Map(Object.entries(file.axes));
  const budgets = new Map(Object.entries(file.budgets));
  const issues: LayoutIssue[] = [];
  const accountOf = (id: string): string | null => {
    const said = accounts.get(id);
    if (!said) return null;
    const byCode = said.code === '' ? undefined : book.accounts.find((a) => a.code === said.code);
    return (byCode ?? book.accounts.find((a) => sameName(a.name, said.name)))?.id ?? null;
  };
  const againstOf = (layout: Layout, id: string): string => {
    if (PLAIN.has(id)) return id;
    const name = budgets.get(id);
    const there = name === undefined ? undefined : book.budgets.find((b) => sameName(b.name, name));
    if (there) return there.id;
    issues.push({ code: 'noSuchBudget', layout: layout.name, name: name ?? id });
    return 'inForce';
  };
  const segmentsOf = (layout: Layout): Layout['segments'] => {
    const { axis: id, values, place } = layout.segments;
    if (id === null) return layout.segments;
    const said = axes.get(id);
    const axis = said && book.axes.find((a) => sameName(a.name, said.name));
    if (!axis) {
      issues.push({ code: 'noSuchSegments', layout: layout.name, name: said?.name ?? id });
      return { axis: null, place: 'none', values: [] };
    }
    const names = new Map(Object.entries(said.values));
    const kept = values.flatMap((v) => {
      if (v === null) return [null];
      const there = axis.values.find((x) => sameName(x.name, names.get(v) ?? ''));
      return there ? [there.id] : [];
    });
    return { axis: axis.id, place, values: kept };
  };
  const layouts = file.layouts.map((layout): Layout => {
    const own = layout.rows.own.flatMap((row): RowItem[] => {
      if (row.row !== 'account') return [row];
      const account = accountOf(row.account);
      if (account !== null) return [{ ...row, account }];
      issues.push({
        code: 'noSuchAccount',
        layout: layout.name,
        name: accounts.get(row.account)?.name ?? row.account,
      });
      return [];
    });
    return {
      ...layout,
      rows: { ...layout.rows, own },
      segments: segmentsOf(layout),
      against: {
        first: againstOf(layout, layout.against.first) || 'inForce',
        second: againstOf(layout, layout.against.second),
      },
    };
  });
  return { layouts, issues };
}
