'use client';

import { useRef, type ClipboardEvent, type KeyboardEvent } from 'react';
import { TextInput } from '@mantine/core';
import type { Day } from '@/core/calendar';
import type { Minor, Percent } from '@/core/money';
import { fromTsv } from '@/core/sheet';
import { CellSelect } from '@/components/CellSelect';
import { DayInput } from '@/components/DayInput';
import { MoneyInput, NumberInput, PercentInput, ScaledInput } from '@/components/MoneyInput';
import { TriedMark } from '@/components/TriedMark';
import classes from './Schedules.module.css';

type Of<R, V> = {
  readonly key: string;
  readonly label: string;
  readonly of: (row: R) => V;
  /** The row with another value; null where it cannot have it. */
  readonly set: (row: R, value: V) => R | null;
};

/** A column of a table of rows, by what is typed into it. */
export type FieldColumn<R> =
  | ({ readonly as: 'text'; readonly most: number } & Of<R, string>)
  | ({ readonly as: 'money' } & Of<R, Minor | null>)
  | ({ readonly as: 'percent' } & Of<R, Percent>)
  | ({ readonly as: 'day' } & Of<R, Day | null>)
  | ({ readonly as: 'whole'; readonly least: number; readonly most: number } & Of<R, number>)
  | ({ readonly as: 'hundredths' } & Of<R, number | null>)
  | ({
      readonly as: 'choice';
      readonly options: (row: R) => readonly { readonly value: string; readonly label: string }[];
    } & Of<R, string>)
  | { readonly as: 'shown'; readonly key: string; readonly label: string; readonly text: (row: R) => string };

/**
 * A table of rows that one types into: arrows up and down and Enter go from row to row, Tab from field to field; a block of
 * text from a spreadsheet is laid over it from the field at hand.
 */
export function FieldTable<R extends { readonly id: string; readonly name: string }>({
  label,
  columns,
  rows,
  current,
  total,
  currency,
  locale,
  readOnly,
  marks,
  onChoose,
  onRow,
  onBlock,
}: {
  readonly label: string;
  readonly columns: readonly FieldColumn<R>[];
  readonly rows: readonly R[];
  readonly current: string | null;
  /** A last row: what all rows come to, in the last column. */
  readonly total: string | null;
  readonly currency: string;
  readonly locale: string;
  readonly readOnly: boolean;
  /** What a sign at a row says, by its id. */
  readonly marks?: ReadonlyMap<string, string>;
  readonly onChoose: (id: string) => void;
  readonly onRow: (row: R) => void;
  /** A block of text, from a row and a column on. */
  readonly onBlock: (row: number, column: number, block: readonly (readonly string[])[]) => void;
}) {
  const table = useRef<HTMLTableElement>(null);
  const go = (row: number, column: number) => {
    const cell = table.current?.querySelector<HTMLElement>(
      `[data-row="${row}"][data-column="${column}"] :is(input, select)`,
    );
    cell?.focus();
    return cell !== null && cell !== undefined;
  };
  const onKeyDown = (e: KeyboardEvent) => {
    const cell = (e.target as HTMLElement).closest<HTMLElement>('[data-row]');
    if (!cell || e.altKey || e.ctrlKey || e.metaKey) return;
    const isDay = (e.target as HTMLInputElement).type === 'date';
    const isSelect = (e.target as HTMLElement).tagName === 'SELECT';
    const by =
      e.key === 'Enter'
        ? e.shiftKey
          ? -1
          : 1
        : isDay || isSelect
          ? 0
          : e.key === 'ArrowDown'
            ? 1
            : e.key === 'ArrowUp'
              ? -1
              : 0;
    if (by === 0) return;
    if (go(Number(cell.dataset.row) + by, Number(cell.dataset.column))) e.preventDefault();
  };
  const onPaste = (e: ClipboardEvent) => {
    const block = fromTsv(e.clipboardData.getData('text/plain'));
    const cell = (e.target as HTMLElement).closest<HTMLElement>('[data-row]');
    if (!cell || readOnly || (block.length === 1 && block[0]!.length === 1)) return;
    e.preventDefault();
    onBlock(Number(cell.dataset.row), Number(cell.dataset.column), block);
  };
  return (
    <table ref={table} className={classes.sheet} aria-label={label} onKeyDown={onKeyDown} onPaste={onPaste}>
      <thead>
        <tr>
          {columns.map((c) => (
            <th key={c.key} data-as={c.as}>
              {c.label}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => (
          <tr
            key={row.id}
            data-current={row.id === current || undefined}
            onFocus={() => onChoose(row.id)}
            onClick={() => onChoose(row.id)}
          >
            {columns.map((c, k) => (
              <td key={c.key} data-as={c.as} data-row={r} data-column={k}>
                <Cell
                  column={c}
                  row={row}
                  name={`${c.label}, ${row.name}`}
                  currency={currency}
                  locale={locale}
                  readOnly={readOnly}
                  onRow={onRow}
                />
                {k === 0 && marks?.has(row.id) && (
                  <TriedMark className={classes.mark} words={marks.get(row.id)!} />
                )}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
      {total !== null && rows.length > 1 && (
        <tfoot>
          <tr>
            <th scope="row" colSpan={columns.length - 1}>
              All together
            </th>
            <td>{total}</td>
          </tr>
        </tfoot>
      )}
    </table>
  );
}

function Cell<R extends { readonly id: string }>({
  column,
  row,
  name,
  currency,
  locale,
  readOnly,
  onRow,
}: {
  readonly column: FieldColumn<R>;
  readonly row: R;
  readonly name: string;
  readonly currency: string;
  readonly locale: string;
  readonly readOnly: boolean;
  readonly onRow: (row: R) => void;
}) {
  const put = (next: R | null) => next && next !== row && onRow(next);
  const common = { 'aria-label': name, variant: 'unstyled', disabled: readOnly } as const;
  switch (column.as) {
    case 'shown':
      return <span className={classes.shown}>{column.text(row)}</span>;
    case 'text':
      return (
        <TextInput
          {...common}
          key={column.of(row)}
          defaultValue={column.of(row)}
          maxLength={column.most}
          onBlur={(e) => {
            const text = e.currentTarget.value.trim();
            if (text !== '' && text !== column.of(row)) put(column.set(row, text));
          }}
        />
      );
    case 'money':
      return (
        <MoneyInput
          {...common}
          currency={currency}
          locale={locale}
          value={column.of(row)}
          onCommit={(v) => put(column.set(row, v))}
        />
      );
    case 'percent':
      return <PercentInput {...common} value={column.of(row)} onCommit={(v) => put(column.set(row, v))} />;
    case 'day':
      return <DayInput {...common} value={column.of(row)} onCommit={(v) => put(column.set(row, v))} />;
    case 'whole':
      return (
        <NumberInput
          {...common}
          least={column.least}
          most={column.most}
          value={column.of(row)}
          onCommit={(v) => put(column.set(row, v))}
        />
      );
    case 'hundredths':
      return (
        <ScaledInput
          {...common}
          decimals={2}
          locale={locale}
          value={column.of(row)}
          onCommit={(v) => put(column.set(row, v))}
        />
      );
    case 'choice':
      return (
        <CellSelect
          aria-label={name}
          disabled={readOnly}
          value={column.of(row)}
          data={column.options(row)}
          onChange={(e) => put(column.set(row, e.currentTarget.value))}
        />
      );
  }
}
