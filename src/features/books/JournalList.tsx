'use client';

import type { Book, Change } from '@/core/model';
import { useBookStore } from '@/store/bookStore';
import { changeWords } from '@/store/changeWords';
import { count } from './words';
import classes from './Books.module.css';

const SHOWN = 500;
const NONE: readonly Change[] = [];

/** What was changed and when, latest first. Undone changes stay in the list: the journal only grows. */
export function JournalList() {
  const journal = useBookStore((s) => s.history?.journal ?? NONE);
  const names = useBookStore((s) => s.history?.book);
  const nameOf = new Map<string, string>([
    ...(names?.accounts.map((a) => [a.id, a.name] as const) ?? []),
    ...(names?.budgets.map((b) => [b.id, b.name] as const) ?? []),
  ]);
  if (journal.length === 0)
    return (
      <p className="faded" style={{ padding: '0 18px' }}>
        Nothing has been changed yet.
      </p>
    );
  return (
    <div className={classes.page}>
      <table className={classes.table}>
        <thead>
          <tr>
            <th>When</th>
            <th>Who</th>
            <th>What</th>
            <th>Where</th>
          </tr>
        </thead>
        <tbody>
          {journal
            .slice(-SHOWN)
            .reverse()
            .map((c) => (
              <tr key={c.seq}>
                <td className="figure">{new Date(c.at).toLocaleString('sv-SE')}</td>
                <td>{c.by ?? ''}</td>
                <td>
                  {changeWords(c)}
                  {'why' in c && c.why ? <span className="faded"> — “{c.why}”</span> : null}
                  {'of' in c ? ` (change ${c.of})` : ''}
                </td>
                <td className="faded">
                  {'of' in c ? '' : whereWords(c, nameOf, names, names?.accounts.map((a) => a.name) ?? [])}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {journal.length > SHOWN && (
        <p className="faded">
          The latest {SHOWN} of {count(journal.length, 'change')}. The book file holds all of them.
        </p>
      )}
    </div>
  );
}

/** Names of the sources within a patch's value. */
function fileNames(value: unknown): string[] {
  if (Array.isArray(value)) return [];
  const name = (value as { readonly fileName?: unknown } | null | undefined)?.fileName;
  return typeof name === 'string' ? [name] : [];
}

/** The lines and months that a change touched, with what was there before, off its patches. */
function whereWords(
  c: Extract<Change, { patches: unknown }>,
  nameOf: ReadonlyMap<string, string>,
  book: Book | undefined,
  accounts: readonly string[],
): string {
  const places = new Set<string>();
  for (const { path } of c.patches) {
    if (path[0] === 'budgets' && typeof path[1] === 'number') {
      const budgetNow = book?.budgets[path[1]];
      const at = path[2] === 'lines' ? (c.version ? path[3] : undefined) : undefined;
      const account = typeof at === 'number' ? budgetNow?.lines[at]?.account : undefined;
      const line = account ? nameOf.get(account) : undefined;
      const budget = budgetNow?.name;
      places.add([line, budget].filter(Boolean).join(' · '));
    } else if (path[0] === 'accounts' && typeof path[1] === 'number' && path.length > 2)
      places.add(accounts[path[1]] ?? '');
    else if (path[0] === 'varianceNotes') places.add(nameOf.get(String(path[2])) ?? '');
  }
  for (const { value } of [...c.patches, ...c.inverse] as readonly { readonly value?: unknown }[])
    for (const name of fileNames(value)) places.add(name);
  const list = [...places].filter(Boolean);
  return list.length > 4 ? `${list.slice(0, 4).join('; ')} and ${list.length - 4} more` : list.join('; ');
}
