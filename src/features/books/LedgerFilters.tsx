'use client';

import type { ReactNode } from 'react';
import { Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { ACCOUNT_KINDS, type AccountKind, type Axis, type Book } from '@/core/model';
import type { LedgerFilter } from './ledgerRows';
import { KIND_NAMES } from '@/store/kindNames';
import classes from './Books.module.css';

/** A chosen value of each axis: an id, '' for unassigned, or nothing for all. */
export type SegmentChoice = Readonly<Record<string, string>>;

/** What the ledger view shows: segments, kinds, groups, code ranges, words, and the odd months only. */
export function LedgerFilters({
  book,
  filter,
  onFilter,
  segments,
  onSegments,
  source,
  onSource,
  oddCount,
  children,
}: {
  readonly book: Book;
  readonly filter: LedgerFilter;
  readonly onFilter: (filter: LedgerFilter) => void;
  readonly segments: SegmentChoice;
  readonly onSegments: (segments: SegmentChoice) => void;
  /** A source to look at alone, or null for all together. */
  readonly source: string | null;
  readonly onSource: (source: string | null) => void;
  readonly oddCount: number;
  /** What stands at the end of the line. */
  readonly children: ReactNode;
}) {
  const set = (change: Partial<LedgerFilter>) => onFilter({ ...filter, ...change });
  const kinds = ACCOUNT_KINDS.filter((k) => book.accounts.some((a) => a.kind === k));
  const groups = [...new Set(book.accounts.map((a) => a.group))].filter(Boolean).sort();
  return (
    <div className={classes.filters} role="group" aria-label="Filters">
      <TextInput
        aria-label="Find accounts"
        placeholder="Code or name"
        w={120}
        value={filter.words}
        onChange={(e) => set({ words: e.currentTarget.value })}
      />
      <TextInput
        aria-label="Codes from"
        placeholder="from code"
        w={76}
        value={filter.from}
        onChange={(e) => set({ from: e.currentTarget.value })}
      />
      <TextInput
        aria-label="Codes to"
        placeholder="to code"
        w={76}
        value={filter.to}
        onChange={(e) => set({ to: e.currentTarget.value })}
      />
      <NativeSelect
        aria-label="Kind of account"
        value={filter.kind ?? ''}
        data={[{ value: '', label: 'all kinds' }, ...kinds.map((k) => ({ value: k, label: KIND_NAMES[k] }))]}
        onChange={(e) => set({ kind: (e.currentTarget.value || null) as AccountKind | null })}
      />
      {groups.length > 0 && (
        <NativeSelect
          aria-label="Group of accounts"
          value={filter.group ?? ''}
          data={[{ value: '', label: 'all groups' }, ...groups]}
          onChange={(e) => set({ group: e.currentTarget.value || null })}
        />
      )}
      {book.sources.length > 1 && (
        <NativeSelect
          aria-label="Source"
          maw={150}
          value={source ?? ''}
          data={[
            { value: '', label: 'all sources' },
            ...book.sources.map((s) => ({ value: s.block, label: s.fileName })),
          ]}
          onChange={(e) => onSource(e.currentTarget.value || null)}
        />
      )}
      {book.axes.map((axis: Axis) => (
        <NativeSelect
          key={axis.id}
          aria-label={axis.name}
          value={segments[axis.id] === undefined ? '*' : segments[axis.id]}
          data={[
            { value: '*', label: `${axis.name}: all` },
            ...axis.values.map((v) => ({ value: v.id, label: v.name })),
            { value: '', label: 'unassigned' },
          ]}
          onChange={(e) => {
            const value = e.currentTarget.value;
            const { [axis.id]: _gone, ...rest } = segments;
            onSegments(value === '*' ? rest : { ...rest, [axis.id]: value });
          }}
        />
      ))}
      <Checkbox
        size="xs"
        label={`Odd months only (${oddCount})`}
        checked={filter.oddOnly}
        onChange={(e) => set({ oddOnly: e.currentTarget.checked })}
      />
      <span className={classes.push} />
      {children}
    </div>
  );
}
