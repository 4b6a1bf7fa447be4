'use client';

import { countText } from '@/store/format';
import { useState, type DragEvent, type KeyboardEvent } from 'react';
import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { found } from '@/core/finding';
import { editText, numberFormatOf, parseAmount, minorDigits, type Minor } from '@/core/money';
import {
  ACCOUNT_KINDS,
  kindsOf,
  LIMITS,
  natureByName,
  NATURES,
  type Account,
  type AccountKind,
  type Command,
  type Nature,
} from '@/core/model';
import { dispatch } from '@/store/bookStore';
import type { Ground } from '@/core/ground';
import { say, setSession } from '@/store/session';
import { MergeAccount } from './MergeAccount';
import { KIND_NAMES, NATURE_NAMES } from '@/store/kindNames';
import classes from './Books.module.css';

const STEP = 150;
const KIND_OPTIONS = ACCOUNT_KINDS.map((k) => ({ value: k, label: KIND_NAMES[k] }));

/** What an account is for beyond its kind: by its name, unless someone says it. */
function NatureCell({
  account,
  readOnly,
  onNature,
}: {
  readonly account: Account;
  readonly readOnly: boolean;
  readonly onNature: (nature: Nature | null) => void;
}) {
  const fitting = NATURES.filter((n) => kindsOf(n).includes(account.kind));
  if (fitting.length === 0 && account.nature === undefined) return null;
  const byName = natureByName(account);
  const said = account.nature;
  return (
    <NativeSelect
      w={146}
      aria-label={`What ${account.name} serves as`}
      disabled={readOnly}
      value={said ?? ''}
      data={[
        { value: '', label: byName ? NATURE_NAMES[byName] : '–' },
        ...(said === undefined || fitting.includes(said) ? fitting : [said, ...fitting]).map((n) => ({
          value: n as string,
          label: `${NATURE_NAMES[n]} (said)`,
        })),
      ]}
      onChange={(e) => onNature((e.currentTarget.value || null) as Nature | null)}
    />
  );
}

/** The chart of accounts: order, names, kinds, groups, usual amounts, who looks after them; each change one undo step. */
export function AccountsTable({ ground, readOnly }: { readonly ground: Ground; readonly readOnly: boolean }) {
  const { book } = ground;
  const [find, setFind] = useState('');
  const [drawn, setDrawn] = useState(STEP);
  const [dragged, setDragged] = useState<string | null>(null);
  const [over, setOver] = useState<string | null>(null);
  const [merging, setMerging] = useState<Account | null>(null);
  const accounts = found(book.accounts, (a) => `${a.code} ${a.name} ${a.group} ${a.keeper}`, find);
  const groups = [...new Set(book.accounts.map((a) => a.group))].filter(Boolean);
  const keepers = [...new Set(book.accounts.map((a) => a.keeper))].filter(Boolean);
  const edit = (account: Account, change: Extract<Command, { type: 'editAccount' }>['change']) =>
    dispatch({ type: 'editAccount', account: account.id, change });
  const move = (account: string, before: string | null) => dispatch({ type: 'moveAccount', account, before });
  const step = (account: Account, by: 1 | -1) => {
    const at = book.accounts.findIndex((a) => a.id === account.id);
    const target = by < 0 ? book.accounts[at - 1] : (book.accounts[at + 2] ?? null);
    if (target === undefined || (by > 0 && at === book.accounts.length - 1)) return;
    move(account.id, target?.id ?? null);
    say(`${account.name} moved ${by < 0 ? 'up' : 'down'}.`);
  };
  const onDrop = (e: DragEvent, before: string) => {
    e.preventDefault();
    e.stopPropagation();
    if (dragged && dragged !== before) move(dragged, before);
    setDragged(null);
    setOver(null);
  };
  return (
    <div className={classes.page}>
      <div className={classes.fields}>
        <TextInput
          label="Find an account"
          placeholder="Code, name, group or person"
          w={260}
          value={find}
          onChange={(e) => setFind(e.currentTarget.value)}
        />
        <Button disabled={readOnly} onClick={() => setSession({ asked: 'account' })}>
          Add an account…
        </Button>
        <span className="faded">
          Drag a row by its handle to move it, or use Alt with the arrow keys on it.
        </span>
      </div>
      <datalist id="groups">
        {groups.map((g) => (
          <option key={g} value={g} />
        ))}
      </datalist>
      <datalist id="keepers">
        {keepers.map((k) => (
          <option key={k} value={k} />
        ))}
      </datalist>
      <table className={classes.table} aria-label="Accounts">
        <thead>
          <tr>
            <th aria-label="Order" />
            <th>Code</th>
            <th>Name</th>
            <th>Kind</th>
            <th>Serves as</th>
            <th>Group</th>
            <th>Usual month, from – to</th>
            <th>Looked after by</th>
            <th>Active</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {accounts.slice(0, drawn).map((a) => (
            <tr
              key={a.id}
              data-over={over === a.id || undefined}
              className={a.active ? undefined : classes.idle}
              onDragOver={(e) => {
                if (!dragged) return;
                e.preventDefault();
                e.stopPropagation();
                setOver(a.id);
              }}
              onDrop={(e) => onDrop(e, a.id)}
            >
              <td>
                <button
                  type="button"
                  className={classes.handle}
                  disabled={readOnly}
                  draggable={!readOnly}
                  aria-label={`Move ${a.name}`}
                  title="Drag to move; Alt ↑ or Alt ↓"
                  onDragStart={(e) => {
                    e.dataTransfer.effectAllowed = 'move';
                    e.dataTransfer.setData('text/plain', a.name);
                    setDragged(a.id);
                  }}
                  onDragEnd={() => {
                    setDragged(null);
                    setOver(null);
                  }}
                  onKeyDown={(e: KeyboardEvent) => {
                    if (!e.altKey || (e.key !== 'ArrowUp' && e.key !== 'ArrowDown')) return;
                    e.preventDefault();
                    step(a, e.key === 'ArrowUp' ? -1 : 1);
                  }}
                >
                  ⋮⋮
                </button>
              </td>
              <td>
                <TextCell
                  label={`Code of ${a.name}`}
                  value={a.code}
                  width={70}
                  most={LIMITS.accountCode}
                  readOnly={readOnly}
                  onValue={(code) => edit(a, { code })}
                />
              </td>
              <td>
                <TextCell
                  label={`Name of ${a.name}`}
                  value={a.name}
                  most={LIMITS.accountName}
                  readOnly={readOnly}
                  required
                  onValue={(name) => edit(a, { name })}
                />
              </td>
              <td>
                <NativeSelect
                  aria-label={`Kind of ${a.name}`}
                  disabled={readOnly}
                  value={a.kind}
                  data={KIND_OPTIONS}
                  onChange={(e) => edit(a, { kind: e.currentTarget.value as AccountKind })}
                />
              </td>
              <td>
                <NatureCell account={a} readOnly={readOnly} onNature={(nature) => edit(a, { nature })} />
              </td>
              <td>
                <TextCell
                  label={`Group of ${a.name}`}
                  value={a.group}
                  list="groups"
                  most={LIMITS.group}
                  readOnly={readOnly}
                  onValue={(group) => edit(a, { group })}
                />
              </td>
              <td>
                <div className={classes.pair}>
                  {(['low', 'high'] as const).map((end) => (
                    <AmountCell
                      key={end}
                      label={`${end === 'low' ? 'Least' : 'Most'} usual month of ${a.name}`}
                      value={a.usual[end]}
                      ground={ground}
                      readOnly={readOnly}
                      onValue={(v) => edit(a, { usual: { ...a.usual, [end]: v } })}
                    />
                  ))}
                </div>
              </td>
              <td>
                <TextCell
                  label={`Who looks after ${a.name}`}
                  value={a.keeper}
                  list="keepers"
                  most={LIMITS.keeper}
                  readOnly={readOnly}
                  onValue={(keeper) => edit(a, { keeper })}
                />
              </td>
              <td>
                <Checkbox
                  size="xs"
                  aria-label={`${a.name} is active`}
                  checked={a.active}
                  disabled={readOnly}
                  onChange={(e) => edit(a, { active: e.currentTarget.checked })}
                />
              </td>
              <td>
                <Button
                  disabled={readOnly}
                  aria-label={`Merge ${a.name} into another account`}
                  onClick={() => setMerging(a)}
                >
                  Merge…
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {accounts.length > drawn && (
        <Button mt="xs" onClick={() => setDrawn(drawn + 4 * STEP)}>
          Show more of {countText(accounts.length)} accounts
        </Button>
      )}
      {accounts.length === 0 && <p className="faded">No account matches “{find}”.</p>}
      <MergeAccount ground={ground} account={merging} onClose={() => setMerging(null)} />
    </div>
  );
}

type CellProps<T> = {
  readonly label: string;
  readonly value: T;
  readonly readOnly: boolean;
  readonly onValue: (value: T) => void;
};

function TextCell({
  label,
  value,
  most,
  width,
  list,
  required = false,
  readOnly,
  onValue,
}: CellProps<string> & {
  /** Letters at most. */
  readonly most: number;
  readonly width?: number;
  readonly list?: string;
  readonly required?: boolean;
}) {
  const [text, setText] = useState<string | null>(null);
  const commit = () => {
    const next = text?.trim() ?? value;
    setText(null);
    if (next !== value && (next !== '' || !required)) onValue(next);
  };
  return (
    <TextInput
      aria-label={label}
      variant="unstyled"
      disabled={readOnly}
      w={width}
      list={list}
      placeholder="–"
      value={text ?? value}
      maxLength={most}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur();
        if (e.key === 'Escape') setText(null);
      }}
    />
  );
}

/** A bound of the usual month; empty for none. */
function AmountCell({
  label,
  value,
  ground: { book },
  readOnly,
  onValue,
}: CellProps<Minor | null> & { readonly ground: Ground }) {
  const [text, setText] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const commit = () => {
    if (text === null) return;
    const parsed = parseAmount(text, minorDigits(book.currency), numberFormatOf(book.locale));
    if (!parsed.ok) return setWrong(parsed.code === 'tooLarge' ? 'too large' : 'not an amount');
    if (parsed.percent) return setWrong('not an amount');
    setWrong(null);
    setText(null);
    if (parsed.value !== value) onValue(parsed.value);
  };
  return (
    <TextInput
      aria-label={label}
      variant="unstyled"
      disabled={readOnly}
      w={74}
      placeholder="any"
      error={wrong}
      value={text ?? editText(value, book.currency, book.locale)}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={commit}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  );
}
