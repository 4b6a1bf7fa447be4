import type { DayNumber } from '@/core/calendar';
import { minor } from '@/core/money';
import { SOURCE_NAMES } from '@/core/report';
import { bankCauses, type Outcomes } from '@/core/whatif';
import { onDay } from '@/store/cashWords';
import type { MoneyFormat } from '@/store/format';
import type { CaseLook } from './useCases';
import classes from './WhatIf.module.css';

/** So many causes are named; what is left of them is told together. */
const NAMED = 4;

/** What the bank holds on a day in the plan and in each case, and by what money a case is apart from the plan until then. */
export function DayRead({
  day,
  base,
  cases,
  before,
  money,
}: {
  readonly day: DayNumber | null;
  readonly base: Outcomes | null;
  readonly cases: readonly CaseLook[];
  /** Before the credit line, or after it. */
  readonly before: boolean;
  readonly money: MoneyFormat;
}) {
  const held = ({ bank }: Outcomes) => (before ? bank.plain : bank.closing)[day! - bank.start - 1];
  const text = (amount: number | undefined) => (amount === undefined ? '' : money.text(minor(amount)));
  const told = cases.flatMap((c) =>
    c.outcomes ? [{ id: c.case.id, name: c.case.name, of: c.outcomes }] : [],
  );
  return (
    <div className={classes.readout} role="status">
      {day === null || base === null ? (
        <span>Press a day in the picture to read what the bank holds then in each case, and why.</span>
      ) : (
        <>
          <span>{onDay(day)}</span>
          <span>
            as planned <b>{text(held(base))}</b>
          </span>
          {told.map(({ id, name, of }) => (
            <span key={id}>
              {name} <b>{text(held(of))}</b>
            </span>
          ))}
          {told.map(({ id, name, of }) => {
            const causes = bankCauses(base, of, day, before);
            if (causes.length === 0) return null;
            const apart = (held(of) ?? 0) - (held(base) ?? 0);
            const rest = causes.slice(NAMED).reduce((t, c) => t + c.amount, 0);
            return (
              <span key={id} className={classes.causes}>
                {name}, {money.signed(minor(apart))} beside the plan:{' '}
                {[
                  ...causes
                    .slice(0, NAMED)
                    .map((c) => `${SOURCE_NAMES[c.source].toLowerCase()} ${money.signed(minor(c.amount))}`),
                  ...(rest === 0 ? [] : [`all else ${money.signed(minor(rest))}`]),
                ].join(', ')}
              </span>
            );
          })}
        </>
      )}
    </div>
  );
}
