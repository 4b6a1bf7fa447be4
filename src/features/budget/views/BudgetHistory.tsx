'use client';

import { useMemo } from 'react';
import { Button } from '@mantine/core';
import { cutText, LIMITS, type Budget, type Change } from '@/core/model';
import { dispatch, useBookStore } from '@/store/bookStore';
import { changeWords, placesOf } from '@/store/changeWords';
import { reckoned, type Ground } from '@/core/ground';
import { moneyFormat, timeText } from '@/store/format';
import { budgetStates, figureChanges } from '@/store/history';
import { say, setSession } from '@/store/session';
import classes from '../Budget.module.css';

const SHOWN = 300;

/** Every change of a budget with its net profit before and after; any of its states can be taken up as a new draft. */
export function BudgetHistory({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const history = useBookStore((s) => s.history);
  const blocks = useBookStore((s) => s.blocks);
  const readOnly = useBookStore((s) => s.readOnly);
  const { id } = budget;
  const [states, figures] = useMemo(() => {
    if (!history) return [[], new Map()] as const;
    const moved = figureChanges(history, blocks, { budget: id, line: null, month: null });
    return [budgetStates(history, id), new Map(moved.map((f) => [f.change.seq, f]))] as const;
  }, [history, blocks, id]);
  const money = moneyFormat(ground.book);
  const { made } = reckoned(ground, budget);
  const hasResult = budget.covers !== 'balanceSheet';
  const own = new Set(states.map((s) => s.change.seq));
  const bySeq = new Map(history?.journal.map((c) => [c.seq, c]));
  const list: { readonly change: Change; readonly budget: Budget | null }[] = [
    ...states,
    ...[...figures.values()]
      .filter((f) => !own.has(f.change.seq))
      .map((f) => ({ change: f.change, budget: null })),
  ].sort((a, b) => b.change.seq - a.change.seq);

  const takeUp = (state: Budget, change: Change) => {
    const fresh = `b${ground.book.nextId}`;
    const refusal = dispatch({
      type: 'addBudget',
      budget: {
        ...state,
        id: fresh,
        name: cutText(`${budget.name}, as of ${timeText(change.at)}`, LIMITS.budgetName),
        state: 'draft',
        approved: null,
      },
    });
    if (refusal) return;
    setSession({ budgetId: fresh, budgetView: 'sheet' });
    say('The earlier state is a draft of its own now; nothing else has changed.');
  };

  if (list.length === 0)
    return (
      <p className="faded" style={{ padding: 18 }}>
        Nothing has changed since this budget was made.
      </p>
    );
  return (
    <div className={classes.page}>
      {hasResult && made.length > 0 && (
        <p className="faded">
          Net profit by the budget’s own lines, drivers and schedules: what is never paid and the credit
          line’s interest follow from money ahead, and are in the worksheet’s.
        </p>
      )}
      <table className={classes.table}>
        <thead>
          <tr>
            <th>When</th>
            <th data-kind="text">Who</th>
            <th data-kind="text">What</th>
            <th data-kind="text">Where</th>
            {hasResult && (
              <>
                <th>Net profit before</th>
                <th>after</th>
              </>
            )}
            <th />
          </tr>
        </thead>
        <tbody>
          {list.slice(0, SHOWN).map(({ change, budget: state }) => {
            const f = figures.get(change.seq);
            return (
              <tr key={change.seq}>
                <td>{timeText(change.at)}</td>
                <td data-kind="text">{change.by ?? ''}</td>
                <td data-kind="text">
                  {changeWords(change)}
                  {'of' in change && bySeq.has(change.of)
                    ? `: ${changeWords(bySeq.get(change.of)!).toLowerCase()}`
                    : ''}
                  {'why' in change && change.why ? <span className="faded"> “{change.why}”</span> : null}
                </td>
                <td data-kind="text">
                  {placesOf('of' in change ? (bySeq.get(change.of) ?? change) : change, false)}
                </td>
                {hasResult && (
                  <>
                    <td>{f ? money.text(f.before) : ''}</td>
                    <td>{f ? money.text(f.after) : ''}</td>
                  </>
                )}
                <td>
                  {state && !readOnly && (
                    <Button onClick={() => takeUp(state, change)}>New draft from here</Button>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {list.length > SHOWN && (
        <p className="faded">The latest {SHOWN} changes; the book file holds all of them.</p>
      )}
    </div>
  );
}
