import { minor, percent, unitOf } from '@/core/money';
import { NO_CASH } from './cash';
import { BOOK_VERSION } from './migrate';
import type { AccountKind } from './kinds';
import type { Account, Book } from './schema';

export type NewBook = {
  readonly id: string;
  readonly name: string;
  readonly currency: string;
  readonly locale: string;
  readonly firstMonth: number;
};

/** An empty book. Variances over 500 units and 5 % are flagged until the person says otherwise. */
export function newBook({ id, name, currency, locale, firstMonth }: NewBook): Book {
  return {
    format: 'tellan.book',
    version: BOOK_VERSION,
    id,
    name,
    currency,
    locale,
    calendar: { kind: 'months', firstMonth },
    accounts: [],
    merged: {},
    axes: [],
    feed: null,
    sources: [],
    closedThrough: null,
    budgets: [],
    inForce: [],
    weights: [],
    workWeek: { weekdays: [1, 2, 3, 4, 5], holidays: [] },
    varianceNotes: {},
    messages: {},
    flags: { kinds: {}, accounts: {} },
    outlookWays: {},
    quantities: [],
    flowClasses: {},
    variableShares: {},
    covenants: [],
    ownRatios: [],
    adjustments: [],
    cases: [],
    rounds: [],
    layouts: [],
    settings: {
      flagAmount: minor(500 * unitOf(currency)),
      flagPercent: percent('5'),
      negatives: 'parentheses',
      cents: false,
    },
    cash: NO_CASH,
    nextId: 1,
  };
}

/** An account of which nothing is known but its name and kind. */
export const newAccount = (id: string, code: string, name: string, kind: AccountKind): Account => ({
  id,
  code,
  name,
  kind,
  group: '',
  active: true,
  keeper: '',
  usual: { low: null, high: null },
});
