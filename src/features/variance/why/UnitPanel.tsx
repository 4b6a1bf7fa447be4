'use client';

import { Button, FileButton } from '@mantine/core';
import { numberFormatOf, type Minor } from '@/core/money';
import { dateOrderOf, periodsOf, yearRange, type PeriodIndex } from '@/core/calendar';
import type { Comparison, Ground } from '@/core/ground';
import { LIMITS, sameName, type Quantity } from '@/core/model';
import { unitsOf, type UnitSeries } from '@/core/report';
import { ScaledInput } from '@/components/MoneyInput';
import { OverChoice } from '@/components/OverChoice';
import stage from '@/components/Stage.module.css';
import { sayOver } from '@/store/actions';
import { dispatch } from '@/store/bookStore';
import { say } from '@/store/session';

/** What was counted of a driver, month by month: typed, or taken in from a file for all of them. */
export function UnitPanel({
  ground,
  comparison,
  name,
  month,
  readOnly,
}: {
  readonly ground: Ground;
  readonly comparison: Comparison | null;
  readonly name: string | null;
  readonly month: PeriodIndex;
  readonly readOnly: boolean;
}) {
  const { book, calendar } = ground;
  const units = unitsOf(ground, comparison);
  const open = units.filter((u) => u.over === null);
  const unit = units.find((u) => name !== null && sameName(u.name, name)) ?? null;
  return (
    <>
      <h2>{unit?.name ?? 'Counted quantities'}</h2>
      {unit ? (
        <>
          <OverChoice
            name={unit.name}
            over={unit.over}
            readOnly={readOnly}
            onOver={(over) => sayOver(book, unit, over)}
          />
          <div className="faded" style={{ fontSize: 12.5 }}>
            Counted{unit.unit ? `, in ${unit.unit}` : ''}; what was planned stands beneath a blank field
          </div>
          <section aria-label="Counted by month">
            {periodsOf(calendar, yearRange(calendar, calendar.period(month).year)).map((p) => (
              <div key={p.id} className={stage.pair}>
                <span>{p.label}</span>
                <ScaledInput
                  size="xs"
                  w={104}
                  aria-label={`Counted in ${p.label}`}
                  placeholder={plannedText(unit, p.index, book.locale)}
                  value={unit.counted(p.index)}
                  decimals={unit.decimals}
                  locale={book.locale}
                  disabled={readOnly}
                  onCommit={(value) =>
                    dispatch({
                      type: 'setQuantities',
                      quantities: [withCount(book.quantities, unit, p.id, value)],
                    })
                  }
                />
              </div>
            ))}
          </section>
        </>
      ) : (
        <p className="faded">
          {units.length === 0
            ? 'No budget has a driver yet. What is counted (members, hours, berths let) stands against the drivers of the budget.'
            : 'Choose a unit to type what was counted.'}
        </p>
      )}
      {!unit && open.length > 0 && (
        <section aria-label="Over several months">
          <p className="faded" style={{ fontSize: 12.5 }}>
            Nobody has said yet how these go over several months: only single months tell them.
          </p>
          {open.map((u) => (
            <OverChoice
              key={u.name}
              name={u.name}
              over={u.over}
              named
              readOnly={readOnly}
              onOver={(over) => sayOver(book, u, over)}
            />
          ))}
        </section>
      )}
      <section>
        <FileButton
          accept=".csv,.txt,.tsv,.xlsx"
          onChange={(file) => void takeCounts(ground, units, month, file)}
          inputProps={{ 'aria-label': 'File of counted quantities' }}
        >
          {(props) => (
            <Button {...props} disabled={readOnly}>
              Take counts in from a file…
            </Button>
          )}
        </FileButton>
        <p className="faded" style={{ fontSize: 12 }}>
          Names down and months across, or a row for each count: name, date, quantity.
        </p>
      </section>
    </>
  );
}

const plannedText = (unit: UnitSeries, p: PeriodIndex, locale: string): string => {
  const planned = unit.planned(p);
  return planned === null ? '' : (planned / 10 ** unit.decimals).toLocaleString(locale);
};

/** A driver's counts with one month changed; a blank says nothing of it any more. */
function withCount(
  quantities: readonly Quantity[],
  { name, unit, decimals }: UnitSeries,
  period: string,
  value: number | null,
): Quantity {
  const there = quantities.find((q) => sameName(q.name, name));
  const more = there ? decimals - there.decimals : 0;
  const before = Object.fromEntries(
    Object.entries(there?.values ?? {}).map(([id, v]) => [id, more > 0 ? v * 10 ** more : v]),
  );
  const { [period]: _was, ...rest } = before;
  return {
    ...there,
    name: there?.name ?? name,
    unit: there?.unit || unit,
    decimals: there ? Math.max(decimals, there.decimals) : decimals,
    values: value === null ? rest : { ...rest, [period]: (more < 0 ? value * 10 ** -more : value) as Minor },
  };
}

/** Takes counts of a file in: months that it names take the place of what was there, others stay. */
async function takeCounts(
  { book, calendar }: Ground,
  units: readonly UnitSeries[],
  month: PeriodIndex,
  file: File | null,
): Promise<void> {
  if (!file) return;
  const [{ readFile }, { readQuantities }] = await Promise.all([
    import('@/core/files'),
    import('@/core/intake'),
  ]);
  const opened = await readFile(new Uint8Array(await file.arrayBuffer()));
  const grid = opened.ok ? opened.file.grids[0] : undefined;
  if (!grid) return say(`${file.name} is no table of counts (CSV or XLSX). Nothing was changed.`, 'trouble');
  const read = readQuantities(grid, calendar, units, {
    calendar: book.calendar,
    year: calendar.period(month).year,
    numbers: numberFormatOf(book.locale),
    dates: dateOrderOf(book.locale),
  });
  if (read.quantities.length === 0)
    return say(
      `${file.name} has no counts that can be read: names down and months across, or name, date and quantity in each row. Nothing was changed.`,
      'trouble',
    );
  if (read.quantities.length > LIMITS.drivers)
    return say(`${file.name} has more names than a book keeps. Nothing was changed.`, 'trouble');
  const quantities = read.quantities.map((q): Quantity => {
    const there = book.quantities.find((x) => sameName(x.name, q.name));
    if (!there) return q;
    const decimals = Math.max(there.decimals, q.decimals);
    const scaled = ({ values, decimals: d }: Quantity) =>
      Object.fromEntries(Object.entries(values).map(([id, v]) => [id, v * 10 ** (decimals - d)]));
    return { ...there, decimals, values: { ...scaled(there), ...scaled(q) } };
  });
  if (dispatch({ type: 'setQuantities', quantities })) return;
  const counts = read.quantities.reduce((n, q) => n + Object.keys(q.values).length, 0);
  const [first] = read.issues;
  say(
    `${counts} counts of ${read.quantities.length} ${read.quantities.length === 1 ? 'driver' : 'drivers'} taken in from ${file.name}${
      first
        ? `; ${read.issues.length} could not be read, first row ${first.row}, column ${first.column}: “${first.value}”`
        : ''
    }. Ctrl+Z takes them back.`,
    first ? 'trouble' : 'info',
  );
}
