'use client';

import { useMemo, useState, type KeyboardEvent } from 'react';
import { Button } from '@mantine/core';
import { divideRounded, minor, percent, sumBlank, uplift, type Minor, type Percent } from '@/core/money';
import { fiscalYearsLabel } from '@/core/calendar';
import {
  blankLine,
  lineOf as coreLineOf,
  type AccountId,
  type Line,
  type Budget,
  type LineRef,
  type Method,
  type SegmentId,
} from '@/core/model';
import { evenTotal, totalCommand } from '@/core/plan';
import { budgetRows, figureRows, fillStatement, rowName, rowTotal, type StatementRow } from '@/core/report';
import { MoneyInput, PercentInput } from '@/components/MoneyInput';
import { Spark } from '@/components/Spark';
import { dispatch, useBookStore } from '@/store/bookStore';
import { planAccounts, sameMonths, yearBefore, type Ground } from '@/core/ground';
import { groundNow } from '@/store/ground';
import { createPreviewer } from '../edit/preview';
import { moneyFormat } from '@/store/format';
import { lookedNow } from '@/store/person';
import { say, setSession } from '@/store/session';
import { ForgottenList } from './ForgottenList';
import { SegmentChoice } from '../sheet/SegmentChoice';
import { useReckoned } from '../rows/useReckoned';
import classes from './FirstPass.module.css';

/** One page down the accounts: last year, a percentage or a new amount, and the results moving beside them. */
export function FirstPass({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const { book } = ground;
  const bookReadOnly = useBookStore((s) => s.readOnly);
  const readOnly = bookReadOnly || budget.state !== 'draft';
  const { whole, lineOf } = useReckoned(ground, budget);
  const { facts, reckoning } = whole;
  const [preview] = useState(createPreviewer);
  const [segment, setSegment] = useState<SegmentId>(budget.segments[0]!);
  const money = moneyFormat(book);
  const accounts = planAccounts(ground, whole);
  const statement = useMemo(() => budgetRows(accounts, budget.covers), [accounts, budget.covers]);
  const width = facts.periods.length;
  const planned = figureRows(statement, facts, (id) => whole.figures(id, segment));
  const before = yearBefore(ground, whole);
  const priors = fillStatement(statement, width, (id) => before.of(id, segment));
  const totalAt = (r: number) => planned[r]!.total;
  const priorAt = (r: number) => rowTotal(statement[r]!, priors[r]!);
  /** What is compared with the year before: the same months alone. */
  const sameAt = (r: number) =>
    before.all ? totalAt(r) : rowTotal(statement[r]!, sameMonths(before, planned[r]!.months));
  const year = fiscalYearsLabel(facts.periods);
  const prior = before.as === 'actual' ? before.year : before.label;

  const look = (ref: LineRef) => {
    // As the book is now: a figure that was just taken may have marked the line already.
    const now = groundNow()?.book.budgets.find((b) => b.id === budget.id);
    if (now && !coreLineOf(now, ref)?.looked)
      dispatch({ type: 'setLooked', budget: budget.id, lines: [ref], looked: lookedNow() });
  };
  const setPercent = (ref: LineRef, p: Percent, prior: Minor) => {
    const line = lineOf(ref) ?? blankLine(ref);
    const { method } = line;
    const lifts = 'uplift' in method && (!('amounts' in method) || method.amounts === null);
    const next: Method = lifts
      ? { ...method, uplift: p }
      : before.method(p, 'round' in method ? method.round : 0);
    // The percentage is of the year's figure. Where the method's own comes to that it says so; where months are typed
    // over, or the method comes to something else, the year's amount is what was asked for.
    const asked = uplift(prior, p);
    const made = preview(whole, book.accounts, [{ ...ref, method: next }]).line;
    const comesTo = sumBlank(sameMonths(before, made.amounts));
    // Months are rounded one by one, to the cent or as the method says.
    const near = width + ('round' in next ? next.round * facts.unit : 0);
    if (comesTo !== null && Math.abs(comesTo - asked) <= near) {
      dispatch({ type: 'setMethods', budget: budget.id, lines: [{ ...ref, method: next }] });
      look(ref);
      return;
    }
    setAnnual(ref, before.all ? asked : scaled(ref, asked));
  };
  /** What a budget comes to when the months that can be compared come to this. */
  const scaled = (ref: LineRef, same: Minor): Minor => {
    const amounts = reckoning.lines.get(ref)?.amounts ?? [];
    const others = sumBlank(amounts.filter((_, i) => !before.known[i]));
    return minor(same + (others ?? 0));
  };
  const setAnnual = (ref: LineRef, total: Minor | null) => {
    const line = lineOf(ref) ?? blankLine(ref);
    const result = reckoning.lines.get(ref);
    const silent = facts.past(ref.account, ref.segment).lastYear.every((v) => !v);
    // With nothing to be shaped like, and nothing typed, a year's amount is spread evenly and says so.
    if (total !== null && silent && (!result || result.total === null)) {
      dispatch({
        type: 'setMethods',
        budget: budget.id,
        lines: [{ ...ref, method: evenTotal(total, facts) }],
      });
      look(ref);
      return;
    }
    const blank = facts.periods.map(() => null);
    const now = result ?? { amounts: blank, method: blank, typed: [], wholes: [], total: null, issue: null };
    dispatch(totalCommand(budget.id, line, now, facts, 0, width, total));
    look(ref);
  };

  return (
    <div className={classes.pass}>
      <div className={classes.list} onKeyDown={onArrows}>
        {!bookReadOnly && (
          <Button style={{ float: 'right' }} onClick={() => setSession({ asked: 'account' })}>
            + Account
          </Button>
        )}
        <SegmentChoice
          book={book}
          budget={budget}
          value={segment}
          withAll={false}
          onChange={(s) => s !== 'all' && setSegment(s)}
        />
        <p className={classes.intro}>
          Down the accounts once: a percentage on last year, or the new amount for the year; either moves the
          other. Enter ticks a line and goes on; arrows only move. Months that were typed stay, the others
          keep their shape and take the rest.
        </p>
        <table className={classes.table}>
          <thead>
            <tr>
              <th>Account</th>
              <th>Shape</th>
              <th>{prior}</th>
              <th>%</th>
              <th>{year}</th>
            </tr>
          </thead>
          <tbody>
            {statement.map((row, r) =>
              row.kind === 'line' ? (
                <Row
                  key={row.account.id}
                  row={row}
                  prior={priorAt(r)}
                  total={totalAt(r)}
                  change={changeShown(lineOf({ account: row.account.id, segment }), sameAt(r), priorAt(r))}
                  months={priors[r]!}
                  looked={Boolean(lineOf({ account: row.account.id, segment })?.looked)}
                  currency={book.currency}
                  locale={book.locale}
                  readOnly={readOnly}
                  text={money.text}
                  onPercent={(p) => setPercent({ account: row.account.id, segment }, p, priorAt(r)!)}
                  onAnnual={(v) => setAnnual({ account: row.account.id, segment }, v)}
                  onLooked={() => !readOnly && look({ account: row.account.id, segment })}
                />
              ) : (
                <tr
                  key={rowName(row).key}
                  data-kind={row.kind}
                  data-result={row.kind === 'result' ? row.result : undefined}
                >
                  <td>{rowName(row).label}</td>
                  <td />
                  <td>{row.kind === 'section' ? '' : money.text(priorAt(r))}</td>
                  <td>{row.kind === 'section' ? '' : changeText(sameAt(r), priorAt(r))}</td>
                  <td className={classes.plan}>{row.kind === 'section' ? '' : money.text(totalAt(r))}</td>
                </tr>
              ),
            )}
          </tbody>
        </table>
        <ForgottenList
          ground={ground}
          reckoned={whole}
          readOnly={readOnly}
          onMethod={(account: AccountId, method: Method) => {
            dispatch({ type: 'setMethods', budget: budget.id, lines: [{ account, segment, method }] });
            say('The lump is left out.');
          }}
        />
      </div>
      <aside className={classes.side} aria-live="polite" aria-label="Results">
        <div className="label">{year}</div>
        {statement.map((row, r) =>
          row.kind === 'result' || (row.kind === 'subtotal' && row.section === 'income') ? (
            <div key={rowName(row).key} className={classes.result}>
              <span>{rowName(row).label}</span>
              <b>{money.text(totalAt(r))}</b>
              <span className="faded">
                {prior} {money.text(priorAt(r))}
                {marginText(row, totalAt(r), statement, totalAt)}
              </span>
            </div>
          ) : null,
        )}
      </aside>
    </div>
  );
}

/** The result as a percentage of income. */
function marginText(
  row: StatementRow,
  total: Minor | null,
  statement: readonly StatementRow[],
  totalAt: (r: number) => Minor | null,
): string {
  const income = statement.findIndex((s) => s.kind === 'subtotal' && s.section === 'income');
  const all = income < 0 ? null : totalAt(income);
  if (row.kind !== 'result' || !all || total === null) return '';
  return ` · ${(divideRounded(total, 1000, all, 'halfAwayFromZero') / 10).toFixed(1)}% of income`;
}

/** Change on last year in percent, to a tenth; blank where there was nothing. */
function changeOf(total: Minor | null, prior: Minor | null): Percent | null {
  if (!prior || total === null) return null;
  const tenths = divideRounded(total - prior, 1000, Math.abs(prior), 'halfAwayFromZero');
  return percent((tenths / 10).toFixed(1));
}

/** The percentage of a line: as its method says where the year's figure is that, else what the figure comes to. */
function changeShown(line: Line | undefined, total: Minor | null, prior: Minor | null): Percent | null {
  const change = changeOf(total, prior);
  const said = line && 'uplift' in line.method ? line.method.uplift : null;
  if (change === null || said === null || Object.keys(line!.overrides).length > 0) return change;
  return Math.abs(Number(said) - Number(change)) < 0.1 ? said : change;
}

const changeText = (total: Minor | null, prior: Minor | null): string => {
  const p = changeOf(total, prior);
  return p === null || p === '0' ? '' : `${p.startsWith('-') ? '−' : '+'}${p.replace('-', '')}%`;
};

function Row({
  row,
  prior,
  total,
  change,
  months,
  looked,
  currency,
  locale,
  readOnly,
  text,
  onPercent,
  onAnnual,
  onLooked,
}: {
  readonly row: Extract<StatementRow, { kind: 'line' }>;
  readonly prior: Minor | null;
  readonly total: Minor | null;
  readonly change: Percent | null;
  readonly months: readonly (Minor | null)[];
  readonly looked: boolean;
  readonly currency: string;
  readonly locale: string;
  readonly readOnly: boolean;
  readonly text: (v: Minor | null) => string;
  readonly onPercent: (p: Percent) => void;
  readonly onAnnual: (v: Minor | null) => void;
  readonly onLooked: () => void;
}) {
  const { account } = row;
  return (
    <tr data-kind="line" onKeyDown={(e) => e.key === 'Enter' && !e.shiftKey && onLooked()}>
      <td>
        <span className="faded">{account.code}</span> {account.name}
        {looked && <span className={classes.tick}> ✓</span>}
      </td>
      <td>
        <Spark values={months} />
      </td>
      <td>{text(sumBlank([prior]))}</td>
      <td>
        <PercentInput
          data-field="percent"
          aria-label={`${account.name}, percent on last year`}
          value={change ?? ('0' as Percent)}
          disabled={readOnly || prior === null || prior === 0}
          onCommit={onPercent}
        />
      </td>
      <td>
        <MoneyInput
          data-field="annual"
          aria-label={`${account.name}, amount for the year`}
          value={total}
          currency={currency}
          locale={locale}
          disabled={readOnly}
          onCommit={onAnnual}
        />
      </td>
    </tr>
  );
}

/** Enter and the arrows go to the same field of the next or previous account. */
function onArrows(e: KeyboardEvent<HTMLDivElement>): void {
  const step =
    e.key === 'ArrowDown' || (e.key === 'Enter' && !e.shiftKey)
      ? 1
      : e.key === 'ArrowUp' || e.key === 'Enter'
        ? -1
        : 0;
  const field = (e.target as HTMLElement).dataset.field;
  if (step === 0 || !field) return;
  const all = [
    ...e.currentTarget.querySelectorAll<HTMLInputElement>(`input[data-field="${field}"]:not(:disabled)`),
  ];
  const next = all[all.indexOf(e.target as HTMLInputElement) + step];
  if (!next) return;
  e.preventDefault();
  next.focus();
  next.select();
}
