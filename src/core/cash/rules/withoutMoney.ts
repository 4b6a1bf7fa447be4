import { WHAT } from '@/core/schedule';
import { swap, type TermsRuleOf } from '../rule';

/** No money ever moves: depreciation, allowances, accruals. */
export const withoutMoney: TermsRuleOf<'withoutMoney'> = {
  post(_rule, c) {
    c.money.forEach((money, m) => swap(c, c.ends[m]!, c.roles.against, c.roles.line, money, m, WHAT.accrual));
  },
};
