import { fine, type Rule } from '../rule';

/** Each month as it was typed. */
export const byMonth: Rule<'byMonth'> = {
  by: 'line',
  balances: true,
  compute: (method, { facts }) => fine(facts.periods.map((p) => method.amounts[p.id] ?? null)),
  explain: (_method, _context, _i, made) => [{ step: 'typed', value: made, instead: null }],
};
