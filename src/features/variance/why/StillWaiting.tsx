import { useEffect, useState } from 'react';
import { Button } from '@mantine/core';
import { yearToDate, type PeriodIndex } from '@/core/calendar';
import { waitingPromises, type Ground } from '@/core/ground';
import type { AccountId, Layout } from '@/core/model';
import { minor } from '@/core/money';
import { explainVariance } from '@/store/actions';
import type { MoneyFormat } from '@/store/format';
import { whenIdle } from '@/store/whenIdle';
import { lookAt } from '../varianceData';
import classes from '../Variance.module.css';
import { KEPT_WORDS } from './Promised';

type Silent = { readonly period: PeriodIndex; readonly account: AccountId; readonly name: string };
const REST_MS = 60;
/** So many are listed at a time, the latest months first. */
const LISTED = 8;

/** What of earlier months of the year waits for a word still: promises that were not kept, and flagged lines. */
export function StillWaiting({
  ground,
  layout,
  chosen,
  month,
  money,
  readOnly,
  onGo,
}: {
  readonly ground: Ground;
  readonly layout: Layout;
  readonly chosen: string | null;
  readonly month: PeriodIndex;
  readonly money: MoneyFormat;
  readonly readOnly: boolean;
  readonly onGo: (period: PeriodIndex, account: AccountId) => void;
}) {
  const { book, calendar, balances } = ground;
  const [listed, setListed] = useState(LISTED);
  const [silent, setSilent] = useState<readonly Silent[]>([]);
  useEffect(() => {
    const found: Silent[] = [];
    const { first } = yearToDate(calendar, month);
    const months = Array.from({ length: month - first }, (_, i) => first + i).filter((p) => balances.has(p));
    const pieces = months.map((period) => () => {
      const notes = book.varianceNotes[calendar.period(period).id];
      for (const r of lookAt(ground, layout, period, chosen).facts().table.rows)
        if (r.flagged && r.account && !notes?.[r.account])
          found.push({ period, account: r.account, name: r.label });
    });
    return whenIdle([...pieces, () => setSilent(found)], REST_MS);
  }, [ground, layout, chosen, month, book, calendar, balances]);
  const promises = waitingPromises(ground, month);
  const open = silent
    .filter((s) => !book.varianceNotes[calendar.period(s.period).id]?.[s.account])
    .sort((a, b) => b.period - a.period);
  if (promises.length === 0 && open.length === 0) return null;
  const name = (id: AccountId) => book.accounts.find((a) => a.id === id)?.name ?? id;
  return (
    <section aria-label="Waiting from earlier months">
      <div className="label">Waiting from earlier months</div>
      <ul className={classes.waiting}>
        {promises.map((p) => (
          <li key={`${p.account} ${p.explained} ${p.part} ${p.place}`}>
            <button type="button" className={classes.nameButton} onClick={() => onGo(p.due, p.account)}>
              {name(p.account)}
            </button>
            <span>
              {money.signed(minor(p.amount - p.came))} was to come in {calendar.period(p.due).short},{' '}
              {KEPT_WORDS[p.kept]}
            </span>
          </li>
        ))}
        {open.slice(0, listed).map((s) => (
          <li key={`${s.account} ${s.period}`}>
            <button type="button" className={classes.nameButton} onClick={() => onGo(s.period, s.account)}>
              {s.name}
            </button>
            <span>
              flagged in {calendar.period(s.period).label}
              <Button
                style={{ flexShrink: 0 }}
                disabled={readOnly}
                aria-label={`${s.name} of ${calendar.period(s.period).label} needs no word`}
                onClick={() =>
                  explainVariance(calendar.period(s.period).id, s.account, {
                    text: 'Needs no word',
                    parts: [],
                    against: null,
                  })
                }
              >
                needs no word
              </Button>
            </span>
          </li>
        ))}
      </ul>
      {open.length > listed && (
        <Button mt={6} onClick={() => setListed(listed + 4 * LISTED)}>
          {open.length - listed} more
        </Button>
      )}
    </section>
  );
}
