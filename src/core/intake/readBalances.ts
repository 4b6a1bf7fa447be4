import { isAmount, minor, minorDigits, type Minor } from '@/core/money';
import { calendarFrom, fromDayNumber, toDayNumber, type CalendarSpec, type DayNumber } from '@/core/calendar';
import { ACTIVITY, BlockBuilder } from '@/core/ledger';
import { cellText, isBlankRow, rowsOf, type FileFacts, type GridCell } from '@/core/files';
import { isProfitAndLoss } from '@/core/model';
import { AccountList } from './accountList';
import { RowLog, type Control, type Draft, type LeftOutReason, type Unbalanced } from './draft';
import type { BalanceRole, BalancesMapping } from './mapping';
import { amountIssue, readAmount } from './readCell';
import { cumulativeByArithmetic } from './cumulative';
import { TOTAL_WORDS } from './sign';
import type { Trial as KeptTrial } from './trials';

/** Figures of one day by account place, with the row each came from. */
type Trial = { readonly day: DayNumber; readonly values: Map<number, { value: number; row: number }> };

/**
 * Reads trial balances, debits positive. Balances of periods are activity as they stand; what cumulative ones tell of
 * activity follows when the kinds of their accounts are said (`activityOf`).
 */
export function readBalances(
  file: FileFacts,
  mapping: BalancesMapping,
  currency: string,
  calendarSpec: CalendarSpec,
  onProgress?: (share: number) => void,
): Draft {
  const digits = minorDigits(currency);
  const calendar = calendarFrom(calendarSpec);
  const find = (as: BalanceRole['as']) => mapping.columns.findIndex((c) => c.as === as);
  const columns = { account: find('account'), code: find('code'), name: find('name'), type: find('type') };
  const accounts = new AccountList(columns);
  const log = new RowLog();
  const trials = new Map<DayNumber, Trial>();
  const controls: Control[] = [];
  const unbalanced: Unbalanced[] = [];
  let read = 0;
  const sheets = mapping.sheets.length;

  mapping.sheets.forEach(({ sheet, day }, n) => {
    const rows = rowsOf(file.grids[sheet]!);
    const figures = mapping.columns.flatMap((c, column) => {
      if (!('day' in c)) return [];
      const on = c.day ?? day;
      return [{ column, sign: c.as === 'credit' ? -1 : 1, day: on === null ? null : toDayNumber(on) }];
    });
    const sums = new Map<number, number>();
    const sides = new Map<number, number>();
    log.drawn = sheet === mapping.sheet;
    onProgress?.(n / mapping.sheets.length);
    rows.forEach((cells, i) => {
      const number = i + 1;
      if (i <= mapping.headerRow) return log.top(i, mapping.headerRow);
      if (isBlankRow(cells)) return log.leaveOut('blank', number);
      const values = amountsOf(cells, number, figures, file.grids[sheet]!.sheet ?? '');
      if (values === null) return;
      const names = [columns.account, columns.code, columns.name].map((c) =>
        c < 0 ? '' : cellText(cells[c]),
      );
      const isTotal =
        cells.some((c) => typeof c === 'string' && TOTAL_WORDS.test(c)) ||
        (names.every((t) => t === '') && values.some((v) => v !== null));
      if (isTotal) {
        // A total of debits or of credits is held against what was added up so far.
        values.forEach((v, k) => {
          const f = figures[k]!;
          if (v === null || f.day === null) return;
          const ours = mapping.columns[f.column]!.as === 'balance' ? sums.get(f.day) : sides.get(f.column);
          controls.push({
            row: number,
            label: names.find((t) => t !== '') ?? 'Total',
            over: [],
            mode: 'sum',
            theirs: [{ day: f.day, value: minor(v), ours: minor(ours ?? 0) }],
          });
        });
        return log.leaveOut('total', number);
      }
      if (values.every((v) => v === null)) {
        const coded = columns.code >= 0 && names[1] !== '';
        return log.leaveOut(coded ? 'noAmount' : 'heading', number);
      }
      const place = accounts.place(cells);
      if (place < 0) {
        log.leaveOut('noAccount', number);
        return log.issue({ code: 'noAccount', row: number, column: 1, value: '' });
      }
      let dated = true;
      values.forEach((v, k) => {
        const f = figures[k]!;
        if (v === null) return;
        if (f.day === null) {
          dated = false;
          return;
        }
        let trial = trials.get(f.day);
        if (!trial) trials.set(f.day, (trial = { day: f.day, values: new Map() }));
        const cell = trial.values.get(place) ?? { value: 0, row: number };
        cell.value += f.sign * v;
        trial.values.set(place, cell);
        sums.set(f.day, (sums.get(f.day) ?? 0) + f.sign * v);
        sides.set(f.column, (sides.get(f.column) ?? 0) + v);
        accounts.addTo(place, f.sign * v);
      });
      if (!dated) {
        log.leaveOut('missingDate', number);
        return;
      }
      log.use(number);
    });
    if (figures.some((f) => f.day === null))
      log.issue({ code: 'noDay', row: 1, column: 1, value: file.grids[sheet]!.sheet ?? '' });
    for (const [on, sum] of sums)
      if (sum !== 0)
        unbalanced.push({
          reference: fromDayNumber(on),
          row: 1,
          difference: minor(sum),
          lines: trials.get(on)!.values.size,
        });
    read += rows.length;
  });
  onProgress?.(1);

  function amountsOf(
    cells: readonly GridCell[],
    number: number,
    figures: readonly { readonly column: number }[],
    sheetName: string,
  ): (Minor | null)[] | null {
    const out: (Minor | null)[] = [];
    let bad: LeftOutReason | null = null;
    for (const { column } of figures) {
      const parsed = readAmount(cells[column], digits, mapping.numbers);
      const issue = amountIssue(parsed);
      if (issue || !parsed.ok) {
        // An amount that cannot be read costs that amount, not its row.
        bad ??= issue ?? 'unreadableAmount';
        log.issue({
          code: issue ?? 'unreadableAmount',
          row: number,
          column: column + 1,
          value: cellText(cells[column]),
          ...(sheets > 1 ? { sheet: sheetName } : {}),
        });
        out.push(null);
      } else out.push(parsed.value);
    }
    if (bad === null || out.some((v) => v !== null)) return out;
    log.leaveOut(bad, number);
    return null;
  }

  const guessed = accounts.guessed();
  const inOrder = [...trials.values()].sort((a, b) => a.day - b.day);
  const isFlow = guessed.map((a) => isProfitAndLoss(a.guess.kind));
  const yearOf = (day: DayNumber) => calendar.period(calendar.indexOfDay(day)).year;
  /** What is beyond an amount is left out and named. */
  const kept: KeptTrial[] = inOrder.map(({ day, values }) => ({
    day,
    cells: [...values].flatMap(([place, { value, row }]) => {
      if (isAmount(value)) return [{ place, value, row }];
      log.issue({ code: 'tooLarge', row, column: 1, value: accounts.nameOf(place) });
      return [];
    }),
  }));
  const builder = new BlockBuilder(inOrder.length * Math.max(1, guessed.length));
  for (const { day, cells } of kept)
    for (const { place, value, row } of cells) builder.add(day, place, value, row, 0, 0, 0, ACTIVITY);

  return {
    mapping,
    accounts: guessed,
    block: builder.build('draft', accounts.places()),
    sign: 'debitPositive',
    rows: log.rows(read),
    issues: log.issues,
    issueCount: log.issueCount,
    controls,
    balance: unbalanced.length === 0 ? 'balanced' : 'unbalanced',
    unbalanced,
    unbalancedCount: unbalanced.length,
    hints: { sign: null, cumulative: cumulativeByArithmetic(inOrder, isFlow, yearOf) },
    baseline: mapping.cumulative ? (inOrder[0]?.day ?? null) : null,
    trials: mapping.cumulative ? kept : null,
  };
}
