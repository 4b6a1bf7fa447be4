import { minor, minorDigits } from '@/core/money';
import { BlockBuilder } from '@/core/ledger';
import { cellText, isBlankRow, type Grid, type GridCell } from '@/core/files';
import { splitAccountCell, nameKey } from './accountCell';
import { parseDate } from './dates';
import { RowLog, type Draft, type DraftAccount, type LeftOutReason, type Unbalanced } from './draft';
import { guessKind } from './guessKind';
import type { EntryRole, Mapping } from './mapping';
import { amountIssue, readAmount } from './readCell';

type EntriesMapping = Extract<Mapping, { shape: 'entries' }>;

const TOTAL_WORDS = /^\s*(grand\s+|sub-?)?totals?\b|\btotal\s*$/i;
const OPENING_WORDS = /opening|brought|beginning/i;
const BALANCE_WORDS =
  /\b(opening|closing|beginning|ending|brought|carried)\b.*\b(balance|forward|down)\b|^balance\b/i;

/** Reads a file of one row an entry. One pass; every row ends up used or left out with a reason. */
export function readEntries(
  grid: Grid,
  mapping: EntriesMapping,
  currency: string,
  onProgress?: (share: number) => void,
): Draft {
  const { rows } = grid;
  const digits = minorDigits(currency);
  const { numbers, dates, headerRow } = mapping;
  const at = (role: EntryRole) => mapping.columns.indexOf(role);
  const col = {
    date: at('date'),
    account: at('account'),
    code: at('code'),
    name: at('name'),
    type: at('type'),
    debit: at('debit'),
    credit: at('credit'),
    amount: at('amount'),
    counterparty: at('counterparty'),
    reference: at('reference'),
    memo: at('memo'),
  };
  const flip = mapping.sign === 'creditPositive' ? -1 : 1;
  const log = new RowLog();
  const builder = new BlockBuilder(rows.length);
  const accounts = new AccountList();
  const balance = new BalanceWatch();
  const days = new Map<GridCell, number | null>();
  let used = 0;
  let counterparty = 0;
  let reference = 0;
  let memoPlace = 0;

  for (let i = 0; i < rows.length; i++) {
    const row = rows[i]!;
    const number = i + 1;
    if ((i & 16383) === 0) onProgress?.(i / rows.length);
    if (i <= headerRow) {
      log.leaveOut(i === headerRow ? 'header' : 'title', number);
      continue;
    }
    const dateCell = row[col.date] ?? '';
    let date = days.get(dateCell);
    if (date === undefined) days.set(dateCell, (date = dateCell === '' ? null : parseDate(dateCell, dates)));
    if (date === null) {
      noDate(row, number, cellText(dateCell));
      continue;
    }
    const account = accounts.place(row, col);
    if (account < 0) {
      if (TOTAL_WORDS.test(row.map(cellText).join(' '))) log.leaveOut('total', number);
      else problem('noAccount', number, Math.max(col.account, col.code, col.name), '');
      continue;
    }
    const amount = signedAmount(row, number);
    if (amount === null) continue;
    const memo = col.memo < 0 ? '' : cellText(row[col.memo]);
    if (memo !== '' && OPENING_WORDS.test(memo) && BALANCE_WORDS.test(memo)) {
      log.leaveOut('balanceForward', number);
      continue;
    }
    if (col.reference >= 0) reference = builder.text(cellText(row[col.reference]), reference);
    if (col.counterparty >= 0) counterparty = builder.text(cellText(row[col.counterparty]), counterparty);
    memoPlace = builder.text(memo, memoPlace);
    builder.add(date, account, amount, number, counterparty, reference, memoPlace);
    accounts.addTo(account, amount);
    balance.see(reference, date, amount, number);
    used++;
  }
  onProgress?.(1);

  function problem(
    reason: LeftOutReason &
      ('noAccount' | 'unknownDate' | 'missingDate' | 'unreadableAmount' | 'tooManyDecimals'),
    row: number,
    column: number,
    value: string,
  ): void {
    log.leaveOut(reason, row);
    log.issue({ code: reason, row, column: column + 1, value: value.slice(0, 80) });
  }

  /** Rows without a date: blank lines, totals and headings are as they should be; an amount without a date is not. */
  function noDate(row: readonly GridCell[], number: number, text: string): void {
    if (isBlankRow(row)) return log.leaveOut('blank', number);
    const words = row.map(cellText).join(' ');
    if (TOTAL_WORDS.test(words) || row.some((c) => typeof c === 'string' && TOTAL_WORDS.test(c)))
      return log.leaveOut('total', number);
    if (BALANCE_WORDS.test(words)) return log.leaveOut('balanceForward', number);
    const hasAmount = [col.debit, col.credit, col.amount].some((c) => c >= 0 && cellText(row[c]) !== '');
    if (!hasAmount && text === '') return log.leaveOut('heading', number);
    if (!hasAmount && row.filter((c) => cellText(c) !== '').length === 1)
      return log.leaveOut('heading', number);
    problem(text === '' ? 'missingDate' : 'unknownDate', number, col.date, text);
  }

  /** Debit less credit, or the signed amount; null when the row was left out. */
  function signedAmount(row: readonly GridCell[], number: number): number | null {
    let total = 0;
    let any = false;
    for (const [column, sign] of [
      [col.debit, 1],
      [col.credit, -1],
      [col.amount, flip],
    ] as const) {
      if (column < 0) continue;
      const parsed = readAmount(row[column], digits, numbers);
      if (!parsed.ok || parsed.percent) {
        problem(amountIssue(parsed)!, number, column, cellText(row[column]));
        return null;
      }
      if (parsed.value === null) continue;
      any = true;
      total += sign * parsed.value;
    }
    if (any) return total === 0 ? 0 : total;
    log.leaveOut('noAmount', number);
    return null;
  }

  const block = builder.build('draft', accounts.places());
  const verdict = balance.verdict(block.texts);
  return {
    mapping,
    accounts: accounts.guessed(),
    block,
    sign: 'debitPositive',
    rows: { read: rows.length, used, leftOut: log.leftOut },
    issues: log.issues,
    issueCount: log.issueCount,
    controls: [],
    ...verdict,
  };
}

/** The accounts met in a file of entries, found again by the texts of their cells. */
class AccountList {
  private readonly byCell = new Map<
    string,
    { readonly a: string; readonly c: string; readonly n: string; readonly place: number }
  >();
  private readonly byKey = new Map<string, number>();
  private readonly list: { code: string; name: string; type: string; total: number }[] = [];

  place(
    row: readonly GridCell[],
    col: { account: number; code: number; name: number; type: number },
  ): number {
    const a = col.account < 0 ? '' : cellText(row[col.account]);
    const c = col.code < 0 ? '' : cellText(row[col.code]);
    const n = col.name < 0 ? '' : cellText(row[col.name]);
    // Found by the first cell that says anything; its other cells are compared, not put together into a key.
    const first = a || c || n;
    if (first === '') return -1;
    const known = this.byCell.get(first);
    if (known && known.a === a && known.c === c && known.n === n) return known.place;
    const place = this.find(a, c, n, col.type < 0 ? '' : cellText(row[col.type]));
    this.byCell.set(first, { a, c, n, place });
    return place;
  }

  private find(a: string, c: string, n: string, type: string): number {
    const split = a ? splitAccountCell(a) : { code: '', name: '' };
    const code = c || split.code;
    const name = n || split.name;
    const key = code ? `#${code}` : nameKey(name);
    let place = this.byKey.get(key);
    if (place === undefined) {
      place = this.list.length;
      this.byKey.set(key, place);
      this.list.push({ code, name: name || code, type, total: 0 });
    }
    return place;
  }

  addTo(place: number, amount: number): void {
    this.list[place]!.total += amount;
  }

  places = (): string[] => this.list.map((_, i) => String(i));

  guessed = (): DraftAccount[] =>
    this.list.map(({ code, name, type, total }) => ({
      code,
      name,
      section: null,
      guess: guessKind({ code, name, type, sections: [], total }),
    }));
}

/** Adds up each journal entry (rows of one reference on one day) and says which do not come to zero. */
class BalanceWatch {
  private readonly groups: {
    sum: number;
    readonly row: number;
    lines: number;
    readonly reference: number;
    readonly day: number;
  }[] = [];
  /** The first group of a reference (by the place of its text); its groups on other days by both. */
  private readonly byReference: number[] = [];
  private readonly others = new Map<string, number>();
  private current = -1;
  private total = 0;

  see(reference: number, day: number, amount: number, row: number): void {
    this.total += amount;
    let group = this.groups[this.current];
    // Rows of one entry mostly stand together: the group is looked up only when it changes.
    if (!group || group.day !== day || group.reference !== reference) {
      this.current = this.groupOf(reference, day, row);
      group = this.groups[this.current]!;
    }
    group.sum += amount;
    group.lines++;
  }

  private groupOf(reference: number, day: number, row: number): number {
    const first = this.byReference[reference];
    if (first === undefined) {
      this.byReference[reference] = this.groups.length;
      return this.groups.push({ sum: 0, row, lines: 0, reference, day }) - 1;
    }
    if (this.groups[first]!.day === day) return first;
    const key = `${day} ${reference}`;
    let other = this.others.get(key);
    if (other === undefined) {
      other = this.groups.push({ sum: 0, row, lines: 0, reference, day }) - 1;
      this.others.set(key, other);
    }
    return other;
  }

  verdict(texts: readonly string[]): Pick<Draft, 'balance' | 'unbalanced' | 'unbalancedCount'> {
    const off = this.groups.filter((g) => g.sum !== 0);
    if (off.length === 0) return { balance: 'balanced', unbalanced: [], unbalancedCount: 0 };
    // When most entries miss their other half, the file holds one side only: that is no fault of single entries.
    if (this.total !== 0 && off.length > this.groups.length / 2 && this.groups.length > 1)
      return { balance: 'oneSided', unbalanced: [], unbalancedCount: 0 };
    const unbalanced: Unbalanced[] = off.slice(0, 200).map((g) => ({
      reference: texts[g.reference]!,
      row: g.row,
      difference: minor(g.sum),
      lines: g.lines,
    }));
    return { balance: 'unbalanced', unbalanced, unbalancedCount: off.length };
  }
}
