'use client';

import { useState } from 'react';
import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { percent, type Percent } from '@/core/money';
import { fiscalYearLabel, fiscalYearsLabel, yearRange, yearsBefore, type PeriodIndex } from '@/core/calendar';
import {
  LIMITS,
  isProfitAndLoss,
  segmentName,
  type AccountKind,
  type Budget,
  type Rest,
  type RoundUnit,
  type SegmentId,
} from '@/core/model';
import {
  coversPeriod,
  draftBudget,
  monthsMissing,
  type RowLeft,
  type StartChoice,
  type StartFrom,
} from '@/core/plan';
import { ROW_NAMES, rowName, type SectionKind } from '@/core/report';
import { NumberInput, PercentInput } from '@/components/MoneyInput';
import { dispatch } from '@/store/bookStore';
import { aside, createMemory, reckoned, termsFrom, type Ground } from '@/core/ground';
import { useOpenGround } from '@/store/openGround';
import { moneyFormat } from '@/store/format';
import { type BudgetView } from '@/store/session';
import { toggleIn } from '../sheet/setup';
import { coversYearBefore, yearsTo } from '@/core/ground';
import { startPreview, type StartPreview } from './startPreview';
import { START_WORDS } from '../words';
import classes from '../Budget.module.css';

const FROMS = Object.keys(START_WORDS) as StartFrom[];
const BESIDE: Record<StartPreview['beside'], string> = {
  lastYear: 'a year before',
  outlook: 'the outlook',
  otherBudget: 'that budget',
};
const LENGTHS = [3, 6, 12, 18, 24, 36];

const countOf = (n: number, one: string, many = `${one}s`): string | false =>
  n > 0 && `${n} ${n === 1 ? one : many}`;

/** What a budget brings into one that starts from it, beside its months. */
function bringsWords(
  name: string,
  {
    schedules,
    drivers,
    follow,
  }: {
    readonly schedules: readonly unknown[];
    readonly drivers: readonly unknown[];
    readonly follow: number;
  },
  terms: number,
): string {
  const all = [
    countOf(schedules.length, 'row of schedules', 'rows of schedules'),
    countOf(drivers.length, 'driver'),
    countOf(follow, 'line that follows them', 'lines that follow them'),
    countOf(terms, 'line’s terms', 'lines’ terms'),
  ].filter((w): w is string => w !== false);
  return all.length === 0
    ? `Beside its months, ${name} brings nothing.`
    : `Beside its months, ${name} brings ${all.join(', ')}.`;
}

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

/** Starting a budget from the ledger or another budget, with its results live beside the choices. */
export function StartBudget({
  onDone,
  canCancel,
}: {
  readonly onDone: (started: string | null, view: BudgetView) => void;
  readonly canCancel: boolean;
}) {
  const ground = useOpenGround();
  const { book, calendar } = ground;
  const [memory] = useState(createMemory);
  const [first, setFirst] = useState<PeriodIndex>(() => yearRange(calendar, likelyYear(ground)).first);
  const [length, setLength] = useState<number | null>(null);
  const [name, setName] = useState<string | null>(null);
  const [covers, setCovers] = useState<Budget['covers']>('profitAndLoss');
  const [axisId, setAxis] = useState<string | null>(null);
  const [left, setLeft] = useState<readonly SegmentId[]>([]);
  const [chosenFrom, setFrom] = useState<StartFrom | null>(null);
  const [otherId, setOther] = useState<string | null>(null);
  const [uplift, setUplift] = useState<Percent>(percent('0'));
  const [byKind, setByKind] = useState<Partial<Record<AccountKind, Percent>>>({});
  const [chosenRest, setRest] = useState<Rest | 'blank' | null>(null);
  const [round, setRound] = useState<RoundUnit>(0);
  const [withRows, setWithRows] = useState(true);
  const [saidDrivers, setWithDrivers] = useState<boolean | null>(null);
  const money = moneyFormat(book);

  const start = calendar.period(first);
  const months = length ?? calendar.periodsIn(start.year) - start.number + 1;
  const last = calendar.period(first + months - 1);
  const axis = book.axes.find((a) => a.id === axisId) ?? null;
  const all: SegmentId[] = axis ? [...axis.values.map((v) => v.id), null] : [null];
  const kept = all.filter((s) => axis === null || !left.includes(s));
  const segments = kept.length > 0 ? kept : all;
  const years = fiscalYearsLabel([start, last]);
  const suggested = `${years}${months === calendar.periodsIn(start.year) || years.includes('–') ? '' : ` ${start.short}–${last.short}`} budget`;
  const shownName = name ?? suggested;

  const empty = draftBudget({
    id: 'preview',
    name: '',
    first: start.id,
    length: months,
    covers,
    axis: axisId,
    segments: [...segments],
    lines: [],
  });
  const { facts } = reckoned(aside(ground, memory), empty);
  const { window } = facts;
  const anyLastYear = book.accounts.some((a) =>
    facts.past(a.id, segments[0]).lastYear.some((v) => v !== null),
  );
  // A business with only this year's months has no last year to take over: its own months are the best there is.
  // While last year is not over, its outlook says more than the months so far.
  const running = book.budgets.findLast(
    (b) => b.state !== 'superseded' && coversYearBefore(calendar, b, first),
  );
  const unfinished = anyLastYear && window.length < calendar.periodsIn(start.year - 1);
  const from =
    chosenFrom ??
    (unfinished && running?.axis === axisId
      ? 'outlook'
      : anyLastYear || window.length === 0
        ? 'sameMonth'
        : 'average');
  const needsOther = from === 'outlook' || from === 'otherBudget';
  const other =
    book.budgets.find((b) => b.id === otherId) ??
    running ??
    book.budgets.findLast((b) => b.state === 'approved') ??
    book.budgets.at(-1) ??
    null;
  // What a start leaves open: months of the year before that have no actuals, nor a budget that plans them.
  const missing = monthsMissing(facts).filter(
    (p) => from !== 'outlook' || !other || !coversPeriod(calendar, other, p),
  );
  const asks = missing.length > 0 && RESTS.has(from);
  const anyEarlier = missing.some((p) => {
    const earlier = yearsBefore(calendar, p);
    return earlier !== null && facts.isActual(earlier);
  });
  const rest =
    !asks || chosenRest === 'blank' ? null : (chosenRest ?? (anyEarlier ? 'yearEarlier' : 'average'));
  const choice: StartChoice = {
    rest,
    from,
    other:
      needsOther && other
        ? {
            budget: other.id,
            years: yearsTo(calendar, first, other),
            covers: other.covers,
          }
        : null,
    uplift,
    upliftByKind: byKind,
    round,
  };
  // Rows of the budget that it starts from come along, unless someone says no: without them their lines are but amounts.
  const carried =
    choice.other && covers !== 'balanceSheet' && withRows && other!.schedules.length > 0 ? other : null;
  // Of the outlook its actuals are the news, of another budget the way it was planned.
  const withDrivers = saidDrivers ?? from === 'otherBudget';
  const hasDrivers = choice.other !== null && other!.drivers.length > 0 && other!.axis === axisId;
  const driven = hasDrivers && withDrivers ? other : null;
  const preview = startPreview(ground, empty, choice, memory, carried, driven);
  const terms = termsFrom(book, choice.other ? other : null, empty.segments);
  const kinds = [...new Set(book.accounts.map((a) => a.kind))].filter(isProfitAndLoss);

  const make = (view: BudgetView) => {
    const id = `b${book.nextId}`;
    const refusal = dispatch({
      type: 'addBudget',
      // How money goes was said of the budget that it starts from, or of the last one: it begins with that.
      budget: {
        ...empty,
        id,
        name: shownName.trim() || suggested,
        lines: [...preview.lines],
        drivers: [...preview.drivers],
        schedules: [...preview.schedules],
        contras: carried?.contras ?? {},
        terms: [...terms],
      },
    });
    if (refusal) return;
    onDone(id, view);
  };
  // From the year that runs on, whichever is planned already: it may want another budget.
  const runs = ground.closedThrough ?? ground.balances.range?.last ?? first;
  const earliest = Math.min(start.year - 1, calendar.period(runs).year);
  const firsts = Array.from({ length: 60 }, (_, i) =>
    calendar.period(yearRange(calendar, earliest).first + i),
  );

  return (
    <div className={classes.start}>
      <div className={classes.startGrid}>
        <form
          onSubmit={(e) => {
            e.preventDefault();
            make('sheet');
          }}
        >
          <h1 className="title">Start a budget</h1>
          <p className="faded" style={{ margin: '0 0 12px' }}>
            {window.length > 0
              ? `From the ledger, ${window[0]!.label} to ${window.at(-1)!.label} (${window.length} months).`
              : 'The ledger has no months to start from: lines begin blank.'}
          </p>
          <div className={classes.row} style={{ marginTop: 0, marginBottom: 10 }}>
            <TextInput
              label="Name"
              value={shownName}
              maxLength={LIMITS.budgetName}
              onChange={(e) => setName(e.currentTarget.value)}
            />
            <NativeSelect
              label="First month"
              value={String(first)}
              onChange={(e) => setFirst(Number(e.currentTarget.value))}
              data={firsts.map((p) => ({
                value: String(p.index),
                label: p.number === 1 ? `${p.label} (${fiscalYearLabel(p.year)})` : p.label,
              }))}
            />
            <NativeSelect
              label="How long"
              value={length === null ? 'year' : LENGTHS.includes(length) ? String(length) : 'other'}
              onChange={(e) => {
                const v = e.currentTarget.value;
                setLength(v === 'year' ? null : v === 'other' ? 9 : Number(v));
              }}
              data={[
                { value: 'year', label: 'to the end of the fiscal year' },
                ...LENGTHS.map((n) => ({ value: String(n), label: `${n} months` })),
                { value: 'other', label: 'another length' },
              ]}
            />
            {length !== null && !LENGTHS.includes(length) && (
              <NumberInput label="Months" w={80} value={length} least={1} most={120} onCommit={setLength} />
            )}
          </div>
          <div className={classes.row} style={{ marginTop: 0, marginBottom: 10 }}>
            <NativeSelect
              label="It plans"
              value={covers}
              onChange={(e) => setCovers(e.currentTarget.value as Budget['covers'])}
              data={[
                { value: 'profitAndLoss', label: 'profit and loss' },
                { value: 'balanceSheet', label: 'the balance sheet' },
                { value: 'both', label: 'both' },
              ]}
            />
            {book.axes.length > 0 && (
              <NativeSelect
                label="For"
                value={axisId ?? ''}
                onChange={(e) => {
                  setAxis(e.currentTarget.value || null);
                  setLeft([]);
                }}
                data={[
                  { value: '', label: 'the whole company' },
                  ...book.axes.map((a) => ({ value: a.id, label: `each ${a.name.toLowerCase()}` })),
                ]}
              />
            )}
          </div>
          {axis && (
            <div className={classes.row} role="group" aria-label={axis.name} style={{ margin: '0 0 10px' }}>
              {all.map((s) => (
                <Checkbox
                  key={s ?? ''}
                  size="xs"
                  label={segmentName(axis, s)}
                  checked={!left.includes(s)}
                  onChange={() => setLeft(toggleIn(left, s))}
                />
              ))}
            </div>
          )}
          <div role="radiogroup" aria-label="Start from">
            {FROMS.filter((f) => book.budgets.length > 0 || (f !== 'outlook' && f !== 'otherBudget')).map(
              (f) => (
                <label key={f} className={classes.choice}>
                  <input
                    type="radio"
                    name="from"
                    value={f}
                    checked={from === f}
                    onChange={() => setFrom(f)}
                  />
                  <b>{START_WORDS[f].name}</b>
                  <span className="faded">{START_WORDS[f].hint}</span>
                </label>
              ),
            )}
          </div>
          {asks && (
            <div className={classes.row}>
              <NativeSelect
                label={`${monthList(missing.map((p) => calendar.period(p).label))} ${missing.length === 1 ? 'has' : 'have'} no actuals yet`}
                w={330}
                value={rest ?? 'blank'}
                onChange={(e) => setRest(e.currentTarget.value as Rest | 'blank')}
                data={[
                  { value: 'yearEarlier', label: 'as the same month of the year before' },
                  { value: 'average', label: 'as the average month' },
                  { value: 'blank', label: 'left blank, to be typed' },
                ]}
              />
            </div>
          )}
          {choice.other && covers !== 'balanceSheet' && other!.schedules.length > 0 && (
            <div style={{ margin: '8px 0' }}>
              <Checkbox
                size="xs"
                label={`Its schedules come along (${other!.schedules.length} ${other!.schedules.length === 1 ? 'row' : 'rows'}: staff, loans, assets …)`}
                checked={withRows}
                onChange={(e) => setWithRows(e.currentTarget.checked)}
              />
              {!withRows && (
                <p className={classes.hint}>
                  The lines that they make follow that budget’s months as plain amounts; no position, loan or
                  asset is in the new one.
                </p>
              )}
              {preview.left.length > 0 && (
                <p className={classes.hint}>
                  {preview.schedules.length} come along.{' '}
                  {LEFT.flatMap(([because, words]) => {
                    const names = preview.left.filter((l) => l.because === because).map((l) => l.name);
                    return names.length > 0
                      ? [
                          `${words}: ${names.slice(0, 6).join(', ')}${names.length > 6 ? ` and ${names.length - 6} more` : ''}.`,
                        ]
                      : [];
                  }).join(' ')}
                </p>
              )}
            </div>
          )}
          {hasDrivers && (
            <Checkbox
              size="xs"
              my={8}
              label={`Its drivers come along (${other!.drivers.length}), and lines that follow them go on to`}
              checked={withDrivers}
              onChange={(e) => setWithDrivers(e.currentTarget.checked)}
            />
          )}
          {choice.other && (
            <p className={classes.hint} role="note" aria-label="What it brings">
              {bringsWords(other!.name, preview, terms.length)}
            </p>
          )}
          {from !== 'empty' && (
            <div className={classes.row}>
              {needsOther && other && (
                <NativeSelect
                  label="Which budget"
                  value={other.id}
                  onChange={(e) => setOther(e.currentTarget.value)}
                  data={book.budgets.map((b) => ({ value: b.id, label: b.name }))}
                />
              )}
              <PercentInput label="Uplift for all" w={110} value={uplift} onCommit={setUplift} />
              {covers !== 'balanceSheet' &&
                kinds.map((k) => (
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
                  { value: '1000', label: '1,000' },
                ]}
              />
            </div>
          )}
          <div className={classes.row} style={{ marginTop: 22 }}>
            <Button type="submit" variant="filled" size="sm">
              Start the budget
            </Button>
            {covers !== 'balanceSheet' && segments.length === 1 && (
              <Button size="sm" onClick={() => make('firstPass')}>
                Start, and go down a first pass
              </Button>
            )}
            {covers !== 'balanceSheet' && (
              <Button
                size="sm"
                title="A budget made elsewhere stands beside this one before it goes in"
                onClick={() => make('handouts')}
              >
                Start, and take in a table
              </Button>
            )}
            {canCancel && (
              <Button size="sm" onClick={() => onDone(null, 'sheet')}>
                Back to the worksheet
              </Button>
            )}
          </div>
        </form>
        <Live
          preview={preview}
          money={money}
          title={`${start.label} to ${last.label}, as it would be`}
          beside={BESIDE[preview.beside]}
          months={months}
        />
      </div>
    </div>
  );
}

/** Why rows stay behind. */
const LEFT: readonly (readonly [RowLeft['because'], string])[] = [
  ['over', 'Over before it begins'],
  ['segment', 'Of a part of the business that it does not plan'],
  ['driver', 'By hours of a driver, which belongs to that budget'],
];

/** Starts that follow month by month, and so must say what stands in for months that are not there. */
const RESTS: ReadonlySet<StartFrom> = new Set(['sameMonth', 'yearOverTwelve', 'outlook']);

/** "Feb 2026, Mar 2026", or from the first to the last of many. */
const monthList = (labels: readonly string[]): string =>
  labels.length > 3 ? `${labels[0]!} to ${labels.at(-1)!}` : labels.join(', ');

/** The results as they would be, beside what they start from. */
function Live({
  preview: { rows, known },
  money,
  title,
  beside,
  months,
}: {
  readonly preview: StartPreview;
  readonly money: ReturnType<typeof moneyFormat>;
  readonly title: string;
  readonly beside: string;
  readonly months: number;
}) {
  const part = known < months;
  return (
    <aside className={classes.live} aria-live="polite" aria-label="The year as it would be">
      <div className="label" style={{ marginBottom: 6 }}>
        {title}
      </div>
      <table>
        <thead>
          <tr>
            <th />
            <th>{beside}</th>
            <th>budget</th>
            <th>Change</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ row, before, plan, change }) =>
            row.kind === 'subtotal' || row.kind === 'result' ? (
              <tr key={rowName(row).key} data-result={row.kind === 'result' ? row.result : undefined}>
                <td>{rowName(row).label}</td>
                <td>{money.text(before)}</td>
                <td className={classes.plan}>{money.text(plan)}</td>
                <td>{money.signed(change)}</td>
              </tr>
            ) : null,
          )}
        </tbody>
      </table>
      {part && (
        <p className={classes.hint} style={{ marginTop: 8 }}>
          {known} of the {months} months a year before are there; the change compares those alone.
        </p>
      )}
    </aside>
  );
}
