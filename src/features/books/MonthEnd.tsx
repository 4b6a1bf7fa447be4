'use client';

import { LIMITS } from '@/core/model';
import { useState } from 'react';
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { indexOfId, periodsOf, type PeriodId } from '@/core/calendar';
import { dispatch } from '@/store/bookStore';
import { plansIn, type Ground } from '@/core/ground';
import { useChecks } from '@/store/ground';
import { say } from '@/store/session';
import classes from './Books.module.css';

/** Month-end: closing goes forward while the ledger ties; reopening asks for the reason, which the journal keeps. */
export function MonthEnd({ ground, readOnly }: { readonly ground: Ground; readonly readOnly: boolean }) {
  const { book, calendar, balances, closedThrough } = ground;
  // What is told of the months ahead, or is no fault, keeps no month open.
  const failing = useChecks().filter(
    (c) =>
      !c.holds && !c.notice && c.plan === undefined && c.code !== 'monthsToYears' && c.code !== 'subtotals',
  );
  const [wanted, setWanted] = useState<string | null>(null);
  const [reason, setReason] = useState('');
  const periods = balances.range ? periodsOf(calendar, balances.range) : [];
  const chosen = wanted ?? book.closedThrough ?? '';
  const at = chosen === '' ? null : indexOfId(calendar, chosen);
  const same = chosen === (book.closedThrough ?? '');
  const back = closedThrough !== null && (at === null || at < closedThrough);
  const next = closedThrough === null ? null : closedThrough + 1;
  /** What closing or opening months does to the plan that they are compared with: nothing, and which that is. */
  const keptWords = (period: PeriodId | null): string => {
    const to = period === null ? null : indexOfId(calendar, period);
    const opens = closedThrough !== null && (to === null || to < closedThrough);
    const last = opens ? closedThrough : to;
    const names = last === null ? [] : plansIn(ground, last, 'profit').map((b) => b.name);
    if (last === null || names.length === 0) return '';
    return opens
      ? ` The months after it are open again, and go by ${names.join(', ')} as before.`
      : ` ${calendar.period(last).label} keeps ${names.join(', ')}, the plan that was in force.`;
  };
  const close = async (period: PeriodId | null, why: string) => {
    // Loaded when a month is closed: the reckoning of money is not for the first screen.
    const { keptByClosing } = await import('@/core/ground/closing');
    dispatch({ type: 'setClosedThrough', period, ...keptByClosing(ground, period) }, undefined, why);
    const label = period === null ? 'nothing' : calendar.period(indexOfId(calendar, period)!).label;
    say(`Closed through ${label}.${keptWords(period)}`);
    setWanted(null);
    setReason('');
  };
  return (
    <div className={classes.fields} role="group" aria-label="Month-end">
      <NativeSelect
        label="Closed through"
        description="Actuals up to here are final; the outlook takes the plan after it."
        w={260}
        disabled={readOnly}
        value={chosen}
        onChange={(e) => setWanted(e.currentTarget.value)}
        data={[
          { value: '', label: 'Nothing yet' },
          ...periods.map((p) => ({ value: p.id as string, label: p.label })),
        ]}
      />
      {same && next !== null && balances.has(next) && (
        <Button
          disabled={readOnly || failing.length > 0}
          onClick={() => void close(calendar.period(next).id, '')}
          title={failing.length > 0 ? 'The ledger does not tie yet: see the checks' : undefined}
        >
          Close {calendar.period(next).label}
        </Button>
      )}
      {!same && back && (
        <TextInput
          label="Why is it reopened?"
          placeholder="The reason goes to the journal"
          w={300}
          maxLength={LIMITS.reason}
          value={reason}
          onChange={(e) => setReason(e.currentTarget.value)}
        />
      )}
      {!same && (
        <Button
          variant="filled"
          disabled={readOnly || (back && reason.trim() === '') || (!back && failing.length > 0)}
          onClick={() => void close((chosen || null) as PeriodId | null, reason)}
        >
          {back ? 'Reopen' : 'Close'}
        </Button>
      )}
      {failing.length > 0 && (
        <span className={classes.bad}>
          A month is closed when the ledger ties; {failing.length} of its checks fail.
        </span>
      )}
    </div>
  );
}
