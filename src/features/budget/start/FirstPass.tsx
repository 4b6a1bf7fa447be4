'use client';

import { useMemo, useState, type KeyboardEvent } from 'react';
import { divideRounded, percent, sumBlank, type Minor, type Percent } from '@/core/money';
import { fiscalYearsLabel } from '@/core/calendar';
import {
  blankLine,
  type AccountId,
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
import type { Ground } from '@/core/ground';
import { moneyFormat } from '@/store/format';
import { lookedNow } from '@/store/person';
import { say } from '@/store/session';
import { ForgottenList } from './ForgottenList';
import { SegmentChoice } from '../sheet/SegmentChoice';
import { useReckoned } from '../rows/useReckoned';
import { yearBefore } from '@/core/ground';
import classes from './FirstPass.module.css';

/** One page down the accounts: last year, a percentage or a new amount, and the results moving beside them. */
export function FirstPass({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const { book } = ground;
  const bookReadOnly = useBookStore((s) => s.readOnly);
  const readOnly = bookReadOnly || budget.state !== 'draft';
  const { whole, lineOf } = useReckoned(ground, budget);
  const { facts, reckoning } = whole;
  const [segment, setSegment] = useState<SegmentId>(budget.segments[0]!);
  const money = moneyFormat(book);
  const statement = useMemo(() => budgetRows(book.accounts, budget.covers), [book.accounts, budget.covers]);
  const width = facts.periods.length;
  const planned = figureRows(statement, facts, (id) => whole.figures(id, segment));
  const before = yearBefore(ground, whole);
  const priors = fillStatement(statement, width, (id) => before.of(id, segment));
  const totalAt = (r: number) => planned[r]!.total;
  const priorAt = (r: number) => rowTotal(statement[r]!, priors[r]!);
  const year = fiscalYearsLabel(facts.periods);
  const prior = before.as === 'actual' ? before.year : before.label;

  const look = (ref: LineRef) => {
    if (!lineOf(ref)?.looked)
      dispatch({ type: 'setLooked', budget: budget.id, lines: [ref], looked: lookedNow() });
  };
  const setPercent = (ref: LineRef, p: Percent) => {
    const line = lineOf(ref) ?? blankLine(ref);
    const { method } = line;
    const next: Method =
      'uplift' in method && (!('amounts' in method) || method.amounts === null)
        ? { ...method, uplift: p }
        : before.method(p, 'round' in method ? method.round : 0);
    dispatch({ type: 'setMethods', budget: budget.id, lines: [{ ...ref, method: next }] });
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
      return;
    }
    const blank = facts.periods.map(() => null);
    const now = result ?? { amounts: blank, method: blank, typed: [], wholes: [], total: null, issue: null };
    dispatch(totalCommand(budget.id, line, now, facts, 0, width, total));
  };

  return (
    <div className={classes.pass}>
      <div className={classes.list} onKeyDown={onArrows}>
        <SegmentChoice
          book={book}
          budget={budget}
          value={segment}
          withAll={false}
          onChange={(s) => s !== 'all' && setSegment(s)}
        />
        <p className={classes.intro}>
          Down the accounts once: a percentage on last year, or the new amount for the year; either moves the
          other. Enter or ↓ goes on. The months keep their shape; the worksheet has the rest.
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
                  months={priors[r]!}
                  looked={Boolean(lineOf({ account: row.account.id, segment })?.looked)}
                  currency={book.currency}
                  locale={book.locale}
                  readOnly={readOnly}
                  text={money.text}
                  onPercent={(p) => setPercent({ account: row.account.id, segment }, p)}
                  onAnnual={(v) => setAnnual({ account: row.account.id, segment }, v)}
                  onPassed={() => !readOnly && look({ account: row.account.id, segment })}
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
                  <td>{row.kind === 'section' ? '' : changeText(totalAt(r), priorAt(r))}</td>
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
  if (row.kind !== 'result' || row.result === 'netAssets' || !all || total === null) return '';
  return ` · ${(divideRounded(total, 1000, all, 'halfAwayFromZero') / 10).toFixed(1)}% of income`;
}

/** Change on last year in percent, to a tenth; blank where there was nothing. */
function changeOf(total: Minor | null, prior: Minor | null): Percent | null {
  if (!prior || total === null) return null;
  const tenths = divideRounded(total - prior, 1000, Math.abs(prior), 'halfAwayFromZero');
  return percent((tenths / 10).toFixed(1));
}

const changeText = (total: Minor | null, prior: Minor | null): string => {
  const p = changeOf(total, prior);
  return p === null || p === '0' ? '' : `${p.startsWith('-') ? '−' : '+'}${p.replace('-', '')}%`;
};

function Row({
  row,
  prior,
  total,
  months,
  looked,
  currency,
  locale,
  readOnly,
  text,
  onPercent,
  onAnnual,
  onPassed,
}: {
  readonly row: Extract<StatementRow, { kind: 'line' }>;
  readonly prior: Minor | null;
  readonly total: Minor | null;
  readonly months: readonly (Minor | null)[];
  readonly looked: boolean;
  readonly currency: string;
  readonly locale: string;
  readonly readOnly: boolean;
  readonly text: (v: Minor | null) => string;
  readonly onPercent: (p: Percent) => void;
  readonly onAnnual: (v: Minor | null) => void;
  readonly onPassed: () => void;
}) {
  const { account } = row;
  const change = changeOf(total, prior);
  return (
    <tr data-kind="line" onBlur={(e) => !e.currentTarget.contains(e.relatedTarget) && onPassed()}>
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
