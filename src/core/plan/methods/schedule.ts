import { minor, sumBlank, type Minor } from '@/core/money';
import type { MethodOf } from '@/core/model';
import type { Facts } from '../facts';
import type { LineResult } from '../results';
import type { Context, Reason, Rule } from '../rule';

/** What a line has beside its schedules in a month; a closing balance has nothing beside it. */
const besideAt = ({ beside }: MethodOf<'schedule'>, { facts, line }: Context, i: number): Minor | null =>
  facts.isBalance(line.account) ? null : (beside[facts.periods[i]!.id] ?? null);

/** What the rows of the budget's schedules come to on the line, and what it has beside them. */
export const schedule: Rule<'schedule'> = {
  by: 'line',
  balances: true,
  compute(method, context) {
    const { amounts, rows, made } = context.scheduled();
    const issue = rows.map((r) => r.issue).find((i) => i !== null) ?? null;
    return {
      amounts: amounts.map((a, i) => sumBlank([a, besideAt(method, context, i)])),
      issue:
        rows.length === 0 && made === null
          ? 'noSchedule'
          : issue === 'driverMissing' || issue === 'tooLarge' || issue === 'cycle'
            ? issue
            : null,
    };
  },
  explain(method, context, i) {
    const beside = besideAt(method, context, i);
    const { rows, made } = context.scheduled();
    const ahead = (made?.parts ?? []).flatMap(({ of, amounts }): Reason[] => {
      const value = amounts[i] ?? 0;
      return value === 0 ? [] : [{ step: 'ahead', of, value: minor(value) }];
    });
    return [
      ...(beside === null ? [] : [{ step: 'beside' as const, value: beside }]),
      ...ahead,
      ...rows.flatMap(({ id, amounts }): Reason[] => {
        const value = amounts()[i] ?? null;
        return value === null || value === 0 ? [] : [{ step: 'row', row: id, value }];
      }),
    ];
  },
};

/** By schedule, with what a line has now beside it: nothing of it is lost when a row is added. */
export function besideSchedule(result: LineResult | undefined, facts: Facts): MethodOf<'schedule'> {
  const beside: Record<string, Minor | null> = {};
  facts.periods.forEach((p, i) => {
    const amount = result?.amounts[i] ?? null;
    if (amount !== null && amount !== 0) beside[p.id] = amount;
  });
  return { kind: 'schedule', beside: beside as MethodOf<'schedule'>['beside'] };
}
