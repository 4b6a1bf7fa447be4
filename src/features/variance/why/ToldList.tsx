'use client';

import { useMemo, useState } from 'react';
import { Button } from '@mantine/core';
import type { Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import { toldOf, type Ground, type Told } from '@/core/ground';
import { cutText, LIMITS, natural, type Account, type Budget, type VarianceNote } from '@/core/model';
import { explainVariance } from '@/store/actions';
import { dayText, moneyFormat, type MoneyFormat } from '@/store/format';
import classes from '../Variance.module.css';

/** A fact in one sentence. */
function sentence(told: Told, money: MoneyFormat, month: string): string {
  const size = (a: Minor) => money.text(Math.abs(a) as Minor);
  switch (told.of) {
    case 'few': {
      const names = [...new Set(told.entries.map((e) => e.counterparty || e.memo || e.reference))].filter(
        Boolean,
      );
      const share = Math.round((100 * Math.abs(told.amount)) / Math.abs(told.all));
      return `${told.entries.length === 1 ? 'One entry makes' : `${told.entries.length} entries make`} ${share}% of ${month}: ${size(told.amount)}${names.length > 0 ? `, ${names.join(', ')}` : ''}.`;
    }
    case 'party':
      return `${told.name} came to ${money.text(told.now)}, a year before to ${money.text(told.then)}.`;
    case 'missing':
      return `${told.name} came to ${money.text(told.then)} a year before, and to nothing now.`;
    case 'new':
      return `${told.name} came to ${money.text(told.now)}, and to nothing a year before.`;
    case 'late': {
      const [first, last] = [told.entries[0]!, told.entries.at(-1)!];
      return `${size(told.amount)} is dated just after the month’s end (${dayText(first.day)}${last.day === first.day ? '' : ` – ${dayText(last.day)}`}).`;
    }
    case 'twice':
      return `${told.name} stands twice with the same reference and ${size(told.amount)}.`;
    case 'odd':
      switch (told.kind) {
        case 'gap':
          return 'The account is silent, which it is not as a rule.';
        case 'lump':
          return `Half of a year or more falls on ${month}.`;
        case 'sign':
          return 'The month goes the other way than all others.';
        case 'outside':
          return 'The month lies outside of what is set as usual for the account.';
        case 'double':
        case 'low':
          return `A usual month is ${money.text(told.usual)}; this one is ${money.text(told.actual)}.`;
      }
      break;
    case 'activity':
      return `By quantity ${money.signed(told.activity)}, by rate ${money.signed(told.rate)}.`;
  }
}

/** What the entries tell of a line, sentence by sentence; each leads to its rows, and all of them can be kept as a comment. */
export function ToldList({
  ground,
  account,
  month,
  difference,
  budget,
  note,
  readOnly,
}: {
  readonly ground: Ground;
  readonly account: Account;
  readonly month: PeriodIndex;
  readonly difference: Minor;
  readonly budget: Budget | null;
  readonly note: VarianceNote | null;
  readonly readOnly: boolean;
}) {
  const [open, setOpen] = useState<number | null>(null);
  const told = useMemo(
    () => toldOf(ground, account, month, difference, budget),
    [ground, account, month, difference, budget],
  );
  if (told.length === 0) return null;
  const money = moneyFormat(ground.book);
  const period = ground.calendar.period(month);
  const sentences = told.map((t) => sentence(t, money, period.label));
  return (
    <section aria-label="What the entries tell">
      <div className="label">What the entries tell</div>
      <ul className={classes.told}>
        {told.map((t, i) => (
          <li key={i}>
            {'entries' in t ? (
              <button
                type="button"
                className={classes.toldButton}
                aria-expanded={open === i}
                onClick={() => setOpen(open === i ? null : i)}
              >
                {sentences[i]}
              </button>
            ) : (
              sentences[i]
            )}
            {open === i && 'entries' in t && (
              <ul className={classes.toldRows}>
                {t.entries.slice(0, 12).map((e) => (
                  <li key={`${e.block} ${e.place}`}>
                    <span>
                      {dayText(e.day)} {e.memo || e.counterparty || e.reference}
                      <i> row {e.row}</i>
                    </span>
                    <span>{money.exact(natural(account.kind, e.amount))}</span>
                  </li>
                ))}
              </ul>
            )}
          </li>
        ))}
      </ul>
      <Button
        disabled={readOnly}
        onClick={() =>
          explainVariance(period.id, account.id, {
            text: cutText([note?.text ?? '', ...sentences].filter(Boolean).join(' '), LIMITS.note),
            parts: note?.parts ?? [],
            against: note?.against ?? budget?.id ?? null,
            ...(note?.facts ? { facts: note.facts } : {}),
          })
        }
      >
        Write it as the comment
      </Button>
    </section>
  );
}
