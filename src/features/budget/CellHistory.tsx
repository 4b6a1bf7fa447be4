'use client';

import { useMemo, useState } from 'react';
import { Button } from '@mantine/core';
import type { Budget, LineRef } from '@/core/model';
import { useBookStore } from '@/store/bookStore';
import { changeWords } from '@/store/changeWords';
import type { Ground } from '@/store/derived';
import { timeText, moneyFormat } from '@/store/format';
import { figureChanges } from '@/store/history';
import classes from './Budget.module.css';

const SHOWN = 40;

/** Every change that made a month (or a line's total) what it is, with the amounts before and after. */
export function CellHistory({
  ground,
  budget,
  line,
  month,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly line: LineRef;
  readonly month: number | null;
}) {
  const [shown, setShown] = useState(false);
  return (
    <section aria-label="History">
      <Button onClick={() => setShown(!shown)} aria-expanded={shown}>
        {shown ? 'Hide the history' : month === null ? 'History of the line' : 'History of this month'}
      </Button>
      {shown && <List ground={ground} budget={budget} line={line} month={month} />}
    </section>
  );
}

function List({ ground, budget, line, month }: Parameters<typeof CellHistory>[0]) {
  const history = useBookStore((s) => s.history);
  const blocks = useBookStore((s) => s.blocks);
  const { account, segment } = line;
  const changes = useMemo(
    () =>
      history ? figureChanges(history, blocks, { budget: budget.id, line: { account, segment }, month }) : [],
    [history, blocks, budget.id, account, segment, month],
  );
  const money = moneyFormat(ground.book);
  if (changes.length === 0) return <p className={classes.hint}>Nothing has changed it since it was made.</p>;
  return (
    <ol className={classes.history}>
      {changes.slice(0, SHOWN).map(({ change, before, after }) => (
        <li key={change.seq}>
          <span>
            {changeWords(change)}
            <span className="faded"> {[change.by, timeText(change.at)].filter(Boolean).join(', ')}</span>
          </span>
          <span className={classes.figure}>
            {before === null ? 'blank' : money.exact(before)} →{' '}
            {after === null ? 'blank' : money.exact(after)}
          </span>
        </li>
      ))}
      {changes.length > SHOWN && <li className="faded">and {changes.length - SHOWN} earlier changes</li>}
    </ol>
  );
}
