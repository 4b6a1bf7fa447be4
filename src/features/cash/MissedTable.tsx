'use client';

import type { Ground, MissedEvent } from '@/core/ground';
import type { ItemChange } from '@/core/model';
import { minor } from '@/core/money';
import { onDay } from '@/store/cashWords';
import { moneyFormat } from '@/store/format';
import { DecidedCells } from './DecidedCells';
import classes from './Cash.module.css';

const STATES: readonly { readonly value: ItemChange['state']; readonly label: string }[] = [
  { value: 'counted', label: 'still to come' },
  { value: 'held', label: 'on hold' },
  { value: 'leftOut', label: 'given up' },
  { value: 'found', label: 'found in the ledger' },
];
const WHAT: Record<MissedEvent['of'], string> = {
  purchase: 'purchase',
  sale: 'sale',
  drawing: 'drawing of a loan',
  repayment: 'installment',
  equity: 'owners',
  dated: 'dated item',
};

/** What was planned for closed months and has no entry: on which day it counts, and what became of it. */
export function MissedTable({
  ground,
  missed,
  readOnly,
}: {
  readonly ground: Ground;
  readonly missed: readonly MissedEvent[];
  readonly readOnly: boolean;
}) {
  const money = moneyFormat(ground.book);
  return (
    <>
      <p className="faded" style={{ margin: '6px 0 10px', maxWidth: 900 }}>
        Planned for months that are closed, and not in the ledger on its account. Each counts on the first
        working day until its entry comes, or until you say what became of it. Costs of a given-up purchase
        stay in the plan until it is revised.
      </p>
      <div className={classes.scroll} tabIndex={0} role="region" aria-label="Planned, not in the ledger">
        <table className={classes.table}>
          <thead>
            <tr>
              <th>What</th>
              <th>Kind</th>
              <th>Planned for</th>
              <th className={classes.figure}>Money</th>
              <th className={classes.figure}>Still missing</th>
              <th>Counts on</th>
              <th>What became of it</th>
              <th>Reason</th>
            </tr>
          </thead>
          <tbody>
            {missed.map((m) => {
              const name = `${m.name} of ${onDay(m.day)}`;
              return (
                <tr key={m.key} data-chosen={m.change !== null} data-off={m.state !== 'counted'}>
                  <td>{m.name}</td>
                  <td>{WHAT[m.of]}</td>
                  <td>{onDay(m.day)}</td>
                  <td className={classes.figure}>{money.exact(minor(m.money))}</td>
                  <td className={classes.figure}>{money.exact(minor(Math.round(m.money * m.missing)))}</td>
                  <DecidedCells
                    item={m}
                    plainState="counted"
                    states={STATES}
                    labels={{
                      day: `${name}: counts on`,
                      state: `${name}: what became of it`,
                      reason: `${name}: reason`,
                    }}
                    hasDay={m.state === 'counted'}
                    readOnly={readOnly}
                  />
                </tr>
              );
            })}
          </tbody>
        </table>
        {missed.length === 0 && (
          <p className="faded">Everything that was planned for closed months is in the ledger.</p>
        )}
      </div>
    </>
  );
}
