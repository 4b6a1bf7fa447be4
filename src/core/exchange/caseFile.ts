import * as z from 'zod/mini';
import { list, text } from '@/core/bounded';
import { calendarFrom, indexOfId, parseIsoDay, toDayNumber, type PeriodId } from '@/core/calendar';
import {
  adjustmentSchema,
  accountsOfAdjusts,
  caseSchema,
  LIMITS,
  renamedAdjusts,
  sameName,
  type Adjustment,
  type Adjusts,
  type Book,
  type Case,
} from '@/core/model';
import { unitOfSize } from '@/core/scenario';

const called = text(LIMITS.accountName);

/** The file by which cases go from book to book: with the names of what they name, since ids are each book's own. */
export const caseFileSchema = z.strictObject({
  format: z.literal('tellan.cases'),
  version: z.literal(1),
  currency: text(3),
  adjustments: list(adjustmentSchema, 1, LIMITS.adjustments),
  cases: list(caseSchema, 0, LIMITS.cases),
  accounts: z.record(z.string(), z.strictObject({ code: text(LIMITS.accountCode), name: called })),
  rows: z.record(z.string(), z.strictObject({ kind: text(20), name: called })),
  drivers: z.record(z.string(), called),
  dated: z.record(z.string(), called),
  segments: z.record(z.string(), text(LIMITS.segmentName)),
  /** The first day of each period that is named: another book's year may begin elsewhere. */
  periods: z.record(z.string(), text(10)),
});

/** What of a file could not be taken in. */
export type CaseIssue =
  | { readonly code: 'notJson' | 'notCases' | 'newerVersion' }
  | { readonly code: 'invalid'; readonly path: string; readonly message: string }
  | {
      readonly code:
        'noSuchAccount' | 'noSuchRow' | 'noSuchDriver' | 'noSuchItem' | 'noSuchSegment' | 'otherCurrency';
      readonly adjustment: string;
      readonly name: string;
    };

export type ReadCases = {
  /** In the words of the book they are read into, under the file's own ids. */
  readonly adjustments: readonly Adjustment[];
  readonly cases: readonly Case[];
  readonly issues: readonly CaseIssue[];
};

const rowNamed = (what: Adjusts): string | null =>
  'row' in what && typeof what.row === 'string' ? what.row : null;
const periodsNamed = ({ when }: Adjustment): readonly PeriodId[] =>
  when.until === null ? [when.from] : [when.from, when.until];

/** A book's adjustments and cases as a file. */
export function caseFile(book: Book): string {
  const { adjustments } = book;
  const calendar = calendarFrom(book.calendar);
  const accounts = new Set(adjustments.flatMap((a) => [...accountsOfAdjusts(a.what)]));
  const rows = new Set(adjustments.flatMap((a) => rowNamed(a.what) ?? []));
  const drivers = new Set(adjustments.flatMap((a) => (a.what.on === 'driver' ? [a.what.driver] : [])));
  const dated = new Set(adjustments.flatMap((a) => (a.what.on === 'datedMoved' ? [a.what.item] : [])));
  const file: z.infer<typeof caseFileSchema> = {
    format: 'tellan.cases',
    version: 1,
    currency: book.currency,
    adjustments,
    cases: book.cases,
    accounts: Object.fromEntries(
      book.accounts.filter((a) => accounts.has(a.id)).map((a) => [a.id, { code: a.code, name: a.name }]),
    ),
    rows: Object.fromEntries(
      book.budgets
        .flatMap((b) => b.schedules)
        .filter((r) => rows.has(r.id))
        .map((r) => [r.id, { kind: r.kind, name: r.name }]),
    ),
    drivers: Object.fromEntries(
      book.budgets
        .flatMap((b) => b.drivers)
        .filter((d) => drivers.has(d.id))
        .map((d) => [d.id, d.name]),
    ),
    dated: Object.fromEntries(book.cash.dated.filter((d) => dated.has(d.id)).map((d) => [d.id, d.name])),
    segments: Object.fromEntries(book.axes.flatMap((a) => a.values).map((v) => [v.id, v.name])),
    periods: Object.fromEntries(
      [...new Set(adjustments.flatMap(periodsNamed))].flatMap((id) => {
        const at = indexOfId(calendar, id);
        return at === null ? [] : [[id, calendar.period(at).start]];
      }),
    ),
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}

const NOTHING = { adjustments: [], cases: [] };

/**
 * Reads a file of cases into a book: accounts by code, then by name, all else by name; months by their days. An adjustment that
 * names what the book has not, or says money of another currency, is left out and told.
 */
export function readCases(content: string, book: Book): ReadCases {
  let json: unknown;
  try {
    json = JSON.parse(content);
  } catch {
    return { ...NOTHING, issues: [{ code: 'notJson' }] };
  }
  const head = json as { readonly format?: unknown; readonly version?: unknown } | null;
  if (typeof head !== 'object' || head === null || head.format !== 'tellan.cases')
    return { ...NOTHING, issues: [{ code: 'notCases' }] };
  if (typeof head.version === 'number' && head.version > 1)
    return { ...NOTHING, issues: [{ code: 'newerVersion' }] };
  const parsed = caseFileSchema.safeParse(json);
  if (!parsed.success) {
    const { path, message } = parsed.error.issues[0]!;
    return { ...NOTHING, issues: [{ code: 'invalid', path: path.join('.'), message }] };
  }
  const file = parsed.data;
  const [accounts, rows, drivers, dated, segments, periods] = [
    new Map(Object.entries(file.accounts)),
    new Map(Object.entries(file.rows)),
    new Map(Object.entries(file.drivers)),
    new Map(Object.entries(file.dated)),
    new Map(Object.entries(file.segments)),
    new Map(Object.entries(file.periods)),
  ];
  const calendar = calendarFrom(book.calendar);
  const issues: CaseIssue[] = [];
  const accountOf = (id: string): string | null => {
    const said = accounts.get(id);
    if (!said) return null;
    const byCode = said.code === '' ? undefined : book.accounts.find((a) => a.code === said.code);
    return (byCode ?? book.accounts.find((a) => sameName(a.name, said.name)))?.id ?? null;
  };
  const periodOf = (id: PeriodId): PeriodId => {
    const start = parseIsoDay(periods.get(id) ?? '');
    return start === null ? id : calendar.period(calendar.indexOfDay(toDayNumber(start))).id;
  };
  const named = <T extends { readonly id: string; readonly name: string }>(
    all: readonly T[],
    name: string | undefined,
  ): string | null => (name === undefined ? null : (all.find((x) => sameName(x.name, name))?.id ?? null));
  const adjustments = file.adjustments.flatMap((a): Adjustment[] => {
    const left = (code: Extract<CaseIssue, { adjustment: string }>['code'], name: string): [] => {
      issues.push({ code, adjustment: a.name, name });
      return [];
    };
    for (const id of accountsOfAdjusts(a.what))
      if (accountOf(id) === null) return left('noSuchAccount', accounts.get(id)?.name ?? id);
    let what = renamedAdjusts(a.what, (id) => accountOf(id)!);
    if ((unitOfSize(what) === 'money' || what.on === 'rowAdded') && file.currency !== book.currency)
      return left('otherCurrency', file.currency);
    if ('reach' in what && what.reach.segment != null) {
      const name = segments.get(what.reach.segment);
      const segment = named(
        book.axes.flatMap((x) => x.values),
        name,
      );
      if (segment === null) return left('noSuchSegment', name ?? what.reach.segment);
      what = { ...what, reach: { ...what.reach, segment } };
    }
    const row = rowNamed(what);
    if (row !== null) {
      const said = rows.get(row);
      const there = book.budgets
        .flatMap((b) => b.schedules)
        .find((r) => r.kind === said?.kind && sameName(r.name, said.name));
      if (!there) return left('noSuchRow', said?.name ?? row);
      what = { ...what, row: there.id } as Adjusts;
    }
    if (what.on === 'driver') {
      const driver = named(
        book.budgets.flatMap((b) => b.drivers),
        drivers.get(what.driver),
      );
      if (driver === null) return left('noSuchDriver', drivers.get(what.driver) ?? what.driver);
      what = { ...what, driver };
    }
    if (what.on === 'datedMoved') {
      const item = named(book.cash.dated, dated.get(what.item));
      if (item === null) return left('noSuchItem', dated.get(what.item) ?? what.item);
      what = { ...what, item };
    }
    const { from, until } = a.when;
    return [{ ...a, what, when: { ...a.when, from: periodOf(from), until: until && periodOf(until) } }];
  });
  const kept = new Set(adjustments.map((a) => a.id));
  const cases = file.cases.map((c) => ({
    ...c,
    sizes: Object.fromEntries(Object.entries(c.sizes).filter(([id]) => kept.has(id))),
  }));
  return { adjustments, cases, issues };
}
