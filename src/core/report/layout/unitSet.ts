import { yearsBefore } from '@/core/calendar';
import type { Minor } from '@/core/money';
import type { Comparison } from '@/core/ground';
import { newAccount, sameName, type Account, type OverMonths } from '@/core/model';
import { isActual } from '@/core/plan';
import { overMonths, unitsOf, type UnitSeries } from './quantities';
import type { PlainRow } from './rows';
import type { RowSet } from './rowSet';
import type { Side } from './sides';

/** Ids of rows of units: by place, since names may be anything. */
const idOf = (i: number): string => `unit-${i}`;
const known = new WeakMap<Account, UnitSeries>();

const ROLL: Readonly<Record<OverMonths, PlainRow['roll']>> = {
  sum: 'sum',
  last: 'last',
  mean: 'none',
  none: 'none',
};

/** Quantities of drivers: what was counted beside what was planned, over several months as each of them goes. */
export const unitSet: RowSet = {
  accounts: (ground, { comparison }) =>
    unitsOf(ground, comparison).map((unit, i) => {
      const account = newAccount(idOf(i), '', unit.name, 'otherAsset');
      known.set(account, unit);
      return account;
    }),
  rows: (_rows, accounts) =>
    accounts.map((account): PlainRow => ({
      kind: 'line',
      key: account.id,
      code: '',
      label: account.name,
      account: null,
      members: [account],
      section: null,
      effect: 0,
      roll: ROLL[known.get(account)?.over ?? 'none'],
      terms: [],
      own: null,
    })),
  rollOf: (account) => ROLL[known.get(account)?.over ?? 'none'],
  unitOf(row) {
    const unit = row.members[0] && known.get(row.members[0]);
    return unit ? { name: unit.unit, decimals: unit.decimals } : null;
  },
  sides({ ground, compared: { comparison, first, second } }) {
    const units = unitsOf(ground, comparison);
    const { calendar, balances, closedThrough } = ground;
    const unitAt = (a: Account) => units[Number(a.id.slice('unit-'.length))];
    /** `told`: whether what is known of some periods says what all of them come to. */
    const side = (
      at: (unit: UnitSeries, p: number) => number | null,
      told: (unit: UnitSeries, periods: readonly number[]) => boolean = () => true,
      covers: (p: number) => boolean = () => true,
    ): Side => ({
      at: (a, scope, p) => {
        const unit = scope === 'all' ? unitAt(a) : undefined;
        return unit ? (at(unit, p) as Minor | null) : null;
      },
      over: (a, scope, periods) => {
        const unit = scope === 'all' ? unitAt(a) : undefined;
        if (!unit || (unit.over === 'sum' && !told(unit, periods))) return null;
        return overMonths(
          unit.over,
          periods.map((p) => at(unit, p)),
        ) as Minor | null;
      },
      whole: () => null,
      tells: (scope) => scope === 'all',
      covers,
      days: () => null,
    });
    const plans = (all: readonly UnitSeries[]) => (p: number) => all.some((u) => u.planned(p) !== null);
    const planned = side((u, p) => u.planned(p), undefined, plans(units));
    const before = (u: UnitSeries, p: number) => {
      const q = yearsBefore(calendar, p);
      return q === null ? null : u.counted(q);
    };
    // What was counted of some months alone is no sum of all of them.
    const lastYear = side(
      before,
      (u, periods) => periods.every((p) => before(u, p) !== null),
      (p) => units.some((u) => before(u, p) !== null),
    );
    const outlook = side((u, p) =>
      isActual(balances, closedThrough, p) ? (u.counted(p) ?? u.planned(p)) : u.planned(p),
    );
    const named = (which: Comparison | 'comparison' | 'lastYear' | 'outlook'): Side => {
      if (which === 'lastYear') return lastYear;
      if (which === 'outlook') return outlook;
      if (which === 'comparison') return planned;
      const others = unitsOf(ground, which);
      return side(
        (u, p) => others.find((o) => sameName(o.name, u.name))?.planned(p) ?? null,
        undefined,
        plans(others),
      );
    };
    return {
      actual: side(
        (u, p) => u.counted(p),
        (u, periods) => periods.every((p) => u.counted(p) !== null || u.planned(p) === null),
      ),
      reclassified: side(() => null),
      flexible: side(() => null),
      mix: side(() => null),
      outlook,
      lastYear,
      first: named(first),
      second: second === null ? null : named(second),
    };
  },
};
