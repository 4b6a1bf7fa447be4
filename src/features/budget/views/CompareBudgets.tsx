'use client';

import { useState } from 'react';
import { NativeSelect, Switch } from '@mantine/core';
import type { Minor } from '@/core/money';
import { indexOfId } from '@/core/calendar';
import type { Budget } from '@/core/model';
import type { Ground } from '@/core/ground';
import { moneyFormat } from '@/store/format';
import { compareBudgets, differs, type Way } from './compare';
import { many } from '../edit/edits';
import classes from '../Budget.module.css';

/** Two budgets side by side: their amounts, the difference by month, and where a line is made another way. */
export function CompareBudgets({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const { book, calendar } = ground;
  const others = book.budgets.filter((b) => b.id !== budget.id);
  const likely =
    others.find((b) => b.id === budget.revises?.budget) ??
    others.findLast((b) => b.first === budget.first && b.length === budget.length) ??
    others.at(-1);
  const [chosen, setChosen] = useState<string | null>(null);
  const [onlyChanged, setOnlyChanged] = useState(true);
  const [byMonth, setByMonth] = useState(true);
  const other = others.find((b) => b.id === chosen) ?? likely ?? null;
  const compared = other && compareBudgets(ground, other, budget);
  const money = moneyFormat(book);

  if (!other || !compared)
    return (
      <p className="faded" style={{ padding: 18 }}>
        This book has only one budget. Duplicate it, or start a revision, and the two stand side by side here.
      </p>
    );
  const { months } = compared;
  const shown = compared.rows.filter(
    (r) => !onlyChanged || r.kind === 'subtotal' || r.kind === 'result' || (r.kind === 'line' && differs(r)),
  );
  const signed = (v: Minor) => (v === 0 ? '' : money.signed(v));
  const begins = calendar.period(indexOfId(calendar, other.first) ?? 0).label;
  const years = new Set(months.map((p) => p.year)).size;
  return (
    <div className={classes.page}>
      <div className={classes.row} style={{ marginTop: 0, marginBottom: 12, alignItems: 'center' }}>
        <NativeSelect
          aria-label="Compared with"
          value={other.id}
          data={others.map((b) => ({ value: b.id, label: `${b.name} (${b.state})` }))}
          onChange={(e) => setChosen(e.currentTarget.value)}
        />
        <Switch
          size="xs"
          label="Only what differs"
          checked={onlyChanged}
          onChange={(e) => setOnlyChanged(e.currentTarget.checked)}
        />
        <Switch
          size="xs"
          label="Change of each month"
          checked={byMonth && months.length > 0}
          disabled={months.length === 0}
          onChange={(e) => setByMonth(e.currentTarget.checked)}
        />
        {(other.first !== budget.first || other.length !== budget.length) && (
          <span className="faded">
            {other.name} begins in {begins} and has {many(other.length, 'month')}; totals are of each budget’s
            own{months.length > 0 ? `, ${many(months.length, 'month')} are in both` : ''}.
          </span>
        )}
      </div>
      <table className={classes.table}>
        <thead>
          <tr>
            <th>Line</th>
            <th>{other.name}</th>
            <th>{budget.name}</th>
            <th>Change</th>
            {byMonth && months.map((p) => <th key={p.id}>{years > 1 ? p.label : p.short}</th>)}
            <th data-kind="text">Made another way</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((r) => {
            const figures = r.kind !== 'section';
            return (
              <tr key={r.key} data-kind={r.kind} data-result={r.kind === 'result' ? r.key : undefined}>
                <td>
                  <span className="faded">{r.code}</span> {r.label}
                </td>
                <td>{figures && money.text(r.left)}</td>
                <td className={classes.plan}>{figures && money.text(r.right)}</td>
                <td className={classes.changed}>{figures && signed(r.change)}</td>
                {byMonth &&
                  months.map((p, i) => (
                    <td key={p.id} className="faded">
                      {figures && signed(r.months[i]!)}
                    </td>
                  ))}
                <td data-kind="text" title={r.ways.map(wayText).join('\n')}>
                  {r.ways.length > 0 && wayText(r.ways[0]!)}
                  {r.ways.length > 1 && ` and ${r.ways.length - 1} more`}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

const wayText = ({ segment, from, to }: Way): string => `${segment ? `${segment}: ` : ''}${from} → ${to}`;
