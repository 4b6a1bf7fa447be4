import { minor } from '@/core/money';
import { fromDayNumber } from '@/core/calendar';
import { moneyOf } from '@/core/cash';
import type { CashView, Ground } from '@/core/ground';
import type { Account } from '@/core/model';
import { moneyFormat } from '@/store/format';
import { onDay } from './cashWords';
import { classesOfPair } from './pair';

const SHOWN = 12;

/** What a line's money does: of its first planned month, when how much of it moves. */
export function LineMoney({
  ground,
  view,
  account,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly account: Account;
}) {
  const money = moneyFormat(ground.book);
  const own = [...view.lines].find(
    ([, l]) => l.line.account.id === account.id && l.line.amounts.some((a) => a),
  );
  const part = own && view.projected.parts.get(`line ${own[0]}`);
  if (!own || !part) return <p className="faded">Nothing of it is planned ahead, so no money follows.</p>;
  const month = own[1].line.amounts.findIndex((a) => a);
  const period = view.input.periods[month]!;
  const moves = moneyOf(view.projected, part).filter((c) => c.month === month);
  const byMonth = new Map<string, number>();
  for (const c of moves) {
    const key = moves.length > SHOWN ? fromDayNumber(c.day).slice(0, 7) : fromDayNumber(c.day);
    byMonth.set(key, (byMonth.get(key) ?? 0) + c.amount);
  }
  return (
    <section>
      <div className="label">
        {period.label}: {money.text(own[1].line.amounts[month]!)} planned
      </div>
      {moves.length === 0 && <p className="faded">No money moves.</p>}
      {[...byMonth].sort().map(([key, amount]) => (
        <div key={key} className={classesOfPair}>
          <span>
            {key.length > 7
              ? onDay(moves.find((c) => fromDayNumber(c.day) === key)!.day)
              : (ground.calendar.period(
                  ground.calendar.indexOfDay(moves.find((c) => fromDayNumber(c.day).startsWith(key))!.day),
                ).label ?? key)}
          </span>
          <span>{money.exact(minor(amount))}</span>
        </div>
      ))}
    </section>
  );
}
