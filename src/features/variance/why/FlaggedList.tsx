import { useState } from 'react';
import { Button, NativeSelect } from '@mantine/core';
import type { Minor } from '@/core/money';
import type { Account, VarianceNote } from '@/core/model';
import { cellOf, type ReportRow, type ReportTable } from '@/core/report';
import type { MoneyFormat } from '@/store/format';
import classes from '../Variance.module.css';

/** So many are listed at a time. */
const LISTED = 40;

/** The lines that ask for a word this month, by who looks after them, and which have one. */
export function FlaggedList({
  table,
  rows,
  notes,
  accounts,
  money,
  onRow,
}: {
  readonly table: ReportTable;
  readonly rows: readonly ReportRow[];
  readonly notes: Readonly<Record<string, VarianceNote>> | undefined;
  readonly accounts: readonly Account[];
  readonly money: MoneyFormat;
  readonly onRow: (key: string) => void;
}) {
  const [keeper, setKeeper] = useState('');
  const [listed, setListed] = useState(LISTED);
  if (rows.length === 0) return <p className="faded">No line is flagged this month.</p>;
  const keeperOf = new Map(accounts.map((a) => [a.id, a.keeper]));
  const keepers = [...new Set(rows.map((r) => keeperOf.get(r.account!) ?? ''))].filter(Boolean);
  const shown = rows.filter((r) => keeper === '' || keeperOf.get(r.account!) === keeper);
  const done = shown.filter((r) => notes?.[r.account!]).length;
  const at = (r: ReportRow, key: string) => cellOf(table, r, key);
  return (
    <section>
      <div className="label">Flagged lines</div>
      {keepers.length > 0 && (
        <NativeSelect
          aria-label="Looked after by"
          my={4}
          value={keeper}
          data={[{ value: '', label: 'By anybody' }, ...keepers.map((k) => ({ value: k, label: k }))]}
          onChange={(e) => setKeeper(e.currentTarget.value)}
        />
      )}
      <div className={classes.progress}>
        <progress max={shown.length} value={done} aria-label="Explained" />
        {done} of {shown.length} explained
      </div>
      <ul className={classes.flagged}>
        {shown.slice(0, listed).map((r) => (
          <li key={r.key}>
            <button type="button" className={classes.nameButton} onClick={() => onRow(r.key)}>
              {r.label}
            </button>
            <span>
              {money.signed(at(r, 'monthDiff') as Minor)} {at(r, 'monthSense')}
              {notes?.[r.account!] ? ' ✓' : ''}
            </span>
          </li>
        ))}
      </ul>
      {shown.length > listed && (
        <Button mt={6} onClick={() => setListed(listed + 10 * LISTED)}>
          {shown.length - listed} more
        </Button>
      )}
      <p className="faded" style={{ fontSize: 12 }}>
        In the report, <kbd>]</kbd> and <kbd>[</kbd> go to the next and the one before, Enter to its
        explanation.
      </p>
    </section>
  );
}
