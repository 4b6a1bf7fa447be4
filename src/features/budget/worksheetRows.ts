import { sumBlank, type Minor } from '@/core/money';
import { fiscalYearLabel } from '@/core/calendar';
import type { Line } from '@/core/model';
import {
  createFiller,
  groupPeriods,
  rowName,
  statementRows,
  type Grain,
  type PeriodGroup,
} from '@/core/report';
import type { SheetColumn, SheetRow } from '@/components/sheet/types';
import type { Ground, Reckoned } from '@/store/derived';
import { methodBadge } from './words';

export type Worksheet = {
  readonly rows: readonly SheetRow[];
  readonly columns: readonly SheetColumn[];
  readonly groups: readonly PeriodGroup[];
  /** Net profit of the year, in the budget and last year. */
  readonly net: Minor | null;
  readonly priorNet: Minor | null;
};

/** What a worksheet remembers from one edit to the next, so that only what changed is added up anew. */
export type Fillers = {
  readonly plan: ReturnType<typeof createFiller>;
  readonly prior: ReturnType<typeof createFiller>;
  readonly rows: typeof statementRows;
};

export function createFillers(): Fillers {
  let last: { accounts: Parameters<typeof statementRows>[0]; rows: ReturnType<typeof statementRows> } | null =
    null;
  return {
    plan: createFiller(),
    prior: createFiller(),
    rows(accounts) {
      if (last?.accounts !== accounts) last = { accounts, rows: statementRows(accounts) };
      return last.rows;
    },
  };
}

const NO_MARKS: readonly boolean[] = [];

/** The rows and columns of the worksheet: sections with subtotals; months, quarters or year; total and change on last year. */
export function worksheet(
  ground: Ground,
  { budget, facts, reckoning, amounts }: Reckoned,
  grain: Grain,
  fillers: Fillers,
): Worksheet {
  const { accounts } = ground.book;
  const statement = fillers.rows(accounts);
  const width = facts.periods.length;
  const filled = fillers.plan(statement, width, amounts);
  const priors = fillers.prior(statement, width, (id) => facts.past(id).lastYear);
  const groups = groupPeriods(facts.periods, grain);
  const prior = fiscalYearLabel((facts.periods[0]?.year ?? 1) - 1);
  const year = fiscalYearLabel(facts.periods.at(-1)?.year ?? 0);
  const columns: SheetColumn[] = [
    ...(grain === 'year'
      ? []
      : groups.map((g, i): SheetColumn => ({ key: `p${i}`, label: g.label, kind: 'amount' }))),
    { key: 'total', label: year, kind: 'total' },
    { key: 'change', label: `on ${prior}`, kind: 'info' },
  ];
  const shown = (values: readonly (Minor | null)[]) =>
    grain === 'months'
      ? values
      : grain === 'year'
        ? []
        : groups.map((g) => sumBlank(values.slice(g.from, g.to)));

  const rows = statement.map((row, r): SheetRow => {
    const { key, label } = rowName(row);
    const values = filled[r]!;
    const last = priors[r]!;
    const total = sumBlank(values);
    const lastTotal = sumBlank(last);
    const change = total === null && lastTotal === null ? null : (((total ?? 0) - (lastTotal ?? 0)) as Minor);
    const line: Line | undefined = row.kind === 'line' ? budget.lines[key] : undefined;
    const result = row.kind === 'line' ? reckoning.lines.get(key) : undefined;
    const typed = result?.typed ?? NO_MARKS;
    return {
      key,
      label,
      kind: row.kind,
      code: row.kind === 'line' ? row.account.code : '',
      badge: row.kind === 'line' ? (line ? methodBadge(line.method) : 'No line yet') : '',
      badgeTone: result?.issue ? 'trouble' : line && line.method.kind !== 'byMonth' ? 'plan' : 'quiet',
      hasNote: Boolean(line?.note),
      values: row.kind === 'section' ? [] : [...shown(values), total, change],
      typed: typed.includes(true)
        ? grain === 'months'
          ? typed
          : grain === 'year'
            ? [typed.includes(true)]
            : groups.map((g) => typed.slice(g.from, g.to).includes(true))
        : NO_MARKS,
      ghost:
        row.kind === 'line' ? { label: `${prior} actual`, values: [...shown(last), lastTotal, null] } : null,
      enterable: row.kind === 'line',
    };
  });
  return {
    rows,
    columns,
    groups,
    net: filled.length ? sumBlank(filled.at(-1)!) : null,
    priorNet: priors.length ? sumBlank(priors.at(-1)!) : null,
  };
}
