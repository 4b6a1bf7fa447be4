'use client';

import { useState } from 'react';
import { Button, NativeSelect } from '@mantine/core';
import { Dialog } from '@/components/Dialog';
import type { Minor } from '@/core/money';
import { fiscalYearLabel, type Period } from '@/core/calendar';
import type { Rect } from '@/core/sheet';
import { reckoned, type Ground } from '@/core/ground';
import type { Edit, EditContext } from '../edit/edits';
import { copyFrom } from '../edit/tools';
import { toggleIn } from './setup';
import classes from '../Budget.module.css';

/** Months to copy from, freely picked and added up: of the ledger, of this budget or of another. */
export function CopyDialog({
  ground,
  context,
  rect,
  onEdit,
  onClose,
}: {
  readonly ground: Ground;
  readonly context: EditContext;
  readonly rect: Rect;
  readonly onEdit: (edit: Edit) => void;
  readonly onClose: () => void;
}) {
  const { book, balances, calendar } = ground;
  const { budget, facts } = context.reckoned;
  const [from, setFrom] = useState('ledger');
  const [picked, setPicked] = useState<readonly number[]>([]);
  const other = book.budgets.find((b) => b.id === from);
  const theirs = other ? reckoned(ground, other) : null;
  const periods: Period[] = theirs
    ? [...theirs.facts.periods]
    : balances.range
      ? Array.from({ length: balances.range.last - balances.range.first + 1 }, (_, i) =>
          calendar.period(balances.range!.first + i),
        )
      : [];
  const years = [...new Set(periods.map((p) => p.year))];
  const take = () => {
    const chosen = periods.filter((p) => picked.includes(p.index));
    const name =
      chosen.length === 1
        ? chosen[0]!.label
        : `${chosen.length} months of ${theirs ? other!.name : 'the ledger'}`;
    const source = (account: string, segment: string | null): (Minor | null)[] => {
      if (!theirs) return chosen.map((p) => facts.actual(account, segment, p.index));
      const alike = other!.axis === budget.axis;
      const amounts = theirs.amounts(account, alike ? segment : 'all');
      const first = theirs.facts.periods[0]!.index;
      return chosen.map((p) => amounts?.[p.index - first] ?? null);
    };
    onEdit(copyFrom(context, rect, source, name));
  };
  return (
    <Dialog opened onClose={onClose} size="lg" title={<span className="title">Copy into the selection</span>}>
      <NativeSelect
        label="From"
        value={from}
        data={[
          { value: 'ledger', label: 'the ledger’s actuals' },
          ...book.budgets.map((b) => ({
            value: b.id,
            label: b.id === budget.id ? 'this budget' : b.name,
          })),
        ]}
        onChange={(e) => {
          setFrom(e.currentTarget.value);
          setPicked([]);
        }}
      />
      <p className={classes.hint} style={{ marginTop: 8 }}>
        Pick one month, or several: each selected month of a line takes what the line has in them, added up.
      </p>
      {years.map((year) => (
        <div key={year} className={classes.monthPicks} role="group" aria-label={fiscalYearLabel(year)}>
          <span className="label">{fiscalYearLabel(year)}</span>
          {periods
            .filter((p) => p.year === year)
            .map((p) => (
              <button
                key={p.index}
                type="button"
                aria-label={p.label}
                aria-pressed={picked.includes(p.index)}
                onClick={() => setPicked(toggleIn(picked, p.index))}
              >
                {p.short}
              </button>
            ))}
        </div>
      ))}
      <div className={classes.apply}>
        <Button variant="filled" disabled={picked.length === 0} onClick={take}>
          Copy
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Dialog>
  );
}
