'use client';

import { NativeSelect } from '@mantine/core';
import { fiscalYearLabel, type Day } from '@/core/calendar';
import type { Mapping, Shape, SignRule } from '@/core/intake';
import type { Ground } from '@/core/ground';
import { setDelimiter, chooseDates, setMapping, setShape, setSheet, type OpenIntake } from '@/store/intake';
import { dayOptions, firstYear, movedByYears } from './roleOptions';
import { SHAPE_NAMES, SIGN_NAMES } from './intakeWords';

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
const SIGNS: Record<Shape, readonly SignRule[]> = {
  months: ['natural', 'profitPositive', 'debitPositive'],
  entries: ['debitPositive', 'creditPositive', 'natural'],
  balances: ['debitPositive'],
};

/** Everything about reading the file that is not a column: each a guess, open to correction. */
export function ShapeFields({ ground, now }: { readonly ground: Ground; readonly now: OpenIntake }) {
  const { mapping, file } = now;
  const sheet = file.sheets[mapping.sheet]!;
  const spec = ground.book.calendar;
  const set = (change: Partial<Mapping>) => setMapping({ ...mapping, ...change } as Mapping);
  const year = firstYear(mapping, spec);
  const several = mapping.shape === 'balances' && mapping.sheets.length > 1;
  return (
    <>
      {file.sheets.length > 1 && !several && (
        <NativeSelect
          label="Sheet"
          value={String(mapping.sheet)}
          data={file.sheets.map((s, i) => ({ value: String(i), label: s.name ?? '' }))}
          onChange={(e) => setSheet(Number(e.currentTarget.value))}
        />
      )}
      <NativeSelect
        label="Each row is"
        value={mapping.shape}
        data={(Object.keys(SHAPE_NAMES) as Shape[]).map((s) => ({ value: s, label: SHAPE_NAMES[s] }))}
        onChange={(e) => setShape(e.currentTarget.value as Shape)}
      />
      {file.delimiter !== null && (
        <NativeSelect
          label="Columns are cut at"
          value={file.delimiter}
          data={DELIMITERS}
          onChange={(e) => setDelimiter(e.currentTarget.value)}
        />
      )}
      <NativeSelect
        label="Heads are in"
        value={String(mapping.headerRow)}
        data={[
          { value: '-1', label: 'no row' },
          ...Array.from({ length: Math.min(40, sheet.rows.length) }, (_, i) => ({
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
        <>
          <NativeSelect
            label="Dates are written"
            value={mapping.dates}
            data={[
              { value: 'ymd', label: 'year, month, day' },
              { value: 'mdy', label: 'month, day, year' },
              { value: 'dmy', label: 'day, month, year' },
            ]}
            onChange={(e) => chooseDates(e.currentTarget.value as 'ymd')}
          />
          <NativeSelect
            label="The account stands"
            value={mapping.accountIn}
            data={[
              { value: 'columns', label: 'in each row' },
              { value: 'headings', label: 'as a heading above its rows' },
            ]}
            onChange={(e) => set({ accountIn: e.currentTarget.value as 'columns' })}
          />
          <NativeSelect
            label="Rows without a date"
            value={mapping.carryDate ? 'carry' : 'out'}
            data={[
              { value: 'out', label: 'are left out' },
              { value: 'carry', label: 'belong to the row above' },
            ]}
            onChange={(e) => set({ carryDate: e.currentTarget.value === 'carry' })}
          />
        </>
      )}
      {(mapping.shape === 'months' ||
        (mapping.shape === 'entries' &&
          mapping.columns.includes('amount') &&
          !mapping.columns.includes('mark'))) && (
        <NativeSelect
          label="Signs"
          value={mapping.sign}
          data={SIGNS[mapping.shape].map((s) => ({ value: s, label: SIGN_NAMES[s] }))}
          onChange={(e) => set({ sign: e.currentTarget.value as SignRule })}
        />
      )}
      {year !== null && (
        <NativeSelect
          label="Months begin in"
          value={String(year)}
          data={[-3, -2, -1, 0, 1, 2].map((d) => ({
            value: String(year + d),
            label: fiscalYearLabel(year + d),
          }))}
          onChange={(e) => setMapping(movedByYears(mapping, spec, Number(e.currentTarget.value) - year))}
        />
      )}
      {mapping.shape === 'balances' && (
        <>
          <NativeSelect
            label="Balances are"
            value={mapping.cumulative ? 'cumulative' : 'period'}
            data={[
              { value: 'cumulative', label: 'since the year’s start' },
              { value: 'period', label: 'of the month alone' },
            ]}
            onChange={(e) => set({ cumulative: e.currentTarget.value === 'cumulative' })}
          />
          {mapping.columns.some((c) => 'day' in c && c.day === null) &&
            mapping.sheets.map(({ sheet: s, day }) => (
              <NativeSelect
                key={s}
                label={`As of${file.sheets[s]?.name ? `, ${file.sheets[s].name}` : ''}`}
                error={day === null ? 'Which month?' : undefined}
                value={day ?? ''}
                data={[
                  { value: '', label: 'Choose…' },
                  ...dayOptions(
                    mapping.sheets.map((x) => ({ as: 'balance', day: x.day })),
                    spec,
                  ),
                ]}
                onChange={(e) => {
                  const value = (e.currentTarget.value || null) as Day | null;
                  set({
                    sheets: mapping.sheets.map((x) => (x.sheet === s ? { ...x, day: value } : x)),
                  } as Partial<Mapping>);
                }}
              />
            ))}
        </>
      )}
    </>
  );
}
