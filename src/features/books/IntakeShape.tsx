'use client';

import { NativeSelect } from '@mantine/core';
import { fiscalYearLabel, MONTH_NAMES } from '@/core/calendar';
import { cellText, columnLetters } from '@/core/files';
import type { EntryRole, Mapping, MonthsRole, SignRule } from '@/core/intake';
import type { Ground } from '@/store/derived';
import type { Intake, IntakeState } from '@/store/useIntake';
import { count, DOUBTS, ROLE_NAMES, SIGN_NAMES } from './words';
import classes from './Books.module.css';

type Open = Extract<IntakeState, { phase: 'open' }>;
type NumberChoice = { readonly value: string; readonly label: string; readonly format: Mapping['numbers'] };

const NUMBERS: readonly NumberChoice[] = [
  { value: '.,', label: '1,234.56', format: { decimal: '.', group: ',' } },
  { value: ',.', label: '1.234,56', format: { decimal: ',', group: '.' } },
  { value: ', ', label: '1 234,56', format: { decimal: ',', group: ' ' } },
  { value: '. ', label: '1 234.56', format: { decimal: '.', group: ' ' } },
  { value: ".'", label: "1'234.56", format: { decimal: '.', group: "'" } },
  { value: ",'", label: "1'234,56", format: { decimal: ',', group: "'" } },
];
const DELIMITERS = [
  { value: ',', label: 'comma' },
  { value: ';', label: 'semicolon' },
  { value: '\t', label: 'tab' },
  { value: '|', label: 'bar' },
];
const PREVIEWED = 40;

/** How the file is read: the guess, drawn over its own first rows, each part of it open to correction. */
export function IntakeShape({
  ground,
  intake,
  state,
}: {
  readonly ground: Ground;
  readonly intake: Intake;
  readonly state: Open;
}) {
  const { mapping, file, guess } = state;
  const sheet = file.sheets[mapping.sheet]!;
  const { doubts } = guess;
  const set = (change: Partial<Mapping>) => intake.setMapping({ ...mapping, ...change } as Mapping);
  return (
    <section className={classes.step}>
      <h2>
        {state.fileName}
        <small>
          {count(sheet.rowCount, 'row')}
          {file.encoding ? `, ${file.encoding.toUpperCase()}` : ', workbook'} · fingerprint{' '}
          {file.fingerprint.slice(0, 12)}
        </small>
      </h2>
      {doubts.length > 0 && (
        <p className={classes.doubt}>Please look at: {doubts.map((d) => DOUBTS[d]).join('; ')}.</p>
      )}
      <div className={classes.fields}>
        {file.sheets.length > 1 && (
          <NativeSelect
            label="Sheet"
            value={String(mapping.sheet)}
            data={file.sheets.map((s, i) => ({ value: String(i), label: s.name ?? '' }))}
            onChange={(e) => intake.setSheet(Number(e.currentTarget.value))}
          />
        )}
        <NativeSelect
          label="Each row is"
          value={mapping.shape}
          data={[
            { value: 'entries', label: 'a ledger entry' },
            { value: 'months', label: 'an account, months across' },
          ]}
          onChange={(e) => intake.setShape(e.currentTarget.value as Mapping['shape'])}
        />
        {file.delimiter !== null && (
          <NativeSelect
            label="Columns are cut at"
            value={file.delimiter}
            data={DELIMITERS}
            onChange={(e) => intake.setDelimiter(e.currentTarget.value)}
          />
        )}
        <NativeSelect
          label="Heads are in"
          value={String(mapping.headerRow)}
          data={[
            { value: '-1', label: 'no row' },
            ...Array.from({ length: Math.min(40, sheet.rowCount) }, (_, i) => ({
              value: String(i),
              label: `row ${i + 1}`,
            })),
          ]}
          onChange={(e) => set({ headerRow: Number(e.currentTarget.value) })}
        />
        <NativeSelect
          label="Numbers are written"
          value={
            mapping.numbers.decimal + (mapping.numbers.group || (mapping.numbers.decimal === '.' ? ',' : '.'))
          }
          data={NUMBERS.map(({ value, label }) => ({ value, label }))}
          onChange={(e) => set({ numbers: NUMBERS.find((n) => n.value === e.currentTarget.value)!.format })}
        />
        {mapping.shape === 'entries' && (
          <NativeSelect
            label="Dates are written"
            value={mapping.dates}
            data={[
              { value: 'ymd', label: 'year, month, day' },
              { value: 'mdy', label: 'month, day, year' },
              { value: 'dmy', label: 'day, month, year' },
            ]}
            onChange={(e) => set({ dates: e.currentTarget.value as 'ymd' })}
          />
        )}
        {(mapping.shape === 'months' || mapping.columns.includes('amount')) && (
          <NativeSelect
            label="Signs"
            value={mapping.sign}
            data={(mapping.shape === 'months'
              ? ['natural', 'profitPositive', 'debitPositive']
              : ['debitPositive', 'creditPositive']
            ).map((s) => ({ value: s, label: SIGN_NAMES[s as SignRule] }))}
            onChange={(e) => set({ sign: e.currentTarget.value as SignRule })}
          />
        )}
        {mapping.shape === 'months' && (
          <YearField
            ground={ground}
            columns={mapping.columns}
            onColumns={(columns) => set({ columns } as Partial<Mapping>)}
          />
        )}
      </div>
      <div className={classes.preview} tabIndex={0} role="region" aria-label="First rows of the file">
        <table>
          <thead>
            <tr>
              <th style={{ minWidth: 30 }} aria-label="Row" />
              {mapping.columns.map((role, i) => (
                <th key={i} scope="col">
                  <NativeSelect
                    aria-label={`Column ${columnLetters(i + 1)} holds`}
                    size="xs"
                    value={typeof role === 'string' ? role : roleValue(role)}
                    data={mapping.shape === 'entries' ? entryOptions : monthOptions(mapping.columns)}
                    onChange={(e) => {
                      const value = e.currentTarget.value;
                      if (mapping.shape === 'entries')
                        set({
                          columns: assigned(mapping.columns, i, value as EntryRole),
                        } as Partial<Mapping>);
                      else
                        set({
                          columns: mapping.columns.map((r, c) => (c === i ? roleOf(value) : r)),
                        } as Partial<Mapping>);
                    }}
                  />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {sheet.rows.slice(0, PREVIEWED).map((row, r) => (
              <tr
                key={r}
                data-part={r < mapping.headerRow ? 'title' : r === mapping.headerRow ? 'header' : undefined}
              >
                <td className={classes.rowNumber}>{r + 1}</td>
                {mapping.columns.map((role, c) => {
                  const unused = role === 'ignore' || (typeof role !== 'string' && role.as === 'ignore');
                  const isAmount =
                    typeof role === 'string'
                      ? ['debit', 'credit', 'amount'].includes(role)
                      : role.as === 'month' || role.as === 'total';
                  return (
                    <td
                      key={c}
                      className={isAmount ? classes.amount : undefined}
                      data-unused={unused || undefined}
                    >
                      {cellText(row[c])}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  );
}

const entryOptions = Object.entries(ROLE_NAMES).map(([value, label]) => ({ value, label }));

/** A role is held by one column: giving it to another takes it from the first. */
const assigned = (columns: readonly EntryRole[], at: number, role: EntryRole): EntryRole[] =>
  columns.map((r, i) => (i === at ? role : r === role && role !== 'ignore' ? 'ignore' : r));

const monthValue = (year: number, month: number) => `${year}-${month}`;
const roleValue = (r: MonthsRole): string => (r.as === 'month' ? monthValue(r.year, r.month) : r.as);

function roleOf(value: string): MonthsRole {
  const m = /^(\d+)-(\d+)$/.exec(value);
  return m ? { as: 'month', year: Number(m[1]), month: Number(m[2]) } : { as: value as 'ignore' };
}

function monthOptions(columns: readonly MonthsRole[]) {
  const months = columns.flatMap((c) => (c.as === 'month' ? [c.year * 12 + c.month - 1] : []));
  const from = months.length ? Math.min(...months) - 12 : 2020 * 12;
  const to = months.length ? Math.max(...months) + 12 : from + 120;
  return [
    { value: 'account', label: 'Account' },
    { value: 'code', label: 'Account code' },
    { value: 'name', label: 'Account name' },
    { value: 'total', label: 'Total of the row' },
    { value: 'ignore', label: 'Leave out' },
    ...Array.from({ length: to - from + 1 }, (_, i) => from + i).map((n) => ({
      value: monthValue(Math.floor(n / 12), (n % 12) + 1),
      label: `${MONTH_NAMES[n % 12]} ${Math.floor(n / 12)}`,
    })),
  ];
}

/** The fiscal year of the months, to move all of them at once. */
function YearField({
  ground,
  columns,
  onColumns,
}: {
  readonly ground: Ground;
  readonly columns: readonly MonthsRole[];
  readonly onColumns: (columns: MonthsRole[]) => void;
}) {
  const first = columns.find((c) => c.as === 'month');
  if (!first || first.as !== 'month') return null;
  const year = ground.calendar.period(first.year * 12 + first.month - 1).year;
  return (
    <NativeSelect
      label="Months begin in"
      value={String(year)}
      data={[-3, -2, -1, 0, 1, 2].map((d) => ({ value: String(year + d), label: fiscalYearLabel(year + d) }))}
      onChange={(e) => {
        const by = Number(e.currentTarget.value) - year;
        onColumns(columns.map((c) => (c.as === 'month' ? { ...c, year: c.year + by } : c)));
      }}
    />
  );
}
