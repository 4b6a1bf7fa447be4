import { yearsBefore, type FiscalCalendar, type Period } from '@/core/calendar';
import type { Ground } from '@/core/ground';
import { lineKey, profitSign, type Budget, type Handout, type Round } from '@/core/model';
import { sumBlank, type Minor } from '@/core/money';
import { anchorOf, lineName, roundPeriods, yearBeforeOf } from './choose';
import { anchorText, columnText, rowText, type ColumnMark } from './marks';

/** How many lines of their own someone may add. */
const OWN_ROWS = 8;

export type PageColumn = {
  readonly mark: ColumnMark | null;
  readonly head: string;
  /** `input` cells are theirs to fill; `total` and `share` follow from them. */
  readonly kind: 'code' | 'name' | 'sense' | 'money' | 'input' | 'total' | 'spread' | 'comment' | 'note';
};

export type PageRow = {
  readonly mark: string;
  readonly of: 'line' | 'own' | 'total';
  readonly income: boolean;
  /** By column: texts, amounts in minor units, or nothing. */
  readonly cells: readonly (string | Minor | null)[];
};

/** A sheet to fill, and the year before it, as data: the workbook and the CSV are written from it. */
export type HandoutPage = {
  readonly anchor: string;
  readonly title: string;
  readonly cover: readonly string[];
  readonly currency: string;
  readonly columns: readonly PageColumn[];
  readonly rows: readonly PageRow[];
  readonly lastYear: {
    readonly title: string;
    readonly heads: readonly string[];
    readonly rows: readonly {
      readonly code: string;
      readonly name: string;
      readonly amounts: readonly (Minor | null)[];
    }[];
  } | null;
  /** Texts that cells may be chosen from. */
  readonly senses: readonly [income: string, cost: string];
  readonly spreads: readonly [evenly: string, lastYear: string, draft: string];
  readonly sheets: readonly [fill: string, cover: string, lastYear: string];
};

/** What a handout says in words; figures and names come from the book. */
export type HandoutWords = {
  readonly title: (round: Round, handout: Handout) => string;
  readonly cover: (round: Round, handout: Handout, periods: readonly Period[]) => readonly string[];
  readonly heads: Readonly<
    Record<'code' | 'line' | 'sense' | 'target' | 'whole' | 'spread' | 'total' | 'comment' | 'note', string>
  >;
  readonly senses: HandoutPage['senses'];
  readonly spreads: HandoutPage['spreads'];
  readonly sheets: HandoutPage['sheets'];
  readonly totals: readonly [income: string, cost: string, left: string];
};

/** The page of a handout, with the draft as it was handed out. */
export function handoutPage(
  ground: Ground,
  budget: Budget,
  round: Round,
  handout: Handout,
  words: HandoutWords,
): HandoutPage {
  const { book, calendar } = ground;
  const periods = roundPeriods(calendar, round);
  const accounts = new Map(book.accounts.map((a) => [a.id, a]));
  const axis = book.axes.find((a) => a.id === budget.axis) ?? null;
  const before = yearBeforeOf(ground, budget, round);
  const hasTarget = handout.lines.some((l) => l.target !== null);
  const { shows, answer } = round;
  const { heads } = words;
  const column = (kind: PageColumn['kind'], head: string, mark: ColumnMark | null = null): PageColumn => ({
    mark,
    head,
    kind,
  });
  const notes = new Map(budget.lines.map((l) => [lineKey(l), l.note?.text ?? '']));
  const columns: PageColumn[] = [
    column('code', heads.code, { of: 'code' }),
    column('name', heads.line, { of: 'name' }),
    column('sense', heads.sense, { of: 'sense' }),
    ...(shows.lastYear ? [column('money', before.label)] : []),
    ...(hasTarget ? [column('money', heads.target)] : []),
    ...(answer === 'months'
      ? [
          ...periods.map((p) => column('input', p.label, { of: 'month', period: p.id })),
          column('total', heads.total, { of: 'total' }),
        ]
      : [column('input', heads.whole, { of: 'whole' }), column('spread', heads.spread, { of: 'spread' })]),
    column('comment', heads.comment, { of: 'comment' }),
    ...(shows.notes ? [column('note', heads.note)] : []),
  ];
  const spread = words.spreads[shows.draft ? 2 : 0];
  const cellsOf = (
    code: string,
    name: string,
    income: boolean | null,
    theirs: {
      readonly last: Minor | null;
      readonly target: Minor | null;
      readonly said: readonly (Minor | null)[];
    },
    note: string,
  ): PageRow['cells'] => [
    code,
    name,
    income === null ? null : words.senses[income ? 0 : 1],
    ...(shows.lastYear ? [theirs.last] : []),
    ...(hasTarget ? [theirs.target] : []),
    ...(answer === 'months'
      ? [...periods.map((_, i) => theirs.said[i] ?? null), sumBlank(theirs.said)]
      : [sumBlank(theirs.said), income === null ? null : spread]),
    null,
    ...(shows.notes ? [note] : []),
  ];
  const none = { last: null, target: null, said: [] };
  const lines = handout.lines.flatMap((line) => {
    const account = accounts.get(line.account);
    if (!account) return [];
    const name = lineName(account, axis, line);
    const income = profitSign(account.kind) === 1;
    return [{ line, account, name, income, last: before.of(line) }];
  });
  const total = (income: boolean) => {
    const own = lines.filter((l) => l.income === income);
    return {
      last: sumBlank(own.map((l) => sumBlank(l.last))),
      target: sumBlank(own.map((l) => l.line.target)),
      said: periods.map((_, i) => sumBlank(own.map((l) => (shows.draft ? l.line.handed[i]! : null)))),
    };
  };
  const rows: PageRow[] = [
    ...lines.map(({ line, account, name, income, last }): PageRow => ({
      mark: rowText({ of: 'line', line }),
      of: 'line',
      income,
      cells: cellsOf(
        account.code,
        name,
        income,
        { last: sumBlank(last), target: line.target, said: shows.draft ? line.handed : [] },
        notes.get(lineKey(line)) ?? '',
      ),
    })),
    ...[true, false]
      .filter((income) => lines.some((l) => l.income === income))
      .map((income): PageRow => ({
        mark: rowText({ of: 'total' }),
        of: 'total',
        income,
        cells: cellsOf('', words.totals[income ? 0 : 1], null, total(income), ''),
      })),
    ...Array.from({ length: OWN_ROWS }, (): PageRow => ({
      mark: rowText({ of: 'own' }),
      of: 'own',
      income: false,
      cells: cellsOf('', '', null, none, '').map(() => null),
    })),
  ];
  return {
    anchor: anchorText(anchorOf(book.id, round, handout)),
    title: words.title(round, handout),
    cover: words.cover(round, handout, periods),
    currency: book.currency,
    columns,
    rows,
    lastYear: shows.lastYear
      ? {
          title: before.label,
          heads: [heads.code, heads.line, ...periods.map((p) => yearBackLabel(calendar, p)), heads.total],
          rows: lines.map(({ account, name, last }) => ({ code: account.code, name, amounts: [...last] })),
        }
      : null,
    senses: words.senses,
    spreads: words.spreads,
    sheets: words.sheets,
  };
}

const yearBackLabel = (calendar: FiscalCalendar, p: Period): string => {
  const before = yearsBefore(calendar, p.index);
  return before === null ? p.label : calendar.period(before).label;
};

/** The page as rows of texts for CSV: marks in the first column and the first row. */
export function pageRows(page: HandoutPage, amount: (a: Minor) => string): string[][] {
  return [
    [page.anchor, ...page.columns.map((c) => (c.mark ? columnText(c.mark) : ''))],
    ['', ...page.columns.map((c) => c.head)],
    ...page.rows.map((r) => [r.mark, ...r.cells.map((c) => (typeof c === 'number' ? amount(c) : (c ?? '')))]),
  ];
}
