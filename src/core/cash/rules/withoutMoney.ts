import { WHAT } from '@/core/schedule';
import { swap, type TermsRuleOf } from '../rule';

/** No money ever moves: depreciation, allowances, accruals. */
export const withoutMoney: TermsRuleOf<'withoutMoney'> = {
  post(_rule, c) {
    for (let m = c.from; m < c.until; m++)
      swap(c, c.ends[m]!, c.roles.against, c.roles.line, c.money[m]!, m, WHAT.accrual);
  },
};
