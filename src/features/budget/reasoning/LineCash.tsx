import { minor } from '@/core/money';
import { fromDayNumber, type PeriodIndex } from '@/core/calendar';
import { cashOf, lineMoney, type Ground } from '@/core/ground';
import type { Budget, LineRef } from '@/core/model';
import stage from '@/components/Stage.module.css';
import { dayText, moneyFormat } from '@/store/format';

/** When the money of the selected month moves, and the low point of the bank as the budget stands now. */
export function LineCash({
  ground,
  budget,
  line,
  period,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly line: LineRef;
  readonly period: PeriodIndex | null;
}) {
  const view = cashOf(ground, budget);
  const money = moneyFormat(ground.book);
  if (!view) return null;
  const own = lineMoney(view, line.account, line.segment, period);
  const { low } = view.forecast;
  const on = (day: number) => dayText(fromDayNumber(day));
  return (
    <>
      {own ? (
        <>
          <p className="faded" style={{ margin: '4px 0' }}>
            Of {money.text(own.planned)} in {own.period.label}
            {own.moves.length === 0 ? ', no money moves' : ':'}
          </p>
          {own.moves.map(({ from, to, amount }) => (
            <div key={from} className={stage.pair}>
              <span>{from === to ? on(from) : `${on(from)} to ${on(to)}`}</span>
              <span>{money.text(minor(amount))}</span>
            </div>
          ))}
        </>
      ) : (
        <p className="faded" style={{ margin: '4px 0' }}>
          The month is closed, or nothing is planned in it: no money ahead.
        </p>
      )}
      {low && (
        <div className={stage.pair}>
          <span>Low point of the bank, {on(low.day)}</span>
          <span>
            <b>{money.text(minor(low.amount))}</b>
          </span>
        </div>
      )}
    </>
  );
}
