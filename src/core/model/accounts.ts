import type { Draft } from 'immer';
import { minor, type Minor } from '@/core/money';
import type { Budget } from './budget';
import type { Method } from './methods';
import type { Account, AccountId, Book } from './schema';

/* What commands do to the accounts of a book that is being changed. */

/** Codes as numbers where they are: 900 before 1010; accounts without a code last. */
const compareCodes = (a: string, b: string): number =>
  Number(a === '') - Number(b === '') ||
  (a.length === b.length
    ? a < b
      ? -1
      : a > b
        ? 1
        : 0
    : Number.parseFloat(a) - Number.parseFloat(b) || (a < b ? -1 : 1));

/**
 * New accounts of entries take the place that their codes give them among accounts that stand in the order of their
 * codes; an order made by hand, and that of a months-across statement, stays.
 */
export function insertAccounts(book: Draft<Book>, fresh: readonly Account[], byCode: boolean): void {
  if (!byCode) {
    book.accounts.push(...fresh);
    return;
  }
  const all = [...fresh].sort((a, b) => compareCodes(a.code, b.code));
  const inOrder = book.accounts.every(
    (a, i) => i === 0 || compareCodes(book.accounts[i - 1]!.code, a.code) <= 0,
  );
  if (inOrder) {
    book.accounts.push(...all);
    book.accounts.sort((a, b) => compareCodes(a.code, b.code));
    return;
  }
  for (const account of all) {
    const at = book.accounts.findIndex(
      (a) => a.kind === account.kind && compareCodes(account.code, a.code) < 0,
    );
    const last = book.accounts.findLastIndex((a) => a.kind === account.kind);
    book.accounts.splice(at >= 0 ? at : last >= 0 ? last + 1 : book.accounts.length, 0, account);
  }
}

/** Takes an account into another: nothing of the book names it any more but `merged`, by which its entries are found. */
export function mergeInto(book: Draft<Book>, from: AccountId, into: AccountId): void {
  book.accounts = book.accounts.filter((a) => a.id !== from);
  for (const [old, now] of Object.entries(book.merged)) if (now === from) book.merged[old] = into;
  book.merged[from] = into;
  for (const budget of book.budgets) mergeLines(budget, from, into);
  for (const notes of Object.values(book.varianceNotes)) {
    const note = notes[from];
    if (!note) continue;
    const there = notes[into];
    if (there) there.text = `${there.text}\n${note.text}`.slice(0, 4000);
    else notes[into] = note;
    delete notes[from];
  }
  for (const axis of book.axes) delete axis.byAccount[from];
}

function mergeLines(budget: Draft<Budget>, from: AccountId, into: AccountId): void {
  const taken = new Set(budget.lines.filter((l) => l.account === into).map((l) => l.segment));
  budget.lines = budget.lines.filter((l) => l.account !== from || !taken.has(l.segment));
  for (const line of budget.lines) {
    if (line.account === from) line.account = into;
    renameIn(line.method, from, into);
  }
  for (const { series } of budget.drivers)
    if (series.kind === 'formula') series.formula = renamedInFormula(series.formula, from, into);
  const frozen = budget.approved;
  if (!frozen) return;
  const there = new Map(frozen.lines.filter((l) => l.account === into).map((l) => [l.segment, l]));
  for (const line of frozen.lines) {
    if (line.account !== from) continue;
    const other = there.get(line.segment);
    if (!other) line.account = into;
    else {
      other.amounts = addLists(other.amounts, line.amounts);
      other.wholes = addLists(other.wholes, line.wholes);
    }
  }
  frozen.lines = frozen.lines.filter((l) => l.account !== from);
}

/** What names an account in a method names the other from now on. */
function renameIn(method: Draft<Method>, from: AccountId, into: AccountId): void {
  if (method.kind === 'share' && method.of.of === 'account' && method.of.account === from)
    method.of.account = into;
  if (method.kind === 'pattern' && method.like?.of === 'account' && method.like.account === from)
    method.like.account = into;
  if (method.kind === 'formula') method.formula = renamedInFormula(method.formula, from, into);
}

/** In a kept formula an account stands as "account:id". */
const renamedInFormula = (formula: string, from: AccountId, into: AccountId): string =>
  formula.replaceAll(`"account:${from}"`, `"account:${into}"`);

type Figures = (Minor | null)[];

const addLists = (a: Figures, b: Figures): Figures =>
  Array.from({ length: Math.max(a.length, b.length) }, (_, i) => {
    const [v, w] = [a[i] ?? null, b[i] ?? null];
    return v === null ? w : w === null ? v : minor(v + w);
  });
