import type { TermsKind, TermsRule } from '@/core/model';
import type { PartContext, TermsRuleOf } from '../rule';
import { atOnce } from './atOnce';
import { daysOutstanding } from './daysOutstanding';
import { fromStock } from './fromStock';
import { inAdvance } from './inAdvance';
import { onAccount } from './onAccount';
import { payroll } from './payroll';
import { withoutMoney } from './withoutMoney';

/** Every kind of terms, or the program does not compile. */
const RULES: { readonly [K in TermsKind]: TermsRuleOf<K> } = {
  atOnce,
  onAccount,
  daysOutstanding,
  fromStock,
  inAdvance,
  withoutMoney,
  payroll,
};

/** Posts a part of a line's months by its rule. */
export const postPart = (rule: TermsRule, context: PartContext): void =>
  (RULES[rule.kind] as { post: (rule: TermsRule, context: PartContext) => void }).post(rule, context);
