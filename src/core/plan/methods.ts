import {
  divideRounded,
  minor,
  percentOf,
  roundParts,
  splitEven,
  splitLike,
  sum,
  sumBlank,
  UnsafeMoneyError,
  uplift,
  ZERO,
  type Minor,
} from '@/core/money';
import { assertNever } from '@/core/assertNever';
import type { AccountId, EvenBasis, Method, MethodKind } from '@/core/model';
import type { Facts } from './facts';

export type Amounts = readonly (Minor | null)[];

/** What stopped a method from giving what it promises; the amounts beside it are what could be given. */
export type LineIssue = 'noLastYear' | 'nothingToFollow' | 'cycle' | 'lineMissing' | 'tooLarge';

export type Computed = { readonly amounts: Amounts; readonly issue: LineIssue | null };

type Context = {
  readonly account: AccountId;
  readonly facts: Facts;
  /** Amounts of a line that this one depends on, already reckoned; null when there is no such line. */
  readonly line: (account: AccountId) => Amounts | null;
};

type Rule<K extends MethodKind> = {
  /** The lines that must be reckoned before this one. */
  readonly needs: (method: Extract<Method, { kind: K }>) => readonly AccountId[];
  readonly compute: (method: Extract<Method, { kind: K }>, context: Context) => Computed;
};

const none = (): readonly AccountId[] => [];
const fine = (amounts: Amounts): Computed => ({ amounts, issue: null });
const blanks = (context: Context): Amounts => context.facts.periods.map(() => null);

/** One entry a method: what it needs and how its months are made. */
const METHODS: { readonly [K in MethodKind]: Rule<K> } = {
  byMonth: {
    needs: none,
    compute: (method, { facts }) => fine(facts.periods.map((p) => method.amounts[p.id] ?? null)),
  },

  /** Each month is the same month last year with the uplift; a silent month stays blank. */
  lastYear: {
    needs: none,
    compute(method, context) {
      const { lastYear } = context.facts.past(context.account);
      if (!lastYear.some((a) => a !== null)) return { amounts: blanks(context), issue: 'noLastYear' };
      const raised = lastYear.map((a) => (a === null ? null : uplift(a, method.uplift)));
      return fine(rounded(raised, method.round * context.facts.unit));
    },
  },

  /** One amount a month: a given year, last year's total, the average month or the last month carried on. */
  even: {
    needs: none,
    compute(method, context) {
      const months = context.facts.periods.length;
      const { lastYear, known } = context.facts.past(context.account);
      const base = evenBase(method.basis, lastYear, known, months);
      if (base === null)
        return {
          amounts: blanks(context),
          issue: method.basis.of === 'lastYear' ? 'noLastYear' : 'nothingToFollow',
        };
      return fine(rounded(splitEven(uplift(base, method.uplift), months), method.round * context.facts.unit));
    },
  },

  /** An annual amount (or last year's) with the uplift, shaped like last year's months. */
  pattern: {
    needs: none,
    compute(method, context) {
      const { facts } = context;
      const shape = facts.past(context.account).lastYear.map((a) => a ?? ZERO);
      const base = method.annual ?? sum(shape);
      const total = uplift(base, method.uplift);
      const unit = method.round * facts.unit;
      const parts = splitLike(total, shape);
      if (parts) return fine(rounded(parts, unit));
      // Nothing to be in proportion to: an even split, and the line says so.
      if (method.annual === null) return { amounts: blanks(context), issue: 'noLastYear' };
      return { amounts: rounded(splitEven(total, facts.periods.length), unit), issue: 'nothingToFollow' };
    },
  },

  /** A percentage of another line in the same month. */
  share: {
    needs: (method) => [method.of],
    compute(method, context) {
      const source = context.line(method.of);
      if (!source) return { amounts: blanks(context), issue: 'lineMissing' };
      return fine(source.map((a) => (a === null ? null : percentOf(a, method.percent))));
    },
  },
};

/** The year's amount before uplift that an even line divides; null when the ledger has nothing to take it from. */
export function evenBase(
  basis: EvenBasis,
  lastYear: Amounts,
  known: readonly Minor[],
  months: number,
): Minor | null {
  switch (basis.of) {
    case 'amount':
      return basis.annual;
    case 'lastYear':
      return sumBlank(lastYear);
    case 'average':
      // The average month times the months of the year, rounded once.
      return known.length === 0 ? null : divideRounded(sum(known), months, known.length, 'halfAwayFromZero');
    case 'lastMonth':
      return known.length === 0 ? null : minor(known.at(-1)! * months);
    default:
      return assertNever(basis);
  }
}

/** Rounds months to a unit so that they add up to the rounded total; blanks stay blank. */
function rounded(amounts: Amounts, unit: number): Amounts {
  if (unit <= 1) return amounts;
  const parts = roundParts(
    amounts.map((a) => a ?? ZERO),
    unit,
  );
  return amounts.map((a, i) => (a === null ? null : parts[i]!));
}

/** Lines that a method depends on. */
export const needsOf = (method: Method): readonly AccountId[] =>
  (METHODS[method.kind] as Rule<MethodKind>).needs(method as never);

/**
 * The months that a method gives, before anything typed over them. Figures beyond what money can be (an uplift of a
 * billion percent, a pattern that all but cancels out) leave the line blank with its issue; all other lines stand.
 */
export function computeMethod(method: Method, context: Context): Computed {
  try {
    return (METHODS[method.kind] as Rule<MethodKind>).compute(method as never, context);
  } catch (error) {
    if (error instanceof UnsafeMoneyError) return { amounts: blanks(context), issue: 'tooLarge' };
    throw error;
  }
}
