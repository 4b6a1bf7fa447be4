'use client';

import { useMemo, useState, type ReactNode } from 'react';
import { Button } from '@mantine/core';
import type { Budget, Change, Driver, LineRef } from '@/core/model';
import { scaledText } from '@/components/readScaled';
import { useBookStore } from '@/store/bookStore';
import { changeWords } from '@/store/changeWords';
import type { Ground } from '@/core/ground';
import { timeText, moneyFormat } from '@/store/format';
import { driverChanges, figureChanges } from '@/store/history';
import { useReckoned } from '../rows/useReckoned';
import classes from '../Budget.module.css';

const SHOWN = 40;
/** Months of one change that are named before the rest is only counted. */
const MONTHS = 3;

/** A button that unfolds a history; what is in it is only reckoned once it is asked for. */
function Unfolding({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  const [shown, setShown] = useState(false);
  return (
    <section aria-label="History">
      <Button onClick={() => setShown(!shown)} aria-expanded={shown}>
        {shown ? 'Hide the history' : title}
      </Button>
      {shown && children}
    </section>
  );
}

/** Changes, latest first, each with what it was, by whom and when, and what it moved. */
function Changes({
  list,
}: {
  readonly list: readonly { readonly change: Change; readonly moved: readonly string[] }[];
}) {
  if (list.length === 0) return <p className={classes.hint}>Nothing has changed it since it was made.</p>;
  return (
    <ol className={classes.history}>
      {list.slice(0, SHOWN).map(({ change, moved }) => (
        <li key={change.seq}>
          <span>
            {changeWords(change)}
            <span className="faded"> {[change.by, timeText(change.at)].filter(Boolean).join(', ')}</span>
          </span>
          {moved.map((text) => (
            <span key={text} className={classes.figure}>
              {text}
            </span>
          ))}
        </li>
      ))}
      {list.length > SHOWN && <li className="faded">and {list.length - SHOWN} earlier changes</li>}
    </ol>
  );
}

const arrow = <T,>(before: T | null, after: T | null, text: (value: T) => string): string =>
  [before, after].map((v) => (v === null ? 'blank' : text(v))).join(' → ');

type OfCell = {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly line: LineRef;
  readonly month: number | null;
};

/** Every change that made a month (or a line's total) what it is, with the amounts before and after. */
export function CellHistory(props: OfCell) {
  return (
    <Unfolding title={props.month === null ? 'History of the line' : 'History of this month'}>
      <OfCell {...props} />
    </Unfolding>
  );
}

function OfCell({ ground, budget, line, month }: OfCell) {
  const history = useBookStore((s) => s.history);
  const blocks = useBookStore((s) => s.blocks);
  const { account, segment } = line;
  const { whole } = useReckoned(ground, budget);
  const changes = useMemo(
    () =>
      history ? figureChanges(history, blocks, { budget: budget.id, line: { account, segment }, month }) : [],
    [history, blocks, budget.id, account, segment, month],
  );
  const money = moneyFormat(ground.book);
  const list = changes.map(({ change, before, after }) => ({
    change,
    moved: [arrow(before, after, (v) => money.exact(v))],
  }));
  return (
    <>
      {whole.made.some((m) => m.account === account && m.segment === segment) && (
        <p className={classes.hint}>What money ahead makes of it today is not among its changes.</p>
      )}
      <Changes list={list} />
    </>
  );
}

type OfDriver = { readonly ground: Ground; readonly budget: Budget; readonly driver: Driver };

/** Every change that moved months of a driver, with the months and their values before and after. */
export function DriverHistory(props: OfDriver) {
  return (
    <Unfolding title="History of the driver">
      <OfDriver {...props} />
    </Unfolding>
  );
}

function OfDriver({ ground, budget, driver }: OfDriver) {
  const history = useBookStore((s) => s.history);
  const blocks = useBookStore((s) => s.blocks);
  const { periods } = useReckoned(ground, budget).whole.facts;
  const changes = useMemo(
    () => (history ? driverChanges(history, blocks, { budget: budget.id, driver: driver.id }) : []),
    [history, blocks, budget.id, driver.id],
  );
  const { locale } = ground.book;
  const list = changes.map(({ change, months }) => ({
    change,
    moved: [
      ...months
        .slice(0, MONTHS)
        .map(
          (m) =>
            `${periods[m.month]?.label ?? `month ${m.month + 1}`}: ${arrow(m.before, m.after, (q) => scaledText(q.value, q.decimals, locale))}`,
        ),
      ...(months.length > MONTHS ? [`and ${months.length - MONTHS} more months`] : []),
    ],
  }));
  return <Changes list={list} />;
}

type OfRow = { readonly budget: Budget; readonly row: string };

/** Every change that was about a row of a schedule. */
export function RowHistory(props: OfRow) {
  return (
    <Unfolding title="History of the row">
      <OfRow {...props} />
    </Unfolding>
  );
}

function OfRow({ budget, row }: OfRow) {
  const history = useBookStore((s) => s.history);
  const list = useMemo(
    () =>
      (history?.journal ?? [])
        .filter(
          (c) =>
            'about' in c &&
            c.about?.places.some((p) => p.of === 'schedule' && p.id === row && p.budget?.id === budget.id),
        )
        .reverse(),
    [history, row, budget.id],
  );
  return <Changes list={list.map((change) => ({ change, moved: [] }))} />;
}
