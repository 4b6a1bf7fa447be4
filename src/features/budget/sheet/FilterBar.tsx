'use client';

import { Button, Chip, NativeSelect, TextInput } from '@mantine/core';
import { KindsFilter } from '@/components/KindsFilter';
import type { AccountKind, Book } from '@/core/model';
import { kindWords } from '@/components/formula/kindWords';
import { isFiltering, MARKS, NO_FILTER, type Filter, type Mark } from './filters';
import { toggleIn } from './setup';
import classes from '../Budget.module.css';

const COSTS: readonly AccountKind[] = ['costOfSales', 'expense', 'otherExpense'];

const MARK_WORDS: Record<Mark, string> = {
  notLooked: 'Not looked at yet',
  changed: 'Changed since approved',
  noted: 'With a note',
  lumps: 'Lumps',
  typed: 'Typed over',
};

/** Finding lines: by words, kind, group, codes, who looks after them, and by their marks. */
export function FilterBar({
  book,
  filter,
  withApproved,
  onFilter,
  onClose,
}: {
  readonly book: Book;
  readonly filter: Filter;
  readonly withApproved: boolean;
  readonly onFilter: (filter: Filter) => void;
  readonly onClose: () => void;
}) {
  const set = (change: Partial<Filter>) => onFilter({ ...filter, ...change });
  const listOf = (pick: (a: Book['accounts'][number]) => string, all: string) => [
    { value: '', label: all },
    ...[...new Set(book.accounts.map(pick))].filter(Boolean).map((v) => ({ value: v, label: v })),
  ];
  const kinds = [...new Set(book.accounts.map((a) => a.kind))];
  const groups = listOf((a) => a.group, 'any group');
  const keepers = listOf((a) => a.keeper, 'anybody’s');
  return (
    <div className={classes.filter} role="search" aria-label="Find lines">
      <TextInput
        autoFocus
        w={150}
        aria-label="Code or name"
        placeholder="Code or name"
        value={filter.words}
        onChange={(e) => set({ words: e.currentTarget.value })}
        onKeyDown={(e) => e.key === 'Escape' && onClose()}
      />
      <KindsFilter
        options={kinds.map((value) => ({ value, label: kindWords(value) }))}
        presets={[{ label: 'costs alone', values: COSTS }]}
        chosen={filter.kinds}
        all="all kinds"
        onChosen={(chosen) => set({ kinds: chosen })}
      />
      {groups.length > 1 && (
        <NativeSelect
          aria-label="Group"
          value={filter.group}
          data={groups}
          onChange={(e) => set({ group: e.currentTarget.value })}
        />
      )}
      {keepers.length > 1 && (
        <NativeSelect
          aria-label="Looked after by"
          value={filter.keeper}
          data={keepers}
          onChange={(e) => set({ keeper: e.currentTarget.value })}
        />
      )}
      <span className={classes.codes}>
        codes
        <TextInput
          w={58}
          aria-label="From code"
          value={filter.codeFrom}
          onChange={(e) => set({ codeFrom: e.currentTarget.value })}
        />
        –
        <TextInput
          w={58}
          aria-label="To code"
          value={filter.codeTo}
          onChange={(e) => set({ codeTo: e.currentTarget.value })}
        />
      </span>
      {MARKS.filter((m) => m !== 'changed' || withApproved).map((m) => (
        <Chip
          key={m}
          size="xs"
          checked={filter.marks.includes(m)}
          onChange={() => set({ marks: toggleIn(filter.marks, m) })}
        >
          {MARK_WORDS[m]}
        </Chip>
      ))}
      {isFiltering(filter) && <Button onClick={() => onFilter(NO_FILTER)}>Show all</Button>}
    </div>
  );
}
