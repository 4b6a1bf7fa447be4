import { useMemo, useState } from 'react';
import { Button } from '@mantine/core';
import { minor, type Minor } from '@/core/money';
import { causesIn, cureOf, holdsOf, type Cause, type DayRange } from '@/core/cash';
import type { CashView, Ground } from '@/core/ground';
import type { CashSource } from '@/core/model';
import { SECTION_OF, SOURCE_NAMES } from '@/core/report';
import { moneyFormat } from '@/store/format';
import { useSession } from '@/store/session';
import type { Grain } from './aheadRows';
import { causeWords, onDay } from '@/store/cashWords';
import classes from './Cash.module.css';

const SHOWN = 6;

/** Causes of one thing in one month are one line: an invoice a day is no news. */
type Joined = {
  readonly cause: Cause;
  readonly amount: number;
  readonly first: number;
  readonly last: number;
  readonly times: number;
};

const keyOf = (c: Cause): string => `${c.part.key} ${c.month} ${c.rule}`;

function joined(causes: readonly Cause[]): Joined[] {
  const out = new Map<string, Joined>();
  for (const cause of causes) {
    const key = keyOf(cause);
    const was = out.get(key);
    out.set(key, {
      cause: was?.cause ?? cause,
      amount: (was?.amount ?? 0) + cause.amount,
      first: Math.min(was?.first ?? cause.day, cause.day),
      last: Math.max(was?.last ?? cause.day, cause.day),
      times: (was?.times ?? 0) + 1,
    });
  }
  return [...out.values()].sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount));
}

/** Which sources a row of the grid is made of. */
function sourcesOf(row: string): (source: CashSource) => boolean {
  if (row in SECTION_OF) return (s) => s === row;
  const section = row.replace('total-', '');
  return section === 'in' || section === 'out' || section === 'finance'
    ? (s) => SECTION_OF[s] === section
    : () => true;
}

/** What drives a figure of the grid, down to the budget's lines and the open items; and what holds the low point down. */
export function CausePanel({
  ground,
  view,
  range,
  head,
  grain,
  row,
  amount,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly range: DayRange;
  readonly head: string;
  readonly grain: Grain;
  readonly row: string;
  readonly amount: Minor;
}) {
  const money = moneyFormat(ground.book);
  const forecastId = useSession((s) => s.cashForecast);
  const { cash } = ground.book;
  const [all, setAll] = useState(false);
  const counted = (source: CashSource) => view.forecast.bySource.has(source);
  const causes = useMemo(
    () => joined(causesIn(view.projected, range, (s) => counted(s) && sourcesOf(row)(s))),
    // eslint-disable-next-line react-hooks/exhaustive-deps -- the forecast says what is counted
    [view.projected, view.forecast, range.from, range.to, row],
  );
  const moves = view.forecast.moves.filter((m) => m.day >= range.from && m.day <= range.to);
  const showsLine = row === 'creditLine' || !(row in SECTION_OF);
  const drawn = -(view.input.opening.get(view.creditLine?.account ?? '') ?? 0);
  const holds = useMemo(
    () =>
      holdsOf(
        view.projected,
        view.forecast,
        {
          without: cash.forecasts.find((f) => f.id === forecastId)?.without ?? [],
          floor: cash.floor,
          creditLine: view.creditLine,
          drawn: Math.max(0, drawn),
          today: view.forecast.today,
        },
        5,
      ),
    [view.projected, view.forecast, view.creditLine, cash, forecastId, drawn],
  );
  const name =
    row in SOURCE_NAMES
      ? SOURCE_NAMES[row as CashSource]
      : ({ opening: 'Opening balance', closing: 'Closing balance', low: 'Lowest day' }[row] ??
        'All that moves it');
  const { low } = view.forecast;
  const cure = useMemo(() => cureOf(view.forecast, cash.floor), [view.forecast, cash.floor]);
  return (
    <>
      <h2>{grain === 'weeks' ? `Week of ${head}` : head}</h2>
      <div className="faded" style={{ fontSize: 12.5 }}>
        {name}: {money.exact(amount)}
      </div>
      <section>
        <div className="label">What moves it</div>
        {causes.length === 0 && moves.length === 0 && <p className="faded">Nothing.</p>}
        {causes.slice(0, all ? causes.length : SHOWN).map((j) => {
          // Of many in one, what each settles is no longer told.
          const words = causeWords(ground, view, j.times > 1 ? { ...j.cause, since: j.cause.day } : j.cause);
          return (
            <div key={keyOf(j.cause)} className={classes.cause}>
              <b>{words.name}</b>
              <span>{money.exact(minor(j.amount))}</span>
              <small>
                {j.first === j.last
                  ? onDay(j.first)
                  : `${onDay(j.first)} to ${onDay(j.last)}, ${j.times} times`}{' '}
                · {words.why}
              </small>
            </div>
          );
        })}
        {causes.length > SHOWN && !all && (
          <Button mt={8} onClick={() => setAll(true)}>
            {causes.length - SHOWN} more
          </Button>
        )}
        {showsLine &&
          moves.map((m) => (
            <div key={`${m.day} ${m.what}`} className={classes.cause}>
              <b>Credit line, {m.what}</b>
              <span>{money.exact(minor(m.amount))}</span>
              <small>
                {onDay(m.day)} · {money.text(minor(m.stands))} drawn after it
              </small>
            </div>
          ))}
      </section>
      {low && (
        <section>
          <div className="label">What holds the low point down</div>
          <p className="faded" style={{ margin: '2px 0', fontSize: 12.5 }}>
            {onDay(low.day)}, {money.text(minor(low.amount))}
          </p>
          {cure && (
            <p style={{ margin: '2px 0 6px', fontSize: 12.5 }}>
              {money.text(minor(cure.amount))} more from {onDay(cure.from)} until {onDay(cure.until)} would
              keep {cash.floor === null ? 'it above nothing' : `the floor of ${money.text(cash.floor)}`}.
            </p>
          )}
          {holds.length === 0 && <p className="faded">Nothing near it would lift it by another day alone.</p>}
          {holds.map(({ cause, to, low: then, lift }) => (
            <div key={`${keyOf(cause)} ${cause.day} ${cause.since}`} className={classes.cause}>
              <b>{causeWords(ground, view, cause).name}</b>
              <span>{money.text(minor(cause.amount))}</span>
              <small>
                {onDay(cause.day)}; {cause.amount < 0 ? 'if it waited until' : 'if it came on'} {onDay(to)},
                the low point would be {onDay(then.day)} with {money.text(minor(then.amount))},{' '}
                {money.text(minor(lift))} more
                {cash.floor !== null && low.amount < cash.floor && then.amount >= cash.floor
                  ? ': the floor would be kept'
                  : ''}
              </small>
            </div>
          ))}
        </section>
      )}
    </>
  );
}
