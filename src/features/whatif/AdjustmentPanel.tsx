'use client';

import { useEffect, useMemo, useState } from 'react';
import { Button, Group, TextInput } from '@mantine/core';
import type { PeriodRange } from '@/core/calendar';
import { aheadOf, budgetOn, groundAssuming, lastKnown, reckoned, type Ground } from '@/core/ground';
import { RUNS, type Adjustment, type Budget } from '@/core/model';
import { minor } from '@/core/money';
import { leftOutOf, type LeftOut, type Unreached } from '@/core/plan';
import { unitOfSize } from '@/core/scenario';
import { missesOf, spreadFrom, type OutcomeId, type Outcomes } from '@/core/whatif';
import stage from '@/components/Stage.module.css';
import { dispatch } from '@/store/bookStore';
import {
  adjustsWords,
  decimalsOf,
  movedOn,
  namesWhatIs,
  OUTCOME_WORDS,
  readSize,
  sizeDraft,
  sizeIn,
  sizeText,
  whenWords,
} from '@/store/caseWords';
import { dayText, moneyFormat } from '@/store/format';
import { steadyGround } from '@/store/questions';
import { whenIdle } from '@/store/whenIdle';
import { besidePlan, type Taken } from './CaseMatrix';
import { TakesPart } from './TakesPart';
import { outcomesOn, type CaseLook } from './useCases';

const TOLD: readonly OutcomeId[] = ['netProfit', 'lowBank', 'closingBank'];

const WHY_NOT: Readonly<Record<Unreached['because'], string>> = {
  noLine: 'No line of the plan is what it names.',
  bySchedule: 'A schedule makes the line that it names: adjust the schedule’s rows.',
  severalLines: 'It says an amount, and several lines are what it names: nobody could tell whose it is.',
  noDriver: 'The plan has no such driver.',
};

/** Beside the matrix: what the adjustment at hand does by itself, how low and high it may come, and where it comes from. */
export function AdjustmentPanel({
  ground,
  looked,
  range,
  base,
  adjustment,
  one,
  open,
  readOnly,
  taken,
  onSize,
  onChange,
  onTakeAway,
}: {
  readonly ground: Ground;
  readonly looked: Budget | null;
  readonly range: PeriodRange;
  readonly base: Outcomes | null;
  readonly adjustment: Adjustment | null;
  readonly one: CaseLook | null;
  readonly open: boolean;
  readonly readOnly: boolean;
  /** As it is in the plan, where it was taken into it. */
  readonly taken: Taken | null;
  readonly onSize: (size: number) => void;
  readonly onChange: () => void;
  readonly onTakeAway: () => void;
}) {
  const { book, calendar } = ground;
  if (!adjustment)
    return (
      <aside className={stage.panel} data-open={open || undefined} aria-label="The adjustment at hand">
        <h2>What it does</h2>
        <p className="faded">
          Go to an adjustment, or to its size in a case: here stands what it does by itself, and why it was
          assumed.
        </p>
      </aside>
    );
  const size = one ? sizeIn(one.case, adjustment.id) : null;
  const over = movedOn(calendar, adjustment, lastKnown(ground));
  const used = book.cases.filter((c) => sizeIn(c, adjustment.id) !== null).map((c) => c.name);
  const at = book.adjustments.findIndex((a) => a.id === adjustment.id);
  const move = (before: string | null) =>
    dispatch({ type: 'moveAdjustment', adjustment: adjustment.id, before });
  return (
    <aside className={stage.panel} data-open={open || undefined} aria-label="The adjustment at hand">
      <h2>{adjustment.name}</h2>
      <div className="faded">
        {[one?.case.name, adjustsWords(adjustment.what, book)].filter(Boolean).join(' · ')}
      </div>
      <div className="faded">{whenWords(calendar, adjustment)}</div>
      {!namesWhatIs(adjustment.what, book) && (
        <p className={stage.odd}>What it names is no longer in the book: it does nothing.</p>
      )}
      {taken && (
        <p>
          It is in {taken.budget.name},{' '}
          {sizeText(taken.adjustment.what, taken.size, book, decimalsOf(book, taken.adjustment.what))}: there
          no case has it a second time.{' '}
          {!readOnly && taken.budget.state === 'draft' && RUNS.has(taken.adjustment.what.on) && (
            <Button
              size="compact-xs"
              onClick={() =>
                dispatch({
                  type: 'takeOutAdjustments',
                  budget: taken.budget.id,
                  adjustments: [adjustment.id],
                })
              }
            >
              Take it out
            </Button>
          )}
        </p>
      )}
      {over && (
        <p className={stage.odd}>
          Its months are closed, and no case changes what is closed: it does nothing any more.{' '}
          {!readOnly && (
            <Button
              size="compact-xs"
              onClick={() => dispatch({ type: 'setAdjustment', adjustment: { ...adjustment, when: over } })}
            >
              Move it to the first open month
            </Button>
          )}
        </p>
      )}
      {one && size !== null && (
        <>
          <Alone
            key={`${size} ${adjustment.off}`}
            ground={ground}
            looked={looked}
            range={range}
            base={base}
            adjustment={adjustment}
            size={size}
          />
          <Spread ground={ground} adjustment={adjustment} one={one} readOnly={readOnly} />
        </>
      )}
      {one && unitOfSize(adjustment.what) !== 'yes' && (
        <TakesPart
          ground={ground}
          looked={looked}
          range={range}
          adjustment={adjustment}
          one={one}
          readOnly={readOnly}
          onSize={onSize}
        />
      )}
      {one && size === null && <p className="faded">Off in {one.case.name}: it has no size there.</p>}
      <section>
        <div className="label">Where it comes from</div>
        <p style={{ margin: '4px 0' }}>
          {[adjustment.by || 'Somebody', dayText(adjustment.at, book.locale)].join(', ')}
          {adjustment.why === '' ? '.' : `. “${adjustment.why}”`}{' '}
          {used.length === 0 ? 'In no case.' : `In ${used.join(', ')}.`}
          {adjustment.off && ' Switched off everywhere.'}
        </p>
      </section>
      {!readOnly && (
        <Group gap={8} pt={10}>
          <Button onClick={onChange}>Change…</Button>
          <Button
            onClick={() =>
              dispatch({ type: 'setAdjustment', adjustment: { ...adjustment, off: !adjustment.off } })
            }
          >
            {adjustment.off ? 'Switch on' : 'Switch off'}
          </Button>
          <Button disabled={at <= 0} onClick={() => move(book.adjustments[at - 1]!.id)}>
            Up
          </Button>
          <Button
            disabled={at < 0 || at >= book.adjustments.length - 1}
            onClick={() => move(book.adjustments[at + 2]?.id ?? null)}
          >
            Down
          </Button>
          <Button onClick={onTakeAway}>Take away</Button>
        </Group>
      )}
    </aside>
  );
}

/** What the adjustment moves when it is the only one, reckoned when the page is idle. */
function Alone({
  ground,
  looked,
  range,
  base,
  adjustment,
  size,
}: {
  readonly ground: Ground;
  readonly looked: Budget | null;
  readonly range: PeriodRange;
  readonly base: Outcomes | null;
  readonly adjustment: Adjustment;
  readonly size: number;
}) {
  const money = moneyFormat(ground.book);
  const { first, last } = range;
  const still = steadyGround(ground);
  const own = useMemo(
    () => groundAssuming(still, 'alone', [{ adjustment: { ...adjustment, off: false }, size }]),
    [still, adjustment, size],
  );
  const [made, setMade] = useState<{
    readonly of: Ground;
    readonly outcomes: Outcomes | null;
    readonly unreached: readonly Unreached[];
    readonly left: readonly LeftOut[];
  } | null>(null);
  useEffect(
    () =>
      whenIdle(
        [
          () => {
            const outcomes = outcomesOn(own, looked, { first, last });
            const plans = aheadOf(own, budgetOn(own, looked))?.view.plans;
            const unreached = (plans ?? []).flatMap((p) => reckoned(own, p.budget).reckoning.unreached);
            setMade({
              of: own,
              outcomes,
              unreached: unreached.filter((u) => u.adjustment === adjustment.id),
              left: (plans ?? []).flatMap(({ budget }) => {
                const [before, after] = [own.inCase?.base ?? own, own].map((g) =>
                  reckoned(g, budgetOn(g, budget)!),
                );
                return leftOutOf(adjustment.id, before!.reckoning, after!.reckoning, after!.facts);
              }),
            });
          },
        ],
        REST_MS,
      ),
    [own, looked, first, last, adjustment.id],
  );
  const told = made?.of === own ? made.outcomes : undefined;
  return (
    <section aria-label="What it does alone">
      <div className="label">What it does alone</div>
      {TOLD.map((id) => {
        const [now, plan] = [told?.of[id] ?? null, base?.of[id] ?? null];
        const side = besidePlan(id, now, plan);
        return (
          <div key={id} className={stage.pair}>
            <span>{OUTCOME_WORDS[id]}</span>
            <span style={side === null ? {} : { color: side === 'F' ? 'var(--good)' : 'var(--bad)' }}>
              {told === undefined
                ? '…'
                : now && plan
                  ? `${money.signed(minor(now.amount - plan.amount))}${side ? ` ${side}` : ''}`
                  : ''}
            </span>
          </div>
        );
      })}
      {made?.of === own && made.left.length > 0 && (
        <p className={stage.odd}>
          Left out, since nothing is planned where it would come to:{' '}
          {made.left
            .slice(0, MOST_LEFT)
            .map(
              (l) =>
                `${ground.book.accounts.find((a) => a.id === l.account)?.name ?? ''}, ${ground.calendar.period(l.period).label}: ${money.text(l.amount)}`,
            )
            .join('; ')}
          {made.left.length > MOST_LEFT && ` and ${made.left.length - MOST_LEFT} more`}.
        </p>
      )}
      {made?.of === own &&
        [...new Set(made.unreached.map((u) => u.because))].map((because) => (
          <p key={because} className={stage.odd}>
            {WHY_NOT[because]}
          </p>
        ))}
    </section>
  );
}
const REST_MS = 60;
const MOST_LEFT = 6;

/** The size here, and how low and how high it may come to be. */
function Spread({
  ground,
  adjustment,
  one,
  readOnly,
}: {
  readonly ground: Ground;
  readonly adjustment: Adjustment;
  readonly one: CaseLook;
  readonly readOnly: boolean;
}) {
  const { book } = ground;
  const cell = one.case.sizes[adjustment.id]!;
  const misses = useMemo(() => missesOf(steadyGround(ground), adjustment.what), [ground, adjustment.what]);
  const offered = spreadFrom(misses, cell.size);
  const decimals = decimalsOf(book, adjustment.what);
  const put = (change: Partial<typeof cell>) =>
    dispatch({
      type: 'setSizes',
      cells: [{ case: one.case.id, adjustment: adjustment.id, size: { ...cell, ...change } }],
    });
  return (
    <section aria-label="Size">
      <div className="label">Size</div>
      <div className={stage.pair}>
        <span>In {one.case.name}</span>
        <b>{sizeText(adjustment.what, cell.size, book, decimals)}</b>
      </div>
      {(['low', 'high'] as const).map((end) => (
        <SizeInput
          key={`${end} ${cell[end]}`}
          label={end === 'low' ? 'It may be as low as' : 'and as high as'}
          value={cell[end]}
          adjustment={adjustment}
          book={book}
          readOnly={readOnly}
          // Beyond the size itself it would turn around.
          fits={(size) =>
            end === 'low'
              ? size <= cell.size || 'Above the size itself'
              : size >= cell.size || 'Below the size itself'
          }
          onSize={(size) => put({ [end]: size })}
        />
      ))}
      {offered && (offered.low !== cell.low || offered.high !== cell.high) && (
        <p className="faded" style={{ margin: '6px 0 0' }}>
          Its lines came out{' '}
          {misses
            .map((m) => `${sizeText(adjustment.what, m.size, book)} of ${m.budget} (${m.months} months)`)
            .join(', ')}
          .{' '}
          {!readOnly && (
            <Button size="compact-xs" onClick={() => put(offered)}>
              Take {sizeText(adjustment.what, offered.low, book)} to{' '}
              {sizeText(adjustment.what, offered.high, book)}
            </Button>
          )}
        </p>
      )}
    </section>
  );
}

function SizeInput({
  label,
  value,
  adjustment,
  book,
  readOnly,
  fits,
  onSize,
}: {
  readonly label: string;
  readonly value: number | null;
  readonly adjustment: Adjustment;
  readonly book: Ground['book'];
  readonly readOnly: boolean;
  readonly fits: (size: number) => true | string;
  readonly onSize: (size: number | null) => void;
}) {
  const decimals = decimalsOf(book, adjustment.what);
  const shown = value === null ? '' : sizeDraft(adjustment.what, value, book, decimals);
  const [text, setText] = useState(shown);
  const read = readSize(adjustment.what, text, book, decimals);
  const fault = !read.ok ? read.why : read.size === null ? true : fits(read.size);
  const take = () => {
    if (read.ok && fault === true && read.size !== value) onSize(read.size);
  };
  return (
    <TextInput
      label={label}
      size="xs"
      mt={6}
      disabled={readOnly}
      value={text}
      error={fault === true ? undefined : fault}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={take}
      onKeyDown={(e) => {
        if (e.key === 'Enter') take();
      }}
    />
  );
}
