'use client';

import { Button } from '@mantine/core';
import type { FiscalCalendar } from '@/core/calendar';
import {
  RUNS,
  type Account,
  type Adjustment,
  type AppliedAdjustment,
  type Book,
  type Budget,
  type SegmentId,
} from '@/core/model';
import { reaches, touching, triedOver } from '@/core/scenario';
import { dispatch } from '@/store/bookStore';
import { decimalsOf, sizeIn, sizeText, whenWords } from '@/store/caseWords';
import { dayText } from '@/store/format';
import { say } from '@/store/session';

const isOf = ({ adjustment: { what } }: AppliedAdjustment, account: Account, segment: SegmentId): boolean =>
  'reach' in what && reaches(what.reach, account, segment);

/** What was taken into the plan of a line (how much, when and why, and what takes it out again), and what cases try over it. */
export function AppliedPart({
  book,
  budget,
  account,
  segment,
  calendar,
  readOnly,
}: {
  readonly book: Book;
  readonly budget: Budget;
  readonly account: Account;
  readonly segment: SegmentId;
  readonly calendar: FiscalCalendar;
  readonly readOnly: boolean;
}) {
  const own = budget.applied.filter((a) => isOf(a, account, segment));
  const tried = touching(triedOver(book, budget), budget, [account], segment).get(account.id) ?? NONE;
  const sizes = (a: Adjustment) =>
    book.cases.flatMap((c) => {
      const size = sizeIn(c, a.id);
      return size === null ? [] : [`${c.name} ${sizeText(a.what, size, book, decimalsOf(book, a.what))}`];
    });
  return (
    <>
      {own.length > 0 && (
        <section aria-label="What was taken in">
          <div className="label">Taken in from a case</div>
          {own.map((a) => {
            const { adjustment, size } = a;
            return (
              <p key={adjustment.id} style={{ margin: '4px 0' }}>
                {adjustment.name}, {sizeText(adjustment.what, size, book, decimalsOf(book, adjustment.what))},{' '}
                {whenWords(calendar, adjustment)}.{' '}
                <span className="faded">
                  {[adjustment.by || 'Somebody', dayText(adjustment.at, book.locale)].join(', ')}
                  {adjustment.why && `: “${adjustment.why}”`}
                </span>{' '}
                {!readOnly && RUNS.has(adjustment.what.on) && (
                  <Button
                    size="compact-xs"
                    onClick={() => {
                      if (
                        !dispatch({
                          type: 'takeOutAdjustments',
                          budget: budget.id,
                          adjustments: [adjustment.id],
                        })
                      )
                        say(
                          `“${adjustment.name}” was taken out. Months typed over stay. Ctrl+Z puts it back.`,
                        );
                    }}
                  >
                    Take it out
                  </Button>
                )}
              </p>
            );
          })}
        </section>
      )}
      {tried.some((a) => sizes(a).length > 0) && (
        <section aria-label="What is tried of it">
          <div className="label">Tried in cases</div>
          {tried
            .filter((a) => sizes(a).length > 0)
            .map((a) => (
              <p key={a.id} style={{ margin: '4px 0' }}>
                {[a.name, whenWords(calendar, a)].filter(Boolean).join(', ')}: {sizes(a).join(', ')}.
              </p>
            ))}
        </section>
      )}
    </>
  );
}

const NONE: readonly Adjustment[] = [];
