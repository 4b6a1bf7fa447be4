import type { AccountId } from './schema';
import type { Line } from './budget';
import type { Driver, Method, MethodKind, MethodOf, Ref, Series } from './methods';

/** What lines and drivers may name outside of themselves. */
export type Reference =
  | Ref
  | { readonly of: 'driver'; readonly driver: string }
  | { readonly of: 'budget'; readonly budget: string }
  | { readonly of: 'weights'; readonly weights: string };

/** What becomes of an account that is named when it is merged into another. */
type Rename = (account: AccountId) => AccountId;

/** What the rest of a book has to know of a kind of method or series: what it names, and how a name in it is changed. */
type Home<T> = {
  readonly names: (of: T) => readonly Reference[];
  /** The same with other accounts named; the same object when none is. */
  readonly renamed: (of: T, rename: Rename) => T;
};

/** One that names nothing. */
const alone: Home<unknown> = { names: () => [], renamed: (of) => of };

const renamedRef = (ref: Ref, rename: Rename): Ref => {
  if (ref.of !== 'account') return ref;
  const account = rename(ref.account);
  return account === ref.account ? ref : { of: 'account', account };
};

/** In a kept formula a name stands in quotes by its id: "account:a1", "driver:d2", "group:expense:Premises", "kind:income". */
const KEPT_NAME = /"(account|driver):((?:[^"]|"")+)"/g;

/** The accounts and drivers that a kept formula names; groups and kinds name no id. */
function namesInFormula(formula: string): Reference[] {
  return [...formula.matchAll(KEPT_NAME)].map(([, of, id]) =>
    of === 'driver' ? { of: 'driver', driver: id! } : { of: 'account', account: id! },
  );
}

/** A kept formula with other accounts named. */
export const renamedInFormula = (formula: string, rename: Rename): string =>
  formula.replace(KEPT_NAME, (whole, of: string, id: string) =>
    of === 'account' ? `"account:${rename(id)}"` : whole,
  );

const byFormula = {
  names: ({ formula }: { formula: string }) => namesInFormula(formula),
  renamed<T extends { formula: string }>(of: T, rename: Rename): T {
    const formula = renamedInFormula(of.formula, rename);
    return formula === of.formula ? of : { ...of, formula };
  },
};

/** Every kind of method is at home here, or the program does not compile. */
const METHOD_HOMES: { readonly [K in MethodKind]: Home<MethodOf<K>> } = {
  byMonth: alone as Home<MethodOf<'byMonth'>>,
  lastYear: {
    names: ({ from }) => (from.of === 'actuals' ? [] : [{ of: 'budget', budget: from.budget }]),
    renamed: (method) => method,
  },
  runRate: alone as Home<MethodOf<'runRate'>>,
  phased: {
    names: ({ by }) => (by.by === 'weights' ? [{ of: 'weights', weights: by.weights }] : []),
    renamed: (method) => method,
  },
  pattern: {
    names: ({ like }) => (like === null ? [] : [like]),
    renamed(method, rename) {
      const like = method.like && renamedRef(method.like, rename);
      return like === method.like ? method : { ...method, like };
    },
  },
  step: alone as Home<MethodOf<'step'>>,
  share: {
    names: ({ of }) => [of],
    renamed(method, rename) {
      const of = renamedRef(method.of, rename);
      return of === method.of ? method : { ...method, of };
    },
  },
  occurrence: alone as Home<MethodOf<'occurrence'>>,
  driver: {
    names: ({ factors }) => factors.map((driver) => ({ of: 'driver', driver })),
    renamed: (method) => method,
  },
  formula: byFormula,
  unphased: alone as Home<MethodOf<'unphased'>>,
  schedule: alone as Home<MethodOf<'schedule'>>,
};

const SERIES_HOMES: { readonly [K in Series['kind']]: Home<Extract<Series, { kind: K }>> } = {
  typed: alone as Home<Extract<Series, { kind: 'typed' }>>,
  step: alone as Home<Extract<Series, { kind: 'step' }>>,
  seasonal: {
    names: ({ weights }) => [{ of: 'weights', weights }],
    renamed: (series) => series,
  },
  formula: byFormula,
};

/** What a method names outside of itself. */
export const namesOfMethod = (method: Method): readonly Reference[] =>
  (METHOD_HOMES[method.kind] as Home<Method>).names(method);

/** What a driver names. */
export const namesOfDriver = ({ series }: Pick<Driver, 'series'>): readonly Reference[] =>
  (SERIES_HOMES[series.kind] as Home<Series>).names(series);

/** A method with other accounts named; the same object when it names none of them. */
export const renamedMethod = (method: Method, rename: Rename): Method =>
  (METHOD_HOMES[method.kind] as Home<Method>).renamed(method, rename);

export const renamedSeries = (series: Series, rename: Rename): Series =>
  (SERIES_HOMES[series.kind] as Home<Series>).renamed(series, rename);

/** The budgets that lines take over, each once. */
export function budgetsIn(lines: readonly Pick<Line, 'method'>[]): readonly string[] {
  const ids = new Set<string>();
  for (const { method } of lines)
    for (const name of namesOfMethod(method)) if (name.of === 'budget') ids.add(name.budget);
  return [...ids];
}
