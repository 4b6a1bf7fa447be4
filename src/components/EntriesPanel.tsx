'use client';

import { useContext, useMemo, useState, type ReactNode } from 'react';
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { minor, type Minor } from '@/core/money';
import type { Entry } from '@/core/ledger';
import { natural, type AccountKind } from '@/core/model';
import { LocaleContext } from './unit';
import classes from './Entries.module.css';

const STEP = 200;
/** So many are looked over at a glance. */
const FEW = 5;

type Order = 'day' | 'largest' | 'row';

/**
 * The entries that an amount is made of, in the account's natural sign: found by words, sorted, with the running
 * balance and the row of the file that each came from.
 */
export function EntriesPanel({
  entries,
  kind,
  total,
  exact,
  dayText,
  sourceOf,
  action,
}: {
  readonly entries: readonly Entry[];
  /** Of the account: amounts are shown in its natural sign. */
  readonly kind: AccountKind;
  readonly total: Minor | null;
  readonly exact: (amount: Minor | null) => string;
  /** A day as the book's locale writes it. */
  readonly dayText: (day: string) => string;
  /** Name of the file that a block came from. */
  readonly sourceOf: (block: string) => string;
  /** What can be done with an entry, beneath it. */
  readonly action?: (entry: Entry) => ReactNode;
}) {
  const locale = useContext(LocaleContext);
  const [words, setWords] = useState('');
  const [order, setOrder] = useState<Order>('day');
  const [shown, setShown] = useState(STEP);
  const signed = (e: Entry): Minor => natural(kind, e.amount);
  const activity = entries.filter((e) => e.mark === 'activity');
  const sum = activity.reduce<number>((t, e) => t + natural(kind, e.amount), 0);
  const ties = sum === (total ?? 0);
  const found = useMemo(() => {
    const want = words.trim().toLowerCase();
    const list = want
      ? entries.filter((e) =>
          [e.memo, e.counterparty, e.reference, e.day, exact(e.amount), ...e.segments.map((s) => s[1])]
            .join(' ')
            .toLowerCase()
            .includes(want),
        )
      : [...entries];
    if (order === 'largest') list.sort((a, b) => Math.abs(b.amount) - Math.abs(a.amount));
    if (order === 'row') list.sort((a, b) => a.block.localeCompare(b.block) || a.row - b.row);
    return list;
  }, [entries, words, order, exact]);
  const running = useMemo(() => runningTotals(found, kind), [found, kind]);
  if (entries.length === 0) return <p className="faded">The ledger has no entry here.</p>;
  return (
    <>
      {entries.length > FEW && (
        <div className={classes.tools}>
          <TextInput
            aria-label="Find among the entries"
            placeholder="Find"
            value={words}
            onChange={(e) => setWords(e.currentTarget.value)}
          />
          <NativeSelect
            aria-label="Order of the entries"
            value={order}
            onChange={(e) => setOrder(e.currentTarget.value as Order)}
            data={[
              { value: 'day', label: 'by day' },
              { value: 'largest', label: 'largest first' },
              { value: 'row', label: 'by row of the file' },
            ]}
          />
        </div>
      )}
      <table className={classes.table}>
        <tbody>
          {found.slice(0, shown).map((e, i) => (
            <tr key={`${e.block}-${e.place}`} data-mark={e.mark}>
              <td className={classes.day}>{dayText(e.day)}</td>
              <td className={classes.what}>
                {e.memo || e.counterparty || e.reference || 'Whole month'}
                {e.mark !== 'activity' && <i> — {e.mark}, set aside</i>}
                <span className={classes.who} title={sourceOf(e.block)}>
                  {[e.memo ? e.counterparty : '', e.reference, ...e.segments.map((s) => s[1]), `row ${e.row}`]
                    .filter(Boolean)
                    .join(' · ')}
                </span>
                {action?.(e)}
              </td>
              <td className={classes.amount}>
                {exact(signed(e))}
                <span className={classes.running} title="Running total of what is listed">
                  {exact(running[i]!)}
                </span>
              </td>
            </tr>
          ))}
        </tbody>
        <tfoot>
          {found.length > shown && (
            <tr>
              <td colSpan={3}>
                <Button onClick={() => setShown(shown + 5 * STEP)}>
                  {(found.length - shown).toLocaleString(locale)} more
                </Button>
              </td>
            </tr>
          )}
          {found.length < entries.length && (
            <tr>
              <td colSpan={2}>{found.length.toLocaleString(locale)} found</td>
              <td className={classes.amount}>{exact(running.at(-1) ?? null)}</td>
            </tr>
          )}
          <tr>
            <td colSpan={2} data-ties={ties}>
              {ties ? 'Total ties to the ledger ✓' : `Total is off by ${exact(minor(sum - (total ?? 0)))}`}
            </td>
            <td className={classes.amount}>{exact(minor(sum))}</td>
          </tr>
        </tfoot>
      </table>
    </>
  );
}

/** What the entries listed so far add up to, openings and closings aside. */
function runningTotals(entries: readonly Entry[], kind: AccountKind): Minor[] {
  const out: Minor[] = [];
  let total = 0;
  for (const e of entries) {
    if (e.mark === 'activity') total += natural(kind, e.amount);
    out.push(minor(total));
  }
  return out;
}
