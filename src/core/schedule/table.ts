import type { ScheduleKind, ScheduleRow } from '@/core/model';
import { UnsafeMoneyError } from '@/core/money';
import { asset } from './asset';
import { equity } from './equity';
import { incomeTax } from './incomeTax';
import { loan } from './loan';
import { release } from './release';
import type { RowGround, RowMade, RowNeeds, RowRuleOf } from './rule';
import { staff } from './staff';

/** Every kind of row, or the program does not compile. */
const RULES: { readonly [K in ScheduleKind]: RowRuleOf<K> } = {
  staff,
  loan,
  asset,
  release,
  incomeTax,
  equity,
};

type AnyRule = {
  readonly needs: (row: ScheduleRow) => RowNeeds;
  readonly make: (row: ScheduleRow, ground: RowGround) => RowMade;
};
const ruleOf = (row: ScheduleRow): AnyRule => RULES[row.kind] as AnyRule;

export const SCHEDULE_KINDS = Object.keys(RULES) as readonly ScheduleKind[];

/** What must be reckoned before a row. */
export const rowNeeds = (row: ScheduleRow): RowNeeds => ruleOf(row).needs(row);

/** The postings of a row; none, with its issue, where its way leads through figures that are beyond reckoning. */
export function makeRow(row: ScheduleRow, ground: RowGround): RowMade {
  try {
    const made = ruleOf(row).make(row, ground);
    return made.postings.every((p) => Number.isSafeInteger(p.amount)) ? made : TOO_LARGE;
  } catch (error) {
    if (error instanceof UnsafeMoneyError) return TOO_LARGE;
    throw error;
  }
}

const TOO_LARGE: RowMade = { postings: [], issue: 'tooLarge' };
