'use client';

import { methodBadge } from '@/store/methodWords';
import { useState } from 'react';
import { NativeSelect, Switch } from '@mantine/core';
import type { Minor } from '@/core/money';
import { lineOf, type Budget } from '@/core/model';
import { wholeRow } from '@/core/plan';
import { budgetRows, fillStatement, rowName, rowTotal } from '@/core/report';
import { reckoned, type Ground } from '@/store/derived';
import { moneyFormat } from '@/store/format';

import classes from './Budget.module.css';

/** Two budgets side by side: their amounts, the difference, and where a line is made another way. */
export function CompareBudgets({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const { book } = ground;
  const others = book.budgets.filter((b) => b.id !== budget.id);
  const likely =
    others.find((b) => b.id === budget.revises?.budget) ??
    others.findLast((b) => b.first === budget.first && b.length === budget.length) ??
    others.at(-1);
  const [chosen, setChosen] = useState<string | null>(null);
  const [onlyChanged, setOnlyChanged] = useState(true);
  const other = others.find((b) => b.id === chosen) ?? likely ?? null;
  const money = moneyFormat(book);
  const rows = other ? compared(ground, other, budget) : [];

  if (!other)
    return (
      <p className="faded" style={{ padding: 18 }}>
        This book has only one budget. Duplicate it, or start a revision, and the two stand side by side here.
      </p>
    );
  const shown = rows.filter(
    (r) =>
      !onlyChanged ||
      r.kind === 'subtotal' ||
      r.kind === 'result' ||
      (r.kind === 'line' && (r.change !== 0 || r.ways)),
  );
  const sameSpan = other.first === budget.first && other.length === budget.length;
  return (
    <div className={classes.page}>
      <div className={classes.row} style={{ marginTop: 0, marginBottom: 12 }}>
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
        {!sameSpan && (
          <span className="faded">
            {other.name} begins {other.first} and has {other.length} months; totals are of each budget’s own.
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
            <th>Made another way</th>
          </tr>
        </thead>
        <tbody>
          {shown.map((r) => (
            <tr key={r.key} data-kind={r.kind} data-result={r.kind === 'result' ? r.key : undefined}>
              <td>
                <span className="faded">{r.code}</span> {r.label}
              </td>
              <td>{r.kind === 'section' ? '' : money.text(r.left)}</td>
              <td className={classes.plan}>{r.kind === 'section' ? '' : money.text(r.right)}</td>
              <td>{r.kind === 'section' || r.change === 0 ? '' : money.signed(r.change)}</td>
              <td>{r.ways ? `${r.ways[0]} → ${r.ways[1]}` : ''}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Each row of two budgets with its total in both, and how a line is made where that differs. */
function compared(ground: Ground, other: Budget, budget: Budget) {
  const { book } = ground;
  const [left, right] = [other, budget].map((b) => reckoned(ground, b));
  const statement = budgetRows(book.accounts, budget.covers === other.covers ? budget.covers : 'both');
  const totals = (r: NonNullable<typeof left>) => {
    const width = r.facts.periods.length;
    const years = r.facts.years.length;
    return fillStatement(statement, width + years, (id) => wholeRow(r.figures(id), years)).map((v, i) =>
      rowTotal(statement[i]!, v.slice(0, width), v.slice(width)),
    );
  };
  const [a, b] = [totals(left!), totals(right!)];
  const way = (of: Budget, account: string) => {
    const line = lineOf(of, { account, segment: of.segments[0]! });
    return line
      ? `${methodBadge(line.method)}${Object.keys(line.overrides).length > 0 ? ', typed over' : ''}`
      : 'no line';
  };
  return statement.map((row, r) => {
    const account = row.kind === 'line' ? row.account.id : null;
    const ways = account ? ([way(other, account), way(budget, account)] as const) : null;
    return {
      ...rowName(row),
      kind: row.kind,
      code: row.kind === 'line' ? row.account.code : '',
      left: a[r]!,
      right: b[r]!,
      change: ((b[r] ?? 0) - (a[r] ?? 0)) as Minor,
      ways: ways && ways[0] !== ways[1] ? ways : null,
    };
  });
}
