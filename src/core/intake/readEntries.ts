import { isAmount, plus, minor, minorDigits, type Minor } from '@/core/money';
import { ACTIVITY, BlockBuilder, OPENING, openingsIn } from '@/core/ledger';
import { cellText, isBlankRow, type Grid, type GridCell, type GridRow, type Stated } from '@/core/files';
import { cutText, LIMITS, nameWith, naturalSign } from '@/core/model';
import { nameKey, splitAccountCell } from './accountCell';
import { AccountList } from './accountList';
import { BalanceWatch } from './balanceWatch';
import { parseDate } from './dates';
import { RowLog, type Control, type Draft, type IntakeIssue } from './draft';
import type { EntriesMapping, EntryRole } from './mapping';
import { amountIssue, readAmount } from './readCell';
import { toDebitPositive, TOTAL_WORDS } from './sign';

const OPENING_WORDS = /opening|brought|beginning|b\/?f\b/i;
const BALANCE_WORDS =
  /\b(opening|closing|beginning|ending|brought|carried)\b.*\b(balance|forward|down|entry)\b|^balance\b|\b[bc]\/f\b/i;
const DEBIT_MARK = /^(d|dr|debit|s|soll|\+)\.?$/i;
const CREDIT_MARK = /^(c|cr|credit|h|haben|-)\.?$/i;

/**
 * Reads a file of one row an entry. One pass; every row ends up used or left out with a reason. The first balance
 * brought forward of an account is its opening; later ones repeat what its entries have reached and are left out.
 */
export function readEntries(
  grid: Grid,
  mapping: EntriesMapping,
  currency: string,
  onProgress?: (share: number) => void,
  stated: Stated | null = null,
): Draft {
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
    mark: at('mark'),
    balance: at('balance'),
    counterparty: at('counterparty'),
    reference: at('reference'),
    memo: at('memo'),
  };
  const heads = headerRow >= 0 ? grid.head[headerRow]! : [];
  const segments = segmentColumns(mapping.columns, heads);
  const log = new RowLog();
  const builder = new BlockBuilder(
    grid.about,
    segments.map((s) => s.name),
  );
  const accounts = new AccountList(col);
  const balance = new BalanceWatch();
  const days = new Map<GridCell, number | null>();
  const controls: Control[] = [];
  const underHeadings = mapping.accountIn === 'headings';
  /** Accounts that have an entry or an opening already. */
  const begun: boolean[] = [];
  /** What accounts were opened with, and the latest day of their entries so far. */
  const stands: number[] = [];
  const latest: number[] = [];
  const undated: { account: number; amount: number; row: number }[] = [];
  /** Rows of one entry repeat one another: what the row before said needs no second look. */
  const last = {
    dateCell: '' as GridCell,
    date: null as number | null,
    memo: '',
    memoPlace: 0,
    opens: false,
    reference: '',
    referencePlace: 0,
    party: '',
    partyPlace: 0,
  };
  let earliest = Infinity;
  let heading = -1;
  /** Day and reference of the dated row that undated ones belong to. */
  let carried: { readonly date: number; readonly reference: string } | null = null;
  let read = 0;
  /** What the columns of debits and credits add up to, as they are written: a negative debit is still a debit. */
  let debits = 0;
  let credits = 0;

  grid.each(readRow, onProgress);
  function readRow(row: GridRow, i: number): void {
    const number = i + 1;
    read = number;
    if (i <= headerRow) return log.top(i, headerRow);
    const dateCell = row[col.date] ?? '';
    if (dateCell !== last.dateCell) {
      last.dateCell = dateCell;
      const known = days.get(dateCell);
      last.date = known === undefined ? (dateCell === '' ? null : parseDate(dateCell, dates)) : known;
      if (known === undefined) days.set(dateCell, last.date);
    }
    const carries = mapping.carryDate && dateCell === '' && carried !== null && isLine(row);
    const date = carries ? carried!.date : last.date;
    if (date === null) {
      noDate(row, number, cellText(dateCell));
      return;
    }
    const account = underHeadings ? heading : accounts.place(row);
    if (account < 0) {
      if (TOTAL_WORDS.test(row.map(cellText).join(' '))) log.leaveOut('total', number);
      else problem('noAccount', number, Math.max(col.account, col.code, col.name, 0), '');
      return;
    }
    const memo = col.memo < 0 ? '' : cellText(row[col.memo]);
    if (memo !== last.memo) {
      last.memo = memo;
      last.opens = OPENING_WORDS.test(memo) && BALANCE_WORDS.test(memo);
      last.memoPlace = builder.text(memo);
    }
    if (last.opens) {
      opening(row, number, account, date, memo);
      return;
    }
    const amount = signedAmount(row, number);
    if (amount === null) return;
    let reference = col.reference < 0 ? '' : cellText(row[col.reference]);
    if (mapping.carryDate) {
      if (!carries) carried = { date, reference };
      else if (reference === '') reference = carried!.reference;
    }
    if (reference !== last.reference) {
      last.reference = reference;
      last.referencePlace = builder.once(reference);
    }
    const party = col.counterparty < 0 ? '' : cellText(row[col.counterparty]);
    if (party !== last.party) {
      last.party = party;
      last.partyPlace = builder.text(party);
    }
    builder.add(
      date,
      account,
      amount,
      number,
      last.partyPlace,
      last.referencePlace,
      last.memoPlace,
      ACTIVITY,
    );
    for (let s = 0; s < segments.length; s++)
      builder.segment(s, cutText(cellText(row[segments[s]!.column]), LIMITS.segmentText));
    accounts.addTo(account, amount);
    balance.see(reference, date, amount, number);
    begun[account] = true;
    if (!(latest[account]! > date)) latest[account] = date;
    if (date < earliest) earliest = date;
    log.use(number);
  }
  // An opening without a day of its own stands at the beginning of what the file holds.
  for (const o of undated)
    builder.add(
      earliest === Infinity ? 0 : earliest,
      o.account,
      o.amount,
      o.row,
      0,
      0,
      builder.text('Opening balance'),
      OPENING,
    );
  onProgress?.(1);

  function problem(
    code: Exclude<IntakeIssue['code'], 'noDay'>,
    row: number,
    column: number,
    value: string,
  ): void {
    log.leaveOut(code, row);
    log.issue({ code, row, column: column + 1, value });
  }

  /** An account's first balance brought forward opens it; later ones only repeat. */
  function opening(
    row: readonly GridCell[],
    number: number,
    account: number,
    date: number | null,
    memo: string,
  ): void {
    const before = log.issueCount;
    const amount = signedAmount(row, number, 'opening') ?? balanceOf(row, number);
    if (amount === null) {
      if (log.issueCount === before) log.leaveOut('balanceForward', number);
      return;
    }
    if (begun[account]) {
      repeats(account, amount, date, number, memo);
      return log.leaveOut('balanceForward', number);
    }
    begun[account] = true;
    stands[account] = amount;
    log.use(number, 'opening');
    if (date === null) undated.push({ account, amount, row: number });
    else builder.add(date, account, amount, number, 0, 0, builder.text(memo), OPENING);
  }

  /** A balance carried forward further down says what its account has reached, where nothing later stands above it. */
  function repeats(account: number, amount: number, date: number | null, row: number, memo: string): void {
    if (amount === 0 || (date !== null && (latest[account] ?? -Infinity) > date)) return;
    const ours = plus(stands[account] ?? 0, accounts.total(account));
    controls.push({
      row,
      label: memo || accounts.nameOf(account),
      over: [],
      mode: 'sum',
      theirs: [{ day: null, value: minor(amount), ours: minor(ours) }],
    });
  }

  /** What the balance column of a row says; one that is no amount is named. */
  function balanceOf(row: readonly GridCell[], number: number): number | null {
    if (col.balance < 0) return null;
    const parsed = readAmount(row[col.balance], digits, numbers);
    const issue = amountIssue(parsed);
    if (issue) problem(issue, number, col.balance, cellText(row[col.balance]));
    return issue === null && parsed.ok ? parsed.value : null;
  }

  /** Rows without a date: blank lines, totals and headings are as they should be; an amount without a date is not. */
  function noDate(row: readonly GridCell[], number: number, text: string): void {
    if (isBlankRow(row)) return log.leaveOut('blank', number);
    const words = row.map(cellText).filter((t) => t !== '');
    const totals = words.find((t) => TOTAL_WORDS.test(t));
    if (totals !== undefined) {
      accountTotal(row, number, totals);
      return log.leaveOut('total', number);
    }
    if (words.some((t) => BALANCE_WORDS.test(t))) {
      const account = underHeadings ? heading : accounts.place(row);
      const opens = words.some((t) => OPENING_WORDS.test(t));
      if (opens && account >= 0) return opening(row, number, account, null, '');
      return log.leaveOut('balanceForward', number);
    }
    const hasAmount = [col.debit, col.credit, col.amount].some((c) => c >= 0 && cellText(row[c]) !== '');
    if (!hasAmount && underHeadings) {
      // Above its entries stands the account: alone, or as code and name in two cells; perhaps with its balance.
      const name = words.filter((w) => !readAmountText(w));
      const parts = name.length > 0 ? name : words;
      heading = accounts.heading(parts.slice(0, 2).join(' '));
      const before = log.issueCount;
      const stood = begun[heading] ? null : balanceOf(row, number);
      if (log.issueCount > before) return;
      if (!stood) return log.leaveOut('heading', number);
      // The balance beside the account's name is what it stood at before its entries.
      begun[heading] = true;
      stands[heading] = stood;
      undated.push({ account: heading, amount: stood, row: number });
      return log.use(number, 'opening');
    }
    if (!hasAmount && (text === '' || words.length === 1)) return log.leaveOut('heading', number);
    problem(text === '' ? 'missingDate' : 'unknownDate', number, Math.max(0, col.date), text);
  }

  function readAmountText(text: string): boolean {
    return /[.,]\d{1,3}\)?$/.test(text) && readAmount(text, digits, numbers).ok;
  }

  /** Whether an undated row is a line of an entry: it names an account and an amount, and is no total. */
  function isLine(row: readonly GridCell[]): boolean {
    const amount = [col.debit, col.credit, col.amount].some((c) => c >= 0 && cellText(row[c]) !== '');
    const named = [col.account, col.code, col.name].some((c) => c >= 0 && cellText(row[c]) !== '');
    return amount && named && !row.some((c) => typeof c === 'string' && TOTAL_WORDS.test(c));
  }

  /** “Total for Rent” above or beneath its entries is held against them. */
  function accountTotal(row: readonly GridCell[], number: number, words: string): void {
    const rest = words
      .replace(/^\s*(sub-?)?totals?\s*(for|of|:|-|–)?\s*/i, '')
      .replace(/\s*totals?\s*$/i, '');
    const of = splitAccountCell(rest);
    let place = -1;
    if (underHeadings && heading >= 0) {
      const same =
        nameKey(accounts.nameOf(heading)) === nameKey(of.name) ||
        (of.code !== '' && of.code === accounts.codeOf(heading));
      if (same) place = heading;
    }
    if (place < 0) return;
    const quiet = signedAmount(row, number, 'total');
    if (quiet === null) return;
    controls.push({
      row: number,
      label: cutText(words, 200),
      over: [place],
      mode: 'sum',
      theirs: [{ day: null, value: minor(quiet), ours: minor(accounts.total(place)) }],
    });
  }

  /**
   * Debit less credit, or the amount by its mark or sign; null when there is none, or the row was left out and named. Of a
   * total nothing is named: it is held against ours where it can be read. Only entries count in the columns' sums.
   */
  function signedAmount(
    row: readonly GridCell[],
    number: number,
    of: 'entry' | 'opening' | 'total' = 'entry',
  ): number | null {
    const quiet = of === 'total';
    let total = 0;
    let any = false;
    for (let k = 0; k < 3; k++) {
      const column = k === 0 ? col.debit : k === 1 ? col.credit : col.amount;
      if (column < 0) continue;
      const parsed = readAmount(row[column], digits, numbers);
      if (!parsed.ok || parsed.percent) {
        if (!quiet) problem(amountIssue(parsed)!, number, column, cellText(row[column]));
        return null;
      }
      if (parsed.value === null) continue;
      any = true;
      if (of === 'entry' && k === 0) debits = plus(debits, parsed.value);
      if (of === 'entry' && k === 1) credits = plus(credits, parsed.value);
      if (k === 2 && col.mark >= 0) {
        const mark = cellText(row[col.mark]);
        const side = DEBIT_MARK.test(mark) ? 1 : CREDIT_MARK.test(mark) ? -1 : 0;
        if (side === 0) {
          if (!quiet) problem('unknownMark', number, col.mark, mark);
          return null;
        }
        total += side * parsed.value;
      } else total += (k === 1 ? -1 : k === 2 && mapping.sign === 'creditPositive' ? -1 : 1) * parsed.value;
    }
    if (any && !isAmount(total)) {
      if (!quiet) problem('tooLarge', number, Math.max(col.debit, col.amount), String(total));
      return null;
    }
    if (any) return total === 0 ? 0 : total;
    if (of === 'entry') log.leaveOut('noAmount', number);
    return null;
  }

  const guessed = accounts.guessed();
  const block = builder.build('draft', accounts.places());
  const opens = stands.length > 0 ? openingsIn(block)?.day : undefined;
  const verdict = balance.verdict();
  // One column of amounts is the natural side of each account in some reports: then only so do they come to zero.
  const sides = guessed.reduce(
    (t, a, i) => t + toDebitPositive('natural', naturalSign(a.guess.kind)) * accounts.total(i),
    0,
  );
  const straight = guessed.reduce((t, _, i) => t + accounts.total(i), 0);
  const oneColumn = col.debit < 0 && col.mark < 0;
  const natural = mapping.sign === 'natural';
  if (stated) controls.push(...statedControls(stated, block.amount, block.mark, digits));
  return {
    mapping,
    accounts: guessed,
    block,
    sign: natural ? 'natural' : 'debitPositive',
    rows: log.rows(read),
    issues: log.issues,
    issueCount: log.issueCount,
    controls,
    ...(natural
      ? { balance: sides === 0 ? 'balanced' : 'oneSided', unbalanced: [], unbalancedCount: 0 }
      : verdict),
    hints: {
      sign: oneColumn && !natural && straight !== 0 && sides === 0 ? 'natural' : null,
      cumulative: null,
    },
    baseline: null,
    trials: null,
    ...(opens !== undefined ? { opensOn: opens } : {}),
    ...(col.debit >= 0 && col.credit >= 0
      ? { columns: { debit: minor(debits), credit: minor(credits) } }
      : {}),
  };
}

const segmentName = (heading: string, column: number): string =>
  cutText(heading.replace(/^segment:\s*/i, ''), LIMITS.heading) || `Column ${column + 1}`;

/** Columns of segments by name; of two with the same head each is its own, as both may say something of one entry. */
function segmentColumns(columns: readonly EntryRole[], heads: readonly GridCell[]) {
  const times = new Map<string, number>();
  return columns.flatMap((r, column) => {
    if (r !== 'segment') return [];
    const name = segmentName(cellText(heads[column]), column);
    const time = (times.get(name.toLowerCase()) ?? 0) + 1;
    times.set(name.toLowerCase(), time);
    return [{ column, name: time === 1 ? name : nameWith(name, ` (${time})`, LIMITS.heading) }];
  });
}

/** The file's own count of entries' debits and credits, against what was read. */
function statedControls(stated: Stated, amounts: Float64Array, marks: Uint8Array, digits: number): Control[] {
  let debit = 0;
  let credit = 0;
  amounts.forEach((a, i) => {
    if (marks[i] !== ACTIVITY) return;
    if (a > 0) debit = plus(debit, a);
    else credit = plus(credit, -a);
  });
  const one = (label: string, text: string | null, ours: number): Control[] => {
    const parsed = text === null ? null : readAmount(text, digits, { decimal: '.', group: ',' });
    if (!parsed?.ok || parsed.value === null) return [];
    const value: Minor = parsed.value;
    return [{ row: 0, label, over: [], mode: 'sum', theirs: [{ day: null, value, ours: minor(ours) }] }];
  };
  return [...one('Total debit', stated.debit, debit), ...one('Total credit', stated.credit, credit)];
}
