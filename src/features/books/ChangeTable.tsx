'use client';

import { subtract, type Minor } from '@/core/money';
import type { Ground } from '@/core/ground';
import { countText, moneyFormat } from '@/store/format';
import type { NamedChange } from './intakeCompare';
import { count } from './words';
import classes from './Books.module.css';

const SHOWN = 200;

/** What would change, by account and month, before it does. Debits positive. */
export function ChangeTable({
  ground,
  changes,
}: {
  readonly ground: Ground;
  readonly changes: readonly NamedChange[];
}) {
  const money = moneyFormat(ground.book);
  if (changes.length === 0) return <p className={classes.good}>✓ No account changes in any month.</p>;
  const rows = changes.flatMap((c) =>
    c.cells.map((cell) => ({ ...cell, name: c.name, code: c.code, key: c.account })),
  );
  return (
    <div className={classes.changes} tabIndex={0} role="region" aria-label="What changes">
      <table className={classes.table}>
        <caption className={classes.caption}>
          {count(changes.length, 'account')} {changes.length === 1 ? 'changes' : 'change'} in{' '}
          {count(new Set(rows.map((r) => r.period)).size, 'month')}. Debits positive.
        </caption>
        <thead>
          <tr>
            <th>Account</th>
            <th>Month</th>
            <th className={classes.num}>Now</th>
            <th className={classes.num}>Then</th>
            <th className={classes.num}>Change</th>
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, SHOWN).map((r) => (
            <tr key={`${r.key}-${r.period}`}>
              <td>
                <span className="figure faded">{r.code}</span> {r.name}
              </td>
              <td>{ground.calendar.period(r.period).label}</td>
              <td className={classes.num}>{r.before === null ? '' : money.exact(r.before)}</td>
              <td className={classes.num}>{r.after === null ? '' : money.exact(r.after)}</td>
              <td className={classes.num}>
                {money.exact(subtract(r.after ?? (0 as Minor), r.before ?? (0 as Minor)))}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length > SHOWN && <p className="faded">and {countText(rows.length - SHOWN)} more.</p>}
    </div>
  );
}
