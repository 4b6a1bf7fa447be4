import { periodsOf } from '@/core/calendar';
import { reckoned, type Ground } from '@/core/ground';
import { isProfitAndLoss, natural, type Budget, type ScheduleKind } from '@/core/model';
import { minor, plus } from '@/core/money';
import { lineOfMove } from '@/core/plan';
import { monthsOfRow, SCHEDULE_KINDS, type RowLineKey } from '@/core/schedule';
import type { ReportColumn, ReportRow, ReportTable } from './table';

/** How schedules are called in files. */
export type ScheduleWords = {
  readonly kinds: Readonly<Record<ScheduleKind, string>>;
  readonly lines: Readonly<Record<RowLineKey, string>>;
  readonly total: string;
  readonly subtitle: string;
};

/**
 * The schedules of a budget by month, a table for each kind that has rows. Pay is private: of staff there is what it comes to
 * by account, and nothing of anyone.
 */
export function scheduleReports(ground: Ground, budget: Budget, words: ScheduleWords): ReportTable[] {
  const { book } = ground;
  const { facts, reckoning } = reckoned(ground, budget);
  const range = { first: facts.periods[0]!.index, last: facts.periods.at(-1)!.index };
  const rowGround = { ...reckoning.rowGround(), range };
  const months = periodsOf(ground.calendar, range);
  const columns: ReportColumn[] = months.map((p) => ({
    key: p.id,
    group: '',
    label: p.label,
    kind: 'money',
    of: 'plan',
    formula: null,
  }));
  columns.push({
    key: 'total',
    group: '',
    label: words.total,
    kind: 'money',
    of: 'plan',
    formula: { op: 'sum', of: months.map((p) => p.id) },
  });
  const line = (key: string, label: string, amounts: readonly number[], stands = false): ReportRow => ({
    kind: 'line',
    key,
    account: null,
    code: '',
    label,
    cells: [...amounts, stands ? (amounts.at(-1) ?? 0) : amounts.reduce(plus, 0)].map(minor),
    terms: [],
    flagged: false,
    ...(stands ? { lastOf: true } : {}),
  });
  const heading = (key: string, label: string): ReportRow => ({
    kind: 'section',
    key,
    account: null,
    code: '',
    label,
    cells: [],
    terms: [],
    flagged: false,
  });

  const staff = (): ReportRow[] => {
    const sums = new Map<string, number[]>();
    for (const { row, moves, first } of reckoning.rows.values()) {
      if (row.kind !== 'staff') continue;
      for (const [key, all] of moves) {
        const { account } = lineOfMove(key);
        const kind = book.accounts.find((a) => a.id === account)?.kind;
        if (kind === undefined || !isProfitAndLoss(kind)) continue;
        const there = sums.get(account) ?? months.map(() => 0);
        sums.set(
          account,
          there.map((v, i) => plus(v, natural(kind, minor(all[range.first + i - first] ?? 0)))),
        );
      }
    }
    return book.accounts.flatMap((a) => {
      const own = sums.get(a.id);
      return own ? [{ ...line(a.id, a.name, own), code: a.code }] : [];
    });
  };

  return SCHEDULE_KINDS.flatMap((kind): ReportTable[] => {
    const own = budget.schedules.filter((r) => r.kind === kind);
    if (own.length === 0) return [];
    const rows =
      kind === 'staff'
        ? staff()
        : own.flatMap((r) => [
            heading(r.id, r.name),
            ...monthsOfRow(r, rowGround).map((l, i) =>
              line(`${r.id} ${i}`, words.lines[l.key], l.amounts, l.stands),
            ),
          ]);
    return [
      {
        title: words.kinds[kind],
        subtitle: words.subtitle,
        book: book.name,
        currency: book.currency,
        columns,
        rows,
      },
    ];
  });
}
