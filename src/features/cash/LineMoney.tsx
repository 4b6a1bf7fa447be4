import { minor } from '@/core/money';
import { lineMoney, type CashView, type Ground } from '@/core/ground';
import type { Account } from '@/core/model';
import { moneyFormat } from '@/store/format';
import { onDay } from '@/store/cashWords';
import stage from '@/components/Stage.module.css';

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
  const own = lineMoney(view, account.id, undefined, null);
  if (!own) return <p className="faded">Nothing of it is planned ahead, so no money follows.</p>;
  return (
    <section>
      <div className="label">
        {own.period.label}: {money.text(own.planned)} planned
      </div>
      {own.moves.length === 0 && <p className="faded">No money moves.</p>}
      {own.moves.map(({ from, to, amount }) => (
        <div key={from} className={stage.pair}>
          <span>{from === to ? onDay(from) : `${onDay(from)} to ${onDay(to)}`}</span>
          <span>{money.exact(minor(amount))}</span>
        </div>
      ))}
    </section>
  );
}
