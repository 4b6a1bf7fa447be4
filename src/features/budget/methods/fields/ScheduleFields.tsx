'use client';

import { Button } from '@mantine/core';
import { sum, type Minor } from '@/core/money';
import { linesOfRow, type MethodOf } from '@/core/model';
import { touchedBy } from '@/core/plan';
import stage from '@/components/Stage.module.css';
import { moneyFormat } from '@/store/format';
import { SCHEDULE_NAMES } from '@/store/scheduleWords';
import { setSession } from '@/store/session';
import type { FieldsProps } from '../inputs/parts';

/** The rows that make the line, each a way to its schedule, and what the line has beside them. */
export function ScheduleFields({
  method,
  book,
  reckoned,
  account,
  readOnly,
  onMethod,
}: FieldsProps<MethodOf<'schedule'>>) {
  const { budget, facts } = reckoned;
  const money = moneyFormat(book);
  const rows = budget.schedules.filter((r) => touchedBy(r, facts).has(account));
  // A line of profit and loss names the rows that make it; a balance every row that moves it.
  const makers = facts.isBalance(account)
    ? rows
    : rows.filter((r) => linesOfRow(r).includes(account) || r.kind === 'asset');
  const beside = sum(facts.periods.map((p) => method.beside[p.id] ?? (0 as Minor)));
  return (
    <>
      {makers.map((r) => (
        <div key={r.id} className={stage.pair}>
          <span>{SCHEDULE_NAMES[r.kind]}</span>
          <Button
            onClick={() => setSession({ budgetView: 'schedules', scheduleKind: r.kind, scheduleRow: r.id })}
          >
            {r.name}
          </Button>
        </div>
      ))}
      {beside !== 0 && (
        <>
          <div className={stage.pair}>
            <span>Beside the schedules</span>
            <span>{money.exact(beside)}</span>
          </div>
          {!readOnly && (
            <Button mt={6} onClick={() => onMethod({ ...method, beside: {} })}>
              The schedules alone
            </Button>
          )}
        </>
      )}
      {makers.length === 0 && (
        <Button mt={6} onClick={() => setSession({ budgetView: 'schedules' })}>
          Open the schedules
        </Button>
      )}
    </>
  );
}
