'use client';

import { useState } from 'react';
import { Button, NativeSelect, SegmentedControl } from '@mantine/core';
import { fiscalYearsLabel } from '@/core/calendar';
import { scheduleTies, type Ground } from '@/core/ground';
import { newAccount, segmentName, type Budget, type ScheduleKind, type ScheduleRow } from '@/core/model';
import { minor, percent, type Percent } from '@/core/money';
import { touchingRows, triedOver } from '@/core/scenario';
import {
  accountsFor,
  COST_LINE,
  monthsBySegment,
  monthsOfRow,
  NEW_ACCOUNT,
  SCHEDULE_KINDS,
  type Purpose,
  type RowLine,
} from '@/core/schedule';
import { DayInput } from '@/components/DayInput';
import { Dialog } from '@/components/Dialog';
import { PercentInput } from '@/components/MoneyInput';
import stage from '@/components/Stage.module.css';
import { dispatch, useBookStore } from '@/store/bookStore';
import { markWords } from '@/store/caseWords';
import { moneyFormat } from '@/store/format';
import { say, setSession, useSession } from '@/store/session';
import { ROW_LINES, SCHEDULE_NAMES } from '@/store/scheduleWords';
import { useReckoned } from '../rows/useReckoned';
import { columnsOf, pasted } from './columns';
import { FieldTable } from './FieldTable';
import { RowPanel } from './RowPanel';
import { accountsOfKind, firstOpenDay, NEEDS, newRow, type Accounts } from '@/store/newRow';
import { loanFor, putRows, raised } from './scheduleEdits';
import { TakeRows } from './TakeRows';
import classes from './Schedules.module.css';

const ADD: Record<ScheduleKind, string> = {
  staff: 'Add a position',
  loan: 'Add a loan',
  asset: 'Add an asset',
  release: 'Add an amount',
  incomeTax: 'Add the tax',
  equity: 'Add an amount',
};

const HINTS: Record<ScheduleKind, string> = {
  staff:
    'Who is paid what, and what comes on top of it. Pay stays in this book: what leaves it has totals by account.',
  loan: 'What is owed, at which rate, and how it is repaid: interest, principal and the money follow.',
  asset: 'What is owned and bought: what is used up each month, and what is left of it.',
  release: 'What was paid or received in advance, and the months that it belongs to.',
  incomeTax: 'Tax on the profit of the year so far; losses are carried forward.',
  equity: 'What owners pay in, draw, or are paid.',
};

const PURPOSE_WORDS: Record<Purpose, string> = {
  wages: 'The line of the pay',
  oncosts: 'The line of the on-costs',
  withheld: 'What is withheld',
  loan: 'The loan',
  interest: 'The line of the interest',
  accrued: 'Interest not paid yet',
  asset: 'What is owned',
  accumulated: 'What is written off of it',
  depreciation: 'The line of depreciation',
  gain: 'Gains',
  prepaid: 'What is paid in advance',
  deferred: 'What is received in advance',
  tax: 'The line of the tax',
  taxOwed: 'Tax owed',
  equity: 'The owners’ account',
};

type Beneath = 'row' | 'rows' | 'segments';

/** Tables that make several lines of the budget: what is typed here is followed by every line that they make. */
export function SchedulesView({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const { book } = ground;
  const bookReadOnly = useBookStore((s) => s.readOnly);
  const readOnly = bookReadOnly || budget.state !== 'draft';
  const kind = useSession((s) => s.scheduleKind);
  const chosen = useSession((s) => s.scheduleRow);
  const { whole } = useReckoned(ground, budget);
  const { facts, reckoning } = whole;
  const { periods } = facts;
  const money = moneyFormat(book);
  const [asked, setAsked] = useState<ScheduleKind | null>(null);
  const [raising, setRaising] = useState(false);
  const [beneath, setBeneath] = useState<Beneath>('row');
  const rows = budget.schedules.filter((r) => r.kind === kind);
  const current = rows.find((r) => r.id === chosen) ?? rows[0] ?? null;
  const rowGround = {
    ...reckoning.rowGround(),
    range: { first: periods[0]!.index, last: periods.at(-1)!.index },
  };
  const linesOf = (row: ScheduleRow): readonly RowLine[] => monthsOfRow(row, rowGround);
  const costOf = (row: ScheduleRow) => linesOf(row).find((l) => l.key === COST_LINE[row.kind])!.amounts;
  const sumOf = (amounts: readonly number[]) => amounts.reduce((t, a) => t + a, 0);
  const text = (a: number) => money.text(minor(a));
  const standing = (a: number) => (a === 0 ? 'nothing' : money.exact(minor(a)));
  const columns = columnsOf(kind, { book, periods, comesTo: (r) => text(sumOf(costOf(r))) });

  const keep = (next: readonly ScheduleRow[], said?: string) => {
    const command = putRows(budget, whole, next, said ? { said } : {});
    if (dispatch(command)) return false;
    const besides = command.lines.filter((l) => Object.keys(l.method.beside).length > 0);
    if (besides.length > 0) {
      const names = besides.map((l) => book.accounts.find((a) => a.id === l.account)?.name);
      say(
        `${[...new Set(names)].join(', ')}: made by the schedule from now on, on top of what was there. Ctrl+Z takes it back.`,
      );
    }
    return true;
  };
  const start = (accounts: Accounts) => {
    const row = newRow(kind, `r${book.nextId}`, whole, accounts);
    if (keep([row])) setSession({ scheduleRow: row.id });
  };
  const add = () => {
    const accounts = accountsOfKind(book, kind);
    if (NEEDS[kind].must.some((p) => !accounts[p])) setAsked(kind);
    else start(accounts);
  };
  const onBlock = (row: number, column: number, block: readonly (readonly string[])[]) => {
    const accounts = accountsOfKind(book, kind);
    const first = rows.at(-1);
    const laid = pasted(columns, rows, { row, column }, block, book, (i) => ({
      ...(first ?? newRow(kind, '', whole, accounts)),
      id: `r${book.nextId + i}`,
    }));
    if ('trouble' in laid) return say(laid.trouble, 'trouble');
    if (keep(laid.rows))
      say(`${laid.rows.length} rows pasted${laid.leftOut > 0 ? `, ${laid.leftOut} cells left out` : ''}.`);
  };
  const tried = touchingRows(triedOver(book, budget), rows);
  const marks = new Map([...tried].map(([id, all]) => [id, markWords(undefined, all)]));
  const ties = scheduleTies(ground, budget).filter((t) => rows.some((r) => touches(r, t.account)));
  return (
    <div className={stage.work}>
      <div className={stage.left} style={{ overflow: 'auto' }}>
        <div className={stage.tools}>
          <SegmentedControl
            size="xs"
            aria-label="Schedule"
            value={kind}
            onChange={(k) => setSession({ scheduleKind: k as ScheduleKind, scheduleRow: null })}
            data={SCHEDULE_KINDS.map((k) => {
              const n = budget.schedules.filter((r) => r.kind === k).length;
              return { value: k, label: n > 0 ? `${SCHEDULE_NAMES[k]} ${n}` : SCHEDULE_NAMES[k] };
            })}
          />
          <span className={stage.push} />
          {(kind === 'staff' || kind === 'loan' || kind === 'asset') && (
            <TakeRows
              ground={ground}
              reckoned={whole}
              kind={kind}
              readOnly={readOnly}
              onTaken={(id) => setSession({ scheduleRow: id })}
            />
          )}
          {kind === 'staff' && rows.length > 0 && (
            <Button disabled={readOnly} onClick={() => setRaising(true)}>
              Raise for all…
            </Button>
          )}
          <Button variant="filled" disabled={readOnly} onClick={add}>
            {ADD[kind]}
          </Button>
        </div>
        <p className="faded" style={{ margin: '0 0 10px', fontSize: 13 }}>
          {HINTS[kind]}
        </p>
        {rows.length > 0 && (
          <FieldTable
            label={`${SCHEDULE_NAMES[kind]} of ${budget.name}`}
            columns={columns}
            rows={rows}
            current={current?.id ?? null}
            total={kind === 'incomeTax' ? null : text(rows.reduce((t, r) => t + sumOf(costOf(r)), 0))}
            currency={book.currency}
            locale={book.locale}
            readOnly={readOnly}
            marks={marks}
            onChoose={(id) => setSession({ scheduleRow: id })}
            onRow={(row) => keep([row])}
            onBlock={onBlock}
          />
        )}
        {ties.map((t) => (
          <p key={t.account} className={classes.tie} data-off={t.ledger !== t.schedules || undefined}>
            {book.accounts.find((a) => a.id === t.account)?.name}: the ledger stands at {standing(t.ledger)}{' '}
            in {ground.calendar.period(t.period).label}
            {t.ledger === t.schedules
              ? ', and so do the rows.'
              : `, the rows at ${standing(t.schedules)}: ${money.exact(minor(t.schedules - t.ledger))} apart.`}
          </p>
        ))}
        {current && (
          <section className={classes.months} aria-label="Months">
            <div className={classes.monthsHead}>
              <h3>{beneath === 'row' ? current.name : `All ${SCHEDULE_NAMES[kind].toLowerCase()}`}</h3>
              <NativeSelect
                aria-label="Months of"
                value={beneath}
                data={[
                  { value: 'row', label: 'this row' },
                  { value: 'rows', label: 'each row' },
                  ...(budget.axis === null ? [] : [{ value: 'segments', label: 'each segment' }]),
                ]}
                onChange={(e) => setBeneath(e.currentTarget.value as Beneath)}
              />
            </div>
            <MonthsTable
              heads={periods.map((p) => p.short)}
              total={fiscalYearsLabel(periods)}
              text={text}
              lines={
                beneath === 'row'
                  ? linesOf(current).map((l) => ({
                      name: l.name || ROW_LINES[l.key],
                      amounts: l.amounts,
                      stands: l.stands,
                    }))
                  : beneath === 'rows'
                    ? withTotal(rows.map((r) => ({ name: r.name, amounts: costOf(r), stands: false })))
                    : withTotal(bySegment(ground, budget, rows, costOf))
              }
            />
          </section>
        )}
      </div>
      <aside className={stage.panel} tabIndex={0} aria-label={SCHEDULE_NAMES[kind]}>
        {current ? (
          <RowPanel
            key={current.id}
            ground={ground}
            reckoned={whole}
            row={current}
            readOnly={readOnly}
            onRow={(row) => keep([row])}
            onLoan={(asset) => {
              const accounts = accountsOfKind(book, 'loan');
              if (NEEDS.loan.must.some((p) => !accounts[p]))
                return say('The book lacks the accounts of a loan. Add one under Loans first.', 'trouble');
              const loan = loanFor(asset, `r${book.nextId}`, whole, accounts);
              if (!keep([loan])) return;
              setSession({ scheduleKind: 'loan', scheduleRow: loan.id });
              say(`${loan.name}: ${money.text(loan.begins.amount)}, drawn when it is bought.`);
            }}
          />
        ) : (
          <p className="faded">
            Nothing here yet. {ADD[kind]}
            {kind === 'staff' || kind === 'loan' || kind === 'asset' ? ', or take a list in from a file' : ''}
            ; the lines that it makes are on the worksheet at once.
          </p>
        )}
      </aside>
      <NewAccounts
        kind={asked}
        ground={ground}
        onClose={() => setAsked(null)}
        onReady={(accounts) => {
          setAsked(null);
          start(accounts);
        }}
      />
      <RaiseAll
        opened={raising}
        from={firstOpenDay(periods, facts.closedThrough)}
        onClose={() => setRaising(false)}
        onRaise={(from, by) => {
          const next = raised(budget.schedules, from, by);
          if (next.length > 0 && keep(next, `${by}%`))
            say(`${next.length} positions raised by ${by}% from ${from}.`);
          setRaising(false);
        }}
      />
    </div>
  );
}

type MonthLine = { readonly name: string; readonly amounts: readonly number[]; readonly stands: boolean };

const withTotal = (lines: readonly MonthLine[]): readonly MonthLine[] =>
  lines.length < 2
    ? lines
    : [
        ...lines,
        {
          name: 'All together',
          stands: false,
          amounts: lines[0]!.amounts.map((_, i) => lines.reduce((t, l) => t + l.amounts[i]!, 0)),
        },
      ];

function bySegment(
  { book }: Ground,
  budget: Budget,
  rows: readonly ScheduleRow[],
  costOf: (row: ScheduleRow) => readonly number[],
): readonly MonthLine[] {
  const axis = book.axes.find((a) => a.id === budget.axis);
  const sums = new Map<string | null, number[]>();
  for (const row of rows)
    for (const [segment, amounts] of monthsBySegment(row, costOf(row)))
      sums.set(
        segment,
        amounts.map((a, i) => a + (sums.get(segment)?.[i] ?? 0)),
      );
  return [...sums].map(([segment, amounts]) => ({
    name: (axis && segmentName(axis, segment)) || 'Unassigned',
    amounts,
    stands: false,
  }));
}

function MonthsTable({
  heads,
  total,
  lines,
  text,
}: {
  readonly heads: readonly string[];
  readonly total: string;
  readonly lines: readonly MonthLine[];
  readonly text: (amount: number) => string;
}) {
  return (
    <div style={{ overflowX: 'auto' }} tabIndex={0} role="region" aria-label="Months of the schedule">
      <table className={classes.figures}>
        <thead>
          <tr>
            <th />
            {heads.map((h, i) => (
              <th key={i}>{h}</th>
            ))}
            <th>{total}</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l, k) => (
            <tr key={k} data-last={(k === lines.length - 1 && k > 0) || undefined}>
              <th scope="row">{l.name}</th>
              {l.amounts.map((a, i) => (
                <td key={i}>{text(a)}</td>
              ))}
              <td>{l.stands ? text(l.amounts.at(-1) ?? 0) : text(l.amounts.reduce((t, a) => t + a, 0))}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Whether a row stands on a balance account: its loan, its cost, what is written off of it, what is paid in advance. */
const touches = (row: ScheduleRow, account: string): boolean =>
  row.kind === 'release'
    ? row.against === account
    : row.kind === 'asset'
      ? row.account === account || row.accumulated === account
      : row.kind === 'loan' && row.account === account;

/** The accounts that a schedule cannot be without and the book does not have: added on the spot, or others chosen. */
function NewAccounts({
  kind,
  ground,
  onClose,
  onReady,
}: {
  readonly kind: ScheduleKind | null;
  readonly ground: Ground;
  readonly onClose: () => void;
  readonly onReady: (accounts: Accounts) => void;
}) {
  const { book } = ground;
  const [picked, setPicked] = useState<Partial<Record<Purpose, string>>>({});
  if (!kind) return null;
  const known = accountsOfKind(book, kind);
  const missing = NEEDS[kind].must.filter((p) => !known[p]);
  const ready = () => {
    let next = book.nextId;
    const made: Accounts = { ...known };
    for (const p of missing) {
      const own = picked[p];
      if (own) {
        made[p] = own;
        continue;
      }
      const id = `a${next++}`;
      const { name, kind: of } = NEW_ACCOUNT[p];
      if (dispatch({ type: 'addAccount', account: newAccount(id, '', name, of) })) return;
      made[p] = id;
    }
    setPicked({});
    onReady(made);
  };
  return (
    <Dialog opened onClose={onClose} title={`Accounts for ${SCHEDULE_NAMES[kind].toLowerCase()}`}>
      <p>The book has no account that is plainly for this. It is added, unless you choose another.</p>
      {missing.map((p) => (
        <NativeSelect
          key={p}
          label={PURPOSE_WORDS[p]}
          mb={8}
          value={picked[p] ?? ''}
          data={[
            { value: '', label: `Add “${NEW_ACCOUNT[p].name}”` },
            ...accountsFor(book.accounts, p).map((a) => ({ value: a.id, label: a.name })),
          ]}
          onChange={(e) => setPicked({ ...picked, [p]: e.currentTarget.value })}
        />
      ))}
      <Button variant="filled" data-autofocus mr={8} onClick={ready}>
        {ADD[kind]}
      </Button>
      <Button onClick={onClose}>Leave it</Button>
    </Dialog>
  );
}

function RaiseAll({
  opened,
  from: first,
  onClose,
  onRaise,
}: {
  readonly opened: boolean;
  readonly from: Parameters<typeof raised>[1];
  readonly onClose: () => void;
  readonly onRaise: (from: Parameters<typeof raised>[1], by: Percent) => void;
}) {
  const [from, setFrom] = useState(first);
  const [by, setBy] = useState<Percent>(percent('3'));
  return (
    <Dialog opened={opened} onClose={onClose} title="A raise for all">
      <p>Every position that is worked on that day gets it; a raise of the same day is replaced.</p>
      <DayInput label="From" value={from} onCommit={(d) => d && setFrom(d)} />
      <PercentInput label="By" mt={8} value={by} onCommit={setBy} data-autofocus />
      <Button variant="filled" mt={12} mr={8} onClick={() => onRaise(from, by)}>
        Raise
      </Button>
      <Button mt={12} onClick={onClose}>
        Leave it
      </Button>
    </Dialog>
  );
}
