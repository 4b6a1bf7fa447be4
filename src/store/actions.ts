import { minor, type Minor } from '@/core/money';
import type { PeriodId } from '@/core/calendar';
import {
  blankLine,
  cutText,
  LIMITS,
  isProfitAndLoss,
  lineOf,
  quantityNamed,
  type AccountId,
  type Book,
  type Budget,
  type Line,
  type OverMonths,
  type Quantity,
  type Refusal,
  type VarianceNote,
} from '@/core/model';
import { fingerprint } from '@/core/files/fingerprint';
import { fingerprintText, frozenLines } from '@/core/plan';
import { now, randomId } from '@/platform/clock';
import { dispatch } from './bookStore';
import { recordedName, wantName } from './person';
import { outlookMonths, reckoned, type Ground } from '@/core/ground';

export { randomId };

/** Today's day in the person's own time zone: the one place where "today" comes from. */
export const today = (): string => new Date().toLocaleDateString('sv-SE');

/** The present instant, for what is recorded with a time. */
export const instant = now;

/** The fingerprint of a budget's figures: SHA-256 of their text, in hexadecimal. */
export const fingerprintOf = (
  budget: Budget,
  lines: NonNullable<Budget['approved']>['lines'],
): Promise<string> => fingerprint(new TextEncoder().encode(fingerprintText(budget, lines)));

/** Approves a draft: freezes its figures as they are shown now, with who did it and their fingerprint. */
export async function approveBudget(
  shown: Ground,
  budget: Budget,
  by: string,
  takesOver = false,
): Promise<Refusal | null> {
  // Loaded when it is needed: the worksheet does without the reckoning of money.
  const [{ madeAhead }, { approvedCash }, { guessesOf }] = await Promise.all([
    import('@/core/ground/cash'),
    import('@/core/ground/keptCash'),
    import('@/core/ground/closing'),
  ]);
  const ground = { ...shown, made: madeAhead };
  const lines = frozenLines(reckoned(ground, budget).reckoning);
  const fingerprint = await fingerprintOf(budget, lines);
  const approved = { at: now(), by, fingerprint, lines, cash: approvedCash(ground, budget) };
  return dispatch({
    type: 'approveBudget',
    budget: budget.id,
    approved,
    ...(takesOver ? { takesOver } : {}),
    guessed: guessesOf(ground, budget),
  });
}

/** Puts a budget in force, with what is guessed of its terms, which it keeps from now on. */
export async function putInForce(ground: Ground, budget: Budget): Promise<Refusal | null> {
  const { guessesOf } = await import('@/core/ground/closing');
  return dispatch({ type: 'putInForce', budget: budget.id, guessed: guessesOf(ground, budget) });
}

/** Keeps, changes or (without text and parts) takes away the explanation of a variance. */
export function explainVariance(
  period: PeriodId,
  account: AccountId,
  { text, parts, against, facts }: Omit<VarianceNote, 'at'>,
): Refusal | null {
  const isEmpty = text.trim() === '' && parts.length === 0;
  return dispatch({
    type: 'setVarianceNote',
    period,
    account,
    note: isEmpty ? null : { text: text.trim(), against, parts, ...(facts ? { facts } : {}), at: now() },
  });
}

/** Says how a quantity goes over several months, of whatever is counted of its name. */
export const sayOver = (
  { quantities }: Pick<Book, 'quantities'>,
  of: Pick<Quantity, 'name' | 'unit' | 'decimals'>,
  over: OverMonths,
): Refusal | null =>
  dispatch({ type: 'setQuantities', quantities: [{ ...quantityNamed(quantities, of), over }] });

/** Says what a layout's report of a period says; as it is drafted where nothing is written. */
export function writeMessage(period: PeriodId, layout: string, text: string, draft: string): Refusal | null {
  const message =
    text === '' ? null : { text, draft: cutText(draft, LIMITS.note), by: recordedName(), at: now() };
  const refusal = dispatch({ type: 'setMessage', period, layout, message });
  if (message) wantName();
  return refusal;
}

/** Adds a draft that is as a budget, but for what is said of it; its id, or null where it was refused. `why`: for the journal. */
export function addDraftOf(
  book: Book,
  budget: Budget,
  change: Pick<Budget, 'name' | 'revises'> & Partial<Budget>,
  why?: string,
): string | null {
  const id = `b${book.nextId}`;
  const refusal = dispatch(
    { type: 'addBudget', budget: { ...budget, ...change, id, state: 'draft', approved: null } },
    undefined,
    why,
  );
  return refusal ? null : id;
}

/**
 * Makes the outlook of a budget of the whole company a new draft: actuals where there are any, then its plan with what
 * explained variances carry on. What is said of a year as a whole stays so. The draft's id, or null where it was refused.
 */
export function draftOutlook(ground: Ground, budget: Budget, name: string, reason: string): string | null {
  const whole = reckoned(ground, budget);
  const ids = whole.facts.periods.map((p) => p.id);
  const own = new Map(budget.lines.map((l) => [l.account, l]));
  const lines = ground.book.accounts.flatMap((a) => {
    const line = own.get(a.id);
    if (line?.method.kind === 'unphased') return [line];
    if (!line && !isProfitAndLoss(a.kind)) return [];
    const months = outlookMonths(whole, a.id, [null]);
    const amounts = Object.fromEntries(
      ids.flatMap((id, i) => (months[i] === null ? [] : [[id, months[i]!]])),
    );
    if (!line && Object.keys(amounts).length === 0) return [];
    return [
      { ...blankLine({ account: a.id, segment: null }), method: { kind: 'byMonth' as const, amounts } },
    ];
  });
  const revises = { budget: budget.id, reason };
  return addDraftOf(ground.book, budget, { name, lines, drivers: [], revises });
}

/**
 * Merges one account into another. A budget that has a line of each gets one line of their amounts by month, as they
 * are reckoned now; frozen budgets add what was approved.
 */
export function mergeAccounts(ground: Ground, from: AccountId, into: AccountId): Refusal | null {
  const lines = ground.book.budgets.flatMap((budget) => {
    if (budget.state !== 'draft') return [];
    return budget.segments.flatMap((segment) => {
      const [gone, kept] = [from, into].map((account) => lineOf(budget, { account, segment }));
      return gone && kept ? [{ budget: budget.id, line: mergedLine(ground, budget, gone, kept) }] : [];
    });
  });
  return dispatch({ type: 'mergeAccounts', from, into, lines });
}

function mergedLine(ground: Ground, budget: Budget, gone: Line, kept: Line): Line {
  const { facts, amounts } = reckoned(ground, budget);
  const [a, b] = [amounts(gone.account, gone.segment), amounts(kept.account, kept.segment)];
  const byPeriod: Record<PeriodId, Minor> = {};
  facts.periods.forEach((p, i) => {
    const x = a?.[i] ?? null;
    const y = b?.[i] ?? null;
    if (x !== null || y !== null) byPeriod[p.id] = minor((x ?? 0) + (y ?? 0));
  });
  const texts = cutText([kept.note?.text, gone.note?.text].filter(Boolean).join('\n'), LIMITS.note);
  const note = kept.note ?? gone.note;
  return {
    ...blankLine(kept),
    method: { kind: 'byMonth', amounts: byPeriod },
    note: note && { ...note, text: texts },
    cellNotes: { ...gone.cellNotes, ...kept.cellNotes },
  };
}
