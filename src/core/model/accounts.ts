import { current, isDraft, type Draft } from 'immer';
import { renamedAdjusts, type Adjusts, type AppliedAdjustment } from './adjustment';
import type { Budget, Line } from './budget';
import type { Cash, Terms } from './cash';
import { cutText, LIMITS } from './limits';
import type { Series } from './methods';
import { renamedInFormula, renamedMethod, renamedSeries } from './references';
import { renamedContras, renamedRow, type ScheduleRow } from './scheduleRow';
import type { Account, AccountId, Book } from './schema';
import { accountsOfTerms, renamedCash, renamedTerms, termsKey } from './termsAccounts';

/* What commands do to the accounts of a book that is being changed. */

/** Whose an account's entries are: what was merged is the account that it was merged into. */
export const ownerOf =
  (merged: Book['merged']) =>
  (account: AccountId): AccountId =>
    Object.hasOwn(merged, account) ? merged[account]! : account;

/** Codes as numbers where they are: 900 before 1010; accounts without a code last. */
export const compareCodes = (a: string, b: string): number =>
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

const MOST_PARTS = 12;

/**
 * Takes an account into another: nothing that can still be changed names it any more but `merged`, by which its entries
 * are found. What was approved keeps the accounts of the time.
 */
export function mergeInto(book: Draft<Book>, from: AccountId, into: AccountId): void {
  book.accounts = book.accounts.filter((a) => a.id !== from);
  for (const [old, now] of Object.entries(book.merged)) if (now === from) book.merged[old] = into;
  book.merged[from] = into;
  for (const budget of book.budgets) if (budget.state === 'draft') mergeLines(budget, from, into);
  const rename = (account: AccountId) => (account === from ? into : account);
  book.cash = renamedCash(plain(book.cash), rename) as Draft<Cash>;
  for (const notes of Object.values(book.varianceNotes)) {
    const note = notes[from];
    if (!note) continue;
    const there = notes[into];
    if (there) {
      there.text = cutText(`${there.text}\n${note.text}`, LIMITS.note);
      // One part at most is the rest, of either account's variance.
      const hasRest = there.parts.some((p) => p.amount === null);
      const parts = hasRest ? note.parts.filter((p) => p.amount !== null) : note.parts;
      there.parts = [...there.parts, ...parts].slice(0, MOST_PARTS);
    } else notes[into] = note;
    delete notes[from];
  }
  for (const notes of Object.values(book.varianceNotes))
    for (const note of Object.values(notes))
      for (const part of note.parts) if (part.kind === 'wrongEntry' && part.to === from) part.to = into;
  for (const of of [
    book.flags.accounts,
    book.flowClasses,
    book.variableShares,
    ...Object.values(book.outlookWays),
  ] as Record<string, unknown>[]) {
    if (of[from] === undefined) continue;
    // The account that takes the other in keeps what is said of it.
    of[into] ??= of[from];
    delete of[from];
  }
  mergedInRounds(book, from, into);
  for (const a of book.adjustments)
    a.what = renamedAdjusts(plain(a.what) as Adjusts, rename) as Draft<Adjusts>;
  for (const ratio of book.ownRatios) ratio.formula = renamedInFormula(ratio.formula, rename);
  for (const { rows } of book.layouts)
    rows.own = rows.own.flatMap((row) => {
      if (row.row !== 'account' || row.account !== from) return [row];
      const there = rows.own.some((other) => other.row === 'account' && other.account === into);
      return there ? [] : [{ ...row, account: into }];
    });
}

/** What was taken into a line goes with it; null where it was of no other. */
function without(what: Adjusts, account: AccountId): Adjusts | null {
  if (what.on !== 'amounts' && what.on !== 'linesMoved') return what;
  const lines = what.reach.lines.filter((l) => l.of !== 'account' || l.account !== account);
  return lines.length === 0 ? null : { ...what, reach: { ...what.reach, lines } };
}

function mergeLines(budget: Draft<Budget>, from: AccountId, into: AccountId): void {
  const rename = (account: AccountId) => (account === from ? into : account);
  const taken = new Set(budget.lines.filter((l) => l.account === into).map((l) => l.segment));
  // Whole lines in place of whole lines: one that came with the command is not the command's to be written into.
  budget.lines = budget.lines.flatMap((l) => {
    if (l.account === from && taken.has(l.segment)) return [];
    const line = plain(l) as Line;
    const method = renamedMethod(line.method, rename);
    const same = method === line.method && line.account !== from;
    return [(same ? l : { ...line, account: rename(line.account), method }) as Draft<Line>];
  });
  const own = new Set(
    budget.terms.filter((t) => t.of.of === 'account' && t.of.account === into).map(termsKey),
  );
  budget.terms = (plain(budget.terms) as Terms[]).flatMap((t) => {
    const now = renamedTerms(t, rename);
    // The account that takes the other in keeps its own terms.
    return termsKey(now) !== termsKey(t) && own.has(termsKey(now)) ? [] : [now as Draft<Terms>];
  });
  budget.applied = (plain(budget.applied) as AppliedAdjustment[]).flatMap((a) => {
    const what = taken.size > 0 ? without(a.adjustment.what, from) : a.adjustment.what;
    const named = what && { ...a, adjustment: { ...a.adjustment, what: renamedAdjusts(what, rename) } };
    return named ? [named as Draft<AppliedAdjustment>] : [];
  });
  // What was guessed of either is guessed anew of both.
  budget.guessed = budget.guessed.filter(
    (g) => ![...accountsOfTerms(plain(g.terms) as Terms)].includes(from),
  );
  budget.schedules = (plain(budget.schedules) as ScheduleRow[]).map(
    (row) => renamedRow(row, rename) as Draft<ScheduleRow>,
  );
  budget.contras = renamedContras(plain(budget.contras), rename);
  for (const driver of budget.drivers) {
    const { series } = plain(driver);
    const next = renamedSeries(series, rename);
    if (next !== series) driver.series = next as Draft<Series>;
  }
}

/** What a part of a draft holds; a part that was put there whole is no draft itself. */
const plain = <T>(part: Draft<T>): T => (isDraft(part) ? current(part) : part) as T;

/** Rounds after an account became another: what was handed out and came back of it stays under the account that it is now. */
function mergedInRounds(book: Draft<Book>, from: AccountId, into: AccountId): void {
  for (const { handouts } of book.rounds)
    for (const h of handouts) {
      const has = new Set(h.lines.filter((l) => l.account === into).map((l) => l.segment));
      h.lines = h.lines.filter((l) => l.account !== from || !has.has(l.segment));
      for (const l of h.lines) if (l.account === from) l.account = into;
      for (const r of h.returns) for (const l of r.lines) if (l.account === from) l.account = into;
    }
}
