'use client';

import { useMemo, useState } from 'react';
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { percent, sumBlank, unitOf, type Minor, type Percent } from '@/core/money';
import { fiscalYearLabel, periodsOf, yearRange } from '@/core/calendar';
import { isProfitAndLoss, type AccountKind, type RoundUnit } from '@/core/model';
import {
  createReckoner,
  draftBudget,
  factsFor,
  startLines,
  type StartChoice,
  type StartFrom,
} from '@/core/plan';
import { fillStatement, ROW_NAMES, rowName, statementRows, type SectionKind } from '@/core/report';
import { PercentInput } from '@/components/MoneyInput';
import { dispatch } from '@/store/bookStore';
import { useOpenGround, type Ground } from '@/store/derived';
import { moneyFormat } from '@/store/format';
import { say } from '@/store/session';
import { START_WORDS } from './words';
import classes from './Budget.module.css';

const FROMS = Object.keys(START_WORDS) as StartFrom[];

/** The fiscal year that is likely meant: the first without a budget, after the last year that is closed. */
function likelyYear(ground: Ground): number {
  const { calendar, balances, closedThrough, book } = ground;
  const last = closedThrough ?? balances.range?.last;
  if (last === undefined || last === null) return calendar.period(0).year;
  const taken = new Set(book.budgets.map((b) => Number(b.first.slice(0, 4))));
  const { year, number } = calendar.period(last);
  let next = number === calendar.periodsIn(year) || taken.has(year) ? year + 1 : year;
  // A business whose first months are all there is plans the year it is in.
  if (balances.range && calendar.period(balances.range.first).year === year && !taken.has(year))
    next = number === calendar.periodsIn(year) ? year + 1 : year;
  while (taken.has(next)) next++;
  return next;
}

/** Starting a budget from the ledger, with the year's results live beside the choices. */
export function StartBudget({
  onDone,
  canCancel,
}: {
  readonly onDone: (started: string | null) => void;
  readonly canCancel: boolean;
}) {
  const ground = useOpenGround();
  const { book, calendar, balances, closedThrough } = ground;
  const [year, setYear] = useState(() => likelyYear(ground));
  const [name, setName] = useState<string | null>(null);
  const [from, setFrom] = useState<StartFrom>('sameMonth');
  const [uplift, setUplift] = useState<Percent>(percent('0'));
  const [byKind, setByKind] = useState<Partial<Record<AccountKind, Percent>>>({});
  const [round, setRound] = useState<RoundUnit>(0);
  const money = moneyFormat(book);

  const facts = useMemo(() => {
    const periods = periodsOf(calendar, yearRange(calendar, year));
    return factsFor(calendar, periods, book.accounts, balances, closedThrough, unitOf(book.currency));
  }, [calendar, year, book.accounts, book.currency, balances, closedThrough]);
  const choice: StartChoice = { from, uplift, upliftByKind: byKind, round };
  const lines = startLines(choice, book.accounts, facts);
  const reckoning = createReckoner()(lines, facts);
  const statement = statementRows(book.accounts);
  const totals = (valuesOf: (id: string) => readonly (Minor | null)[] | null) =>
    fillStatement(statement, facts.periods.length, valuesOf).map((v) => sumBlank(v));
  const plan = totals((id) => reckoning.lines.get(id)?.amounts ?? null);
  const last = totals((id) => facts.past(id).lastYear);
  const kinds = [...new Set(book.accounts.map((a) => a.kind))].filter(isProfitAndLoss);
  const shownName = name ?? `${fiscalYearLabel(year)} budget`;
  const window = facts.window;

  const start = () => {
    const id = `b${book.nextId}`;
    const refusal = dispatch({
      type: 'addBudget',
      budget: draftBudget(
        id,
        shownName.trim() || `${fiscalYearLabel(year)} budget`,
        facts.periods[0]!.id,
        facts.periods.length,
        lines,
      ),
    });
    if (refusal) return say('This book can only be read here.', 'trouble');
    onDone(id);
  };

  return (
    <div className={classes.start}>
      <div className={classes.startGrid}>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            start();
          }}
        >
          <h1 className="title">Start a budget</h1>
          <p className="faded" style={{ margin: '0 0 12px' }}>
            {window.length > 0
              ? `From the ledger, ${window[0]!.label} to ${window.at(-1)!.label} (${window.length} months).`
              : 'The ledger has no months to start from: lines begin blank.'}
          </p>
          <div className={classes.row} style={{ marginTop: 0, marginBottom: 10 }}>
            <NativeSelect
              label="Fiscal year"
              value={String(year)}
              onChange={(e) => setYear(Number(e.currentTarget.value))}
              data={[-1, 0, 1, 2]
                .map((d) => likelyYear(ground) + d)
                .map((y) => {
                  const r = yearRange(calendar, y);
                  return {
                    value: String(y),
                    label: `${fiscalYearLabel(y)}: ${calendar.period(r.first).label} – ${calendar.period(r.last).label}`,
                  };
                })}
            />
            <TextInput
              label="Name"
              value={shownName}
              maxLength={120}
              onChange={(e) => setName(e.currentTarget.value)}
            />
          </div>
          <div role="radiogroup" aria-label="Start from">
            {FROMS.map((f) => (
              <label key={f} className={classes.choice}>
                <input type="radio" name="from" value={f} checked={from === f} onChange={() => setFrom(f)} />
                <span>
                  <b>{START_WORDS[f].name}</b>
                  <span className="faded">{START_WORDS[f].hint}</span>
                </span>
              </label>
            ))}
          </div>
          {from !== 'empty' && (
            <div className={classes.row}>
              <PercentInput label="Uplift for all" w={110} value={uplift} onCommit={setUplift} />
              {kinds.map((k) => (
                <PercentInput
                  key={k}
                  label={ROW_NAMES[k as SectionKind]}
                  w={110}
                  value={byKind[k] ?? uplift}
                  onCommit={(p) => setByKind({ ...byKind, [k]: p })}
                />
              ))}
              <NativeSelect
                label="Round months to"
                w={130}
                value={String(round)}
                onChange={(e) => setRound(Number(e.currentTarget.value) as RoundUnit)}
                data={[
                  { value: '0', label: 'Exact' },
                  { value: '1', label: '1' },
                  { value: '10', label: '10' },
                  { value: '100', label: '100' },
                ]}
              />
            </div>
          )}
          <div className={classes.row} style={{ marginTop: 22 }}>
            <Button type="submit" variant="filled" size="sm">
              Start the budget
            </Button>
            {canCancel && (
              <Button size="sm" onClick={() => onDone(null)}>
                Back to the worksheet
              </Button>
            )}
          </div>
        </form>
        <aside className={classes.live} aria-live="polite" aria-label="The year as it would be">
          <div className="label" style={{ marginBottom: 6 }}>
            The year as it would be
          </div>
          <table>
            <thead>
              <tr>
                <th />
                <th>{fiscalYearLabel(year - 1)} actual</th>
                <th>{fiscalYearLabel(year)} budget</th>
                <th>Change</th>
              </tr>
            </thead>
            <tbody>
              {statement.map((row, r) =>
                row.kind === 'subtotal' || row.kind === 'result' ? (
                  <tr key={rowName(row).key} data-result={row.kind === 'result' ? row.result : undefined}>
                    <td>{rowName(row).label}</td>
                    <td>{money.text(last[r]!)}</td>
                    <td className={classes.plan}>{money.text(plan[r]!)}</td>
                    <td>{money.signed(((plan[r] ?? 0) - (last[r] ?? 0)) as Minor)}</td>
                  </tr>
                ) : null,
              )}
            </tbody>
          </table>
        </aside>
      </div>
    </div>
  );
}
