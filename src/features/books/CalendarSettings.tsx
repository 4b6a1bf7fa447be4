'use client';

import { LIMITS } from '@/core/model';
import { useMemo, useState } from 'react';
import { Button, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import {
  calendarFrom,
  fiscalYearLabel,
  fromDayNumber,
  MONTH_NAMES,
  parseIsoDay,
  periodFaults,
  periodsOf,
  toDayNumber,
  yearRange,
  type CalendarSpec,
  type Day,
  type HandMadePeriod,
} from '@/core/calendar';
import { dispatch } from '@/store/bookStore';
import type { Ground } from '@/core/ground';
import { say } from '@/store/session';
import { PERIOD_FAULTS } from './intakeWords';
import classes from './Books.module.css';

const MONTHS = MONTH_NAMES.map((m, i) => ({ value: String(i + 1), label: m }));
const WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'].map(
  (d, i) => ({
    value: String(i + 1),
    label: d,
  }),
);

/** The fiscal calendar: months, weeks or hand-made periods. A change re-sorts the same entries; nothing else moves. */
export function CalendarSettings({
  ground,
  readOnly,
}: {
  readonly ground: Ground;
  readonly readOnly: boolean;
}) {
  const { book, calendar, balances } = ground;
  const [draft, setDraft] = useState<CalendarSpec>(book.calendar);
  const year = balances.range ? calendar.period(balances.range.last).year : 2026;
  const [shown, setShown] = useState<number | null>(null);
  const faults = draft.kind === 'handMade' ? periodFaults(draft.periods) : [];
  const sound = faults.length === 0;
  const changed = JSON.stringify(draft) !== JSON.stringify(book.calendar);
  const choose = (kind: CalendarSpec['kind']) => {
    if (kind === 'months') setDraft({ kind, firstMonth: 1 });
    else if (kind === 'weeks')
      setDraft({ kind, pattern: '4-4-5', endMonth: 12, endWeekday: 6, ending: 'last' });
    else
      setDraft({
        kind,
        periods: periodsOf(calendar, yearRange(calendar, year)).map((p) => ({
          year: p.year,
          name: p.short,
          start: p.start,
          end: p.end,
        })),
      });
  };
  const apply = () => {
    const next = calendarFrom(draft);
    // What was closed stays closed: the period of the same last day.
    const closed = ground.closedThrough;
    const end = closed === null ? null : calendar.period(closed).end;
    const closedThrough = end === null ? null : next.period(next.indexOfDay(toDayNumber(end))).id;
    dispatch({ type: 'setCalendar', calendar: draft, closedThrough });
    say('The calendar is changed, and the entries are sorted anew. Ctrl+Z takes it back.');
  };
  return (
    <div className={classes.page}>
      <div className={classes.fields}>
        <NativeSelect
          label="The fiscal year has"
          disabled={readOnly}
          value={draft.kind}
          data={[
            { value: 'months', label: 'twelve calendar months' },
            { value: 'weeks', label: '52 or 53 weeks' },
            { value: 'handMade', label: 'periods made by hand' },
          ]}
          onChange={(e) => choose(e.currentTarget.value as CalendarSpec['kind'])}
        />
        {draft.kind === 'months' && (
          <NativeSelect
            label="First month"
            disabled={readOnly}
            value={String(draft.firstMonth)}
            data={MONTHS}
            onChange={(e) => setDraft({ ...draft, firstMonth: Number(e.currentTarget.value) })}
          />
        )}
        {draft.kind === 'weeks' && (
          <>
            <NativeSelect
              label="Weeks of each quarter"
              disabled={readOnly}
              value={draft.pattern}
              data={['4-4-5', '4-5-4', '5-4-4']}
              onChange={(e) => setDraft({ ...draft, pattern: e.currentTarget.value as '4-4-5' })}
            />
            <NativeSelect
              label="The year ends on a"
              disabled={readOnly}
              value={String(draft.endWeekday)}
              data={WEEKDAYS}
              onChange={(e) => setDraft({ ...draft, endWeekday: Number(e.currentTarget.value) })}
            />
            <NativeSelect
              label="which is"
              disabled={readOnly}
              value={draft.ending}
              data={[
                { value: 'last', label: 'the last in' },
                { value: 'nearest', label: 'nearest to the end of' },
              ]}
              onChange={(e) => setDraft({ ...draft, ending: e.currentTarget.value as 'last' })}
            />
            <NativeSelect
              label="the month"
              disabled={readOnly}
              value={String(draft.endMonth)}
              data={MONTHS}
              onChange={(e) => setDraft({ ...draft, endMonth: Number(e.currentTarget.value) })}
            />
          </>
        )}
        <Button variant="filled" disabled={readOnly || !changed || !sound} onClick={apply}>
          Use this calendar
        </Button>
        {changed && <Button onClick={() => setDraft(book.calendar)}>Leave it as it was</Button>}
      </div>
      {changed && book.budgets.length > 0 && (
        <p className={classes.doubt}>
          Budgets keep their periods by year and number: the first period of FY27 stays the first of FY27.
        </p>
      )}
      {draft.kind === 'handMade' && (
        <HandMade
          periods={draft.periods}
          readOnly={readOnly}
          onPeriods={(periods) => setDraft({ kind: 'handMade', periods })}
        />
      )}
      {sound && <YearTable spec={draft} year={shown ?? year} onYear={setShown} />}
    </div>
  );
}

/** The periods of one fiscal year under a calendar, with their quarters, days and weeks. */
function YearTable({
  spec,
  year,
  onYear,
}: {
  readonly spec: CalendarSpec;
  readonly year: number;
  readonly onYear: (year: number) => void;
}) {
  const periods = useMemo(() => {
    const calendar = calendarFrom(spec);
    return periodsOf(calendar, yearRange(calendar, year));
  }, [spec, year]);
  const days = periods.map((p) => toDayNumber(p.end) - toDayNumber(p.start) + 1);
  const all = days.reduce((t, d) => t + d, 0);
  return (
    <section className={classes.step}>
      <h2>
        {fiscalYearLabel(year)}
        <small>
          {all} days{all % 7 === 0 ? `, ${all / 7} weeks` : ''}
        </small>
        <Button onClick={() => onYear(year - 1)}>Earlier</Button>
        <Button onClick={() => onYear(year + 1)}>Later</Button>
      </h2>
      <table className={classes.table} aria-label="Periods" style={{ maxWidth: 620 }}>
        <thead>
          <tr>
            <th>Period</th>
            <th>Name</th>
            <th>Quarter</th>
            <th>From</th>
            <th>To</th>
            <th className={classes.num}>Days</th>
          </tr>
        </thead>
        <tbody>
          {periods.map((p, i) => (
            <tr key={p.id}>
              <td>{p.number}</td>
              <td>{p.label}</td>
              <td>Q{p.quarter}</td>
              <td className="figure">{p.start}</td>
              <td className="figure">{p.end}</td>
              <td className={classes.num}>{days[i]}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Hand-made periods: names, first and last days, checked for gaps and overlaps as they are typed. */
function HandMade({
  periods,
  readOnly,
  onPeriods,
}: {
  readonly periods: readonly HandMadePeriod[];
  readonly readOnly: boolean;
  readonly onPeriods: (periods: HandMadePeriod[]) => void;
}) {
  const [weeks, setWeeks] = useState<number | string>(4);
  const [times, setTimes] = useState<number | string>(13);
  const faults = periodFaults(periods);
  const set = (at: number, change: Partial<HandMadePeriod>) =>
    onPeriods(periods.map((p, i) => (i === at ? { ...p, ...change } : p)));
  const last = periods.at(-1);
  const addYear = () => {
    if (!last) return;
    const n = Number(weeks) * 7;
    let from = toDayNumber(last.end) + 1;
    onPeriods([
      ...periods,
      ...Array.from({ length: Number(times) }, (_, i) => {
        const period: HandMadePeriod = {
          year: last.year + 1,
          name: `P${i + 1}`,
          start: fromDayNumber(from),
          end: fromDayNumber(from + n - 1),
        };
        from += n;
        return period;
      }),
    ]);
  };
  return (
    <section className={classes.step}>
      <table className={classes.table} aria-label="Hand-made periods" style={{ maxWidth: 760 }}>
        <thead>
          <tr>
            <th>Fiscal year</th>
            <th>Name</th>
            <th>First day</th>
            <th>Last day</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {periods.map((p, i) => {
            const wrong = faults.filter((f) => f.at === i);
            return (
              <tr key={i}>
                <td>
                  <NumberInput
                    aria-label={`Fiscal year of period ${i + 1}`}
                    size="xs"
                    w={90}
                    hideControls
                    disabled={readOnly}
                    value={p.year}
                    onChange={(v) => typeof v === 'number' && v >= 1900 && v <= 2199 && set(i, { year: v })}
                  />
                </td>
                <td>
                  <TextInput
                    aria-label={`Name of period ${i + 1}`}
                    disabled={readOnly}
                    value={p.name}
                    maxLength={LIMITS.periodName}
                    onChange={(e) => set(i, { name: e.currentTarget.value })}
                  />
                </td>
                {(['start', 'end'] as const).map((end) => (
                  <td key={end}>
                    <TextInput
                      type="date"
                      aria-label={`${end === 'start' ? 'First' : 'Last'} day of period ${i + 1}`}
                      disabled={readOnly}
                      value={p[end]}
                      onChange={(e) => {
                        const day: Day | null = parseIsoDay(e.currentTarget.value);
                        if (day) set(i, { [end]: day });
                      }}
                    />
                  </td>
                ))}
                <td>
                  {wrong.length > 0 && (
                    <span className={classes.bad}>{wrong.map((f) => PERIOD_FAULTS[f.code]).join(', ')} </span>
                  )}
                  <Button
                    disabled={readOnly || periods.length === 1}
                    aria-label={`Take away period ${i + 1}`}
                    onClick={() => onPeriods(periods.filter((_, j) => j !== i))}
                  >
                    Take away
                  </Button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <div className={classes.fields} style={{ marginTop: 10 }}>
        <Button
          disabled={readOnly || !last}
          onClick={() => {
            const from = toDayNumber(last!.end) + 1;
            onPeriods([
              ...periods,
              { year: last!.year, name: '', start: fromDayNumber(from), end: fromDayNumber(from + 27) },
            ]);
          }}
        >
          Add a period
        </Button>
        <NumberInput label="Periods" size="xs" w={80} min={1} max={53} value={times} onChange={setTimes} />
        <NumberInput
          label="Weeks of each"
          size="xs"
          w={100}
          min={1}
          max={26}
          value={weeks}
          onChange={setWeeks}
        />
        <Button disabled={readOnly || !last} onClick={addYear}>
          Add the next year so
        </Button>
      </div>
    </section>
  );
}
