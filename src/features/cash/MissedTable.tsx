'use client';

import { TextInput } from '@mantine/core';
import { fromDayNumber, type Day } from '@/core/calendar';
import type { Ground, MissedEvent } from '@/core/ground';
import { LIMITS, type ItemChange } from '@/core/model';
import { minor } from '@/core/money';
import { CellSelect } from '@/components/CellSelect';
import { DayInput } from '@/components/DayInput';
import { instant } from '@/store/actions';
import { dispatch } from '@/store/bookStore';
import { onDay } from '@/store/cashWords';
import { moneyFormat } from '@/store/format';
import { recordedName } from '@/store/person';
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
  const change = (event: MissedEvent, to: Partial<ItemChange>) => {
    const was = event.change ?? { day: null, state: 'counted' as const, reason: '' };
    const next: ItemChange = { ...was, ...to, by: recordedName(), at: instant() };
    const plain = next.day === null && next.state === 'counted';
    dispatch({ type: 'setItemChanges', changes: [{ key: event.key, change: plain ? null : next }] });
  };
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
                  <td>
                    {m.state === 'counted' && (
                      <DayInput
                        aria-label={`${name}: counts on`}
                        variant="unstyled"
                        w={118}
                        disabled={readOnly}
                        value={fromDayNumber(m.expected)}
                        onCommit={(day: Day | null) => change(m, { day })}
                      />
                    )}
                  </td>
                  <td>
                    <CellSelect
                      aria-label={`${name}: what became of it`}
                      value={m.state}
                      disabled={readOnly}
                      data={STATES}
                      onChange={(e) => change(m, { state: e.currentTarget.value as ItemChange['state'] })}
                    />
                  </td>
                  <td>
                    {m.change && (
                      <TextInput
                        key={m.change.at}
                        aria-label={`${name}: reason`}
                        variant="unstyled"
                        size="xs"
                        placeholder="why"
                        maxLength={LIMITS.reason}
                        disabled={readOnly}
                        defaultValue={m.change.reason}
                        onBlur={(e) => {
                          const reason = e.currentTarget.value.trim();
                          if (reason !== m.change!.reason) change(m, { reason });
                        }}
                      />
                    )}
                  </td>
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
