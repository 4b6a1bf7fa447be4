'use client';

import { useMemo, useState } from 'react';
import { Button } from '@mantine/core';
import type { Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import { toldOf, type Comparison, type Ground } from '@/core/ground';
import { cutText, LIMITS, natural, profitSign, type Account, type VarianceNote } from '@/core/model';
import { Sense } from '@/components/report/Sense';
import { explainVariance } from '@/store/actions';
import { dayText, moneyFormat } from '@/store/format';
import { oddWords, partWords, placeWords, toldComment } from '@/store/toldWords';
import classes from '../Variance.module.css';

/** Why a line differs, part by part: they come to the difference. Each leads to its rows; all can be kept as a comment. */
export function ToldList({
  ground,
  account,
  month,
  difference,
  comparison,
  beside,
  against,
  note,
  readOnly,
}: {
  readonly ground: Ground;
  readonly account: Account;
  readonly month: PeriodIndex;
  readonly difference: Minor;
  /** Of which part of the company it is, and what was planned of it; `beside`: what the difference is to. */
  readonly comparison: Comparison | null;
  readonly beside: 'plan' | 'lastYear';
  /** The budget that a comment is of. */
  readonly against: string | null;
  readonly note: VarianceNote | null;
  readonly readOnly: boolean;
}) {
  const [open, setOpen] = useState<number | null>(null);
  const told = useMemo(
    () => toldOf(ground, account, month, difference, comparison, beside),
    [ground, account, month, difference, comparison, beside],
  );
  const money = moneyFormat(ground.book);
  const period = ground.calendar.period(month);
  const basis = told.basis === null ? null : ground.calendar.period(told.basis);
  const effect = profitSign(account.kind);
  const senseOf = (amount: Minor) =>
    effect !== 0 && amount !== 0 && <Sense sense={Math.sign(amount) === effect ? 'F' : 'U'} />;
  const place = placeWords(told, money, basis);
  return (
    <section aria-label="What the entries tell">
      <div className="label">What the entries tell</div>
      <ul className={classes.told}>
        {told.parts.map((part, i) => (
          <li key={i}>
            <div className={classes.toldPart}>
              {part.entries.length > 0 ? (
                <button
                  type="button"
                  className={classes.toldButton}
                  aria-expanded={open === i}
                  onClick={() => setOpen(open === i ? null : i)}
                >
                  {partWords(part, money, basis)}
                </button>
              ) : (
                <span>{partWords(part, money, basis)}</span>
              )}
              <span className={classes.toldAmount} title={money.exact(part.amount)}>
                {money.signed(part.amount)} {senseOf(part.amount)}
              </span>
            </div>
            {open === i && (
              <ul className={classes.toldRows}>
                {part.entries.slice(0, 12).map((e) => (
                  <li key={`${e.block} ${e.place}`}>
                    <span>
                      {dayText(e.day)} {e.counterparty || e.memo || e.reference}
                      <i> row {e.row}</i>
                    </span>
                    <span>{money.exact(natural(account.kind, e.amount))}</span>
                  </li>
                ))}
                {part.entries.length > 12 && <li className="faded">and {part.entries.length - 12} more</li>}
              </ul>
            )}
          </li>
        ))}
        <li className={classes.toldSum}>
          <div className={classes.toldPart}>
            <span>In all</span>
            <span className={classes.toldAmount} title={money.exact(difference)}>
              {money.signed(difference)} {senseOf(difference)}
            </span>
          </div>
        </li>
      </ul>
      {place && <p className={classes.toldPlace}>{place}</p>}
      {told.odd && <p className={classes.toldPlace}>{oddWords(told)}</p>}
      <Button
        disabled={readOnly}
        onClick={() =>
          explainVariance(period.id, account.id, {
            text: cutText(
              [note?.text ?? '', toldComment(told, money, basis)].filter(Boolean).join(' '),
              LIMITS.note,
            ),
            parts: note?.parts ?? [],
            against: note?.against ?? against,
            ...(note?.facts ? { facts: note.facts } : {}),
          })
        }
      >
        Write it as the comment
      </Button>
    </section>
  );
}
