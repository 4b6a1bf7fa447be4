import { yearsBefore } from '@/core/calendar';
import type { Minor } from '@/core/money';
import type { Comparison } from '@/core/ground';
import { newAccount, sameName, type Account } from '@/core/model';
import { isActual } from '@/core/plan';
import { unitsOf, type UnitSeries } from './quantities';
import type { PlainRow } from './rows';
import type { RowSet } from './rowSet';
import type { Side } from './sides';

/** Ids of rows of units: by place, since names may be anything. */
const idOf = (i: number): string => `unit-${i}`;
const known = new WeakMap<Account, UnitSeries>();

/** Quantities of drivers: what was counted beside what was planned. Over several months they add up (member-months, hours). */
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
      roll: 'sum',
      terms: [],
      own: null,
    })),
  rollOf: () => 'sum',
  unitOf(row) {
    const unit = row.members[0] && known.get(row.members[0]);
    return unit ? { name: unit.unit, decimals: unit.decimals } : null;
  },
  sides({ ground, compared: { comparison, first, second } }) {
    const units = unitsOf(ground, comparison);
    const { calendar, balances, closedThrough } = ground;
    const unitAt = (a: Account) => units[Number(a.id.slice('unit-'.length))];
    const side = (at: (unit: UnitSeries, p: number) => number | null): Side => ({
      at: (a, scope, p) => {
        const unit = scope === 'all' ? unitAt(a) : undefined;
        return unit ? (at(unit, p) as Minor | null) : null;
      },
      whole: () => null,
      tells: (scope) => scope === 'all',
      covers: () => true,
      days: () => null,
    });
    const planned = side((u, p) => u.planned(p));
    const lastYear = side((u, p) => {
      const q = yearsBefore(calendar, p);
      return q === null ? null : u.counted(q);
    });
    const outlook = side((u, p) =>
      isActual(balances, closedThrough, p) ? (u.counted(p) ?? u.planned(p)) : u.planned(p),
    );
    const named = (which: Comparison | 'comparison' | 'lastYear' | 'outlook'): Side => {
      if (which === 'lastYear') return lastYear;
      if (which === 'outlook') return outlook;
      if (which === 'comparison') return planned;
      const others = unitsOf(ground, which);
      return side((u, p) => others.find((o) => sameName(o.name, u.name))?.planned(p) ?? null);
    };
    return {
      actual: side((u, p) => u.counted(p)),
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
