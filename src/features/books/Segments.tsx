'use client';

import { countText } from '@/store/format';
import { useMemo, useState } from 'react';
import { Button, NativeSelect, TextInput } from '@mantine/core';
import {
  LIMITS,
  addSegment,
  assignAccount,
  budgetsBy,
  feedFromColumn,
  mergeSegments,
  renameSegment,
  type Axis,
  type Command,
} from '@/core/model';
import { segmentsOf } from '@/core/ledger';
import { dispatch } from '@/store/bookStore';
import type { Ground } from '@/core/ground';
import { say } from '@/store/session';
import { count } from './words';
import classes from './Books.module.css';

/** The ways in which the business is divided: each with its values, made from the files' columns or by hand. */
export function Segments({ ground, readOnly }: { readonly ground: Ground; readonly readOnly: boolean }) {
  const { book } = ground;
  const [name, setName] = useState('');
  const [chosen, setChosen] = useState<string | null>(null);
  const axis = book.axes.find((a) => a.id === chosen) ?? book.axes[0] ?? null;
  const add = () => {
    const id = `x${book.nextId}`;
    dispatch({ type: 'setAxis', axis: { id, name: name.trim(), columns: [], values: [], byAccount: {} } });
    setChosen(id);
    setName('');
  };
  return (
    <div className={classes.page}>
      <div className={classes.fields}>
        {book.axes.length > 0 && (
          <NativeSelect
            label="Divided by"
            value={axis?.id ?? ''}
            data={book.axes.map((a) => ({ value: a.id, label: a.name }))}
            onChange={(e) => setChosen(e.currentTarget.value)}
          />
        )}
        <TextInput
          label="Another way to divide the business"
          placeholder="Site, department, fund …"
          w={260}
          maxLength={LIMITS.axisName}
          value={name}
          onChange={(e) => setName(e.currentTarget.value)}
        />
        <Button disabled={readOnly || name.trim() === ''} onClick={add}>
          Add by hand
        </Button>
      </div>
      {axis ? (
        <AxisEditor key={axis.id} ground={ground} axis={axis} readOnly={readOnly} />
      ) : (
        <p className="faded" style={{ maxWidth: 620 }}>
          No segments yet. They come from columns of a ledger file such as department, site, class or fund,
          which the intake takes as segments; or add a way of dividing by hand and put accounts into its
          values.
        </p>
      )}
    </div>
  );
}

function AxisEditor({
  ground,
  axis,
  readOnly,
}: {
  readonly ground: Ground;
  readonly axis: Axis;
  readonly readOnly: boolean;
}) {
  const { book, blocks } = ground;
  const { merged } = ground.view;
  const [fresh, setFresh] = useState('');
  /** Does it, and says so; a budget that is made by these segments is named, and nothing is done. */
  const tell = (command: Command, word: string | null): void => {
    const refusal = dispatch(command);
    if (refusal?.code === 'segmentInUse') {
      const names = budgetsBy(book, axis.id).map((b) => b.name);
      say(
        `${names.join(', ')} ${names.length > 1 ? 'are' : 'is'} made by ${axis.name}, so its segments stay as they are. Delete the budget first.`,
        'trouble',
      );
    } else if (!refusal && word) say(word);
  };
  const set = (next: Axis, word: string | null = null): void => {
    if (next !== axis) tell({ type: 'setAxis', axis: next }, word);
  };
  const counts = useMemo(() => {
    const out = new Map<string | null, number>();
    for (const block of blocks) {
      const of = segmentsOf(axis, block, merged);
      for (let i = 0; i < block.count; i++) {
        const v = of(i);
        out.set(v, (out.get(v) ?? 0) + 1);
      }
    }
    return out;
  }, [axis, blocks, merged]);
  const columns = [...new Set(blocks.flatMap((b) => b.segments.map((s) => s.name)))];
  const free = columns.filter((c) => !book.axes.some((a) => a.columns.includes(c)));
  const textsOf = (column: string) =>
    blocks.flatMap((b) => b.segments.filter((s) => s.name === column).flatMap((s) => s.values));
  const named = (id: string) => axis.values.find((v) => v.id === id)?.name ?? '';
  return (
    <>
      <div className={classes.fields}>
        <Rename
          label="Name"
          value={axis.name}
          readOnly={readOnly}
          onValue={(name) => set({ ...axis, name })}
        />
        <span className="faded">
          {axis.columns.length > 0 ? `from the column ${axis.columns.join(', ')}` : 'made by hand'}
        </span>
        {free.length > 0 && (
          <NativeSelect
            label="Feed it from a column too"
            disabled={readOnly}
            value=""
            data={[{ value: '', label: 'Choose…' }, ...free]}
            onChange={(e) => {
              const column = e.currentTarget.value;
              if (column) set(feedFromColumn(axis, column, textsOf(column), book.nextId));
            }}
          />
        )}
        <Button
          disabled={readOnly}
          onClick={() =>
            tell({ type: 'removeAxis', axis: axis.id }, `${axis.name} is taken away. Ctrl+Z brings it back.`)
          }
        >
          Take it away
        </Button>
      </div>
      <table className={classes.table} aria-label={axis.name} style={{ maxWidth: 860 }}>
        <thead>
          <tr>
            <th>Value</th>
            <th>In the files</th>
            <th className={classes.num}>Entries</th>
            <th>Merge into</th>
          </tr>
        </thead>
        <tbody>
          {axis.values.map((v) => (
            <tr key={v.id}>
              <td>
                <Rename
                  aria={`Name of ${v.name}`}
                  value={v.name}
                  readOnly={readOnly}
                  onValue={(name) => set(renameSegment(axis, v.id, name))}
                />
              </td>
              <td className="faded">{v.from.join(', ')}</td>
              <td className={classes.num}>{countText(counts.get(v.id) ?? 0)}</td>
              <td>
                <NativeSelect
                  aria-label={`Merge ${v.name} into`}
                  disabled={readOnly}
                  value=""
                  data={[
                    { value: '', label: '–' },
                    ...axis.values.filter((o) => o.id !== v.id).map((o) => ({ value: o.id, label: o.name })),
                  ]}
                  onChange={(e) => {
                    const into = e.currentTarget.value;
                    if (!into) return;
                    set(
                      mergeSegments(axis, v.id, into),
                      `${v.name} is merged into ${named(into)}. Ctrl+Z parts them again.`,
                    );
                  }}
                />
              </td>
            </tr>
          ))}
          <tr>
            <td>
              <i>unassigned</i>
            </td>
            <td />
            <td className={classes.num}>{countText(counts.get(null) ?? 0)}</td>
            <td />
          </tr>
        </tbody>
      </table>
      <div className={classes.fields} style={{ marginTop: 10 }}>
        <TextInput
          aria-label={`Another value of ${axis.name}`}
          placeholder="Another value"
          maxLength={LIMITS.segmentName}
          value={fresh}
          onChange={(e) => setFresh(e.currentTarget.value)}
        />
        <Button
          disabled={readOnly || fresh.trim() === ''}
          onClick={() => {
            set(addSegment(axis, fresh.trim(), book.nextId));
            setFresh('');
          }}
        >
          Add
        </Button>
      </div>
      {axis.values.length > 0 && <ByAccount ground={ground} axis={axis} readOnly={readOnly} onAxis={set} />}
    </>
  );
}

/** Accounts that belong to a value as a whole, where their entries say nothing. */
function ByAccount({
  ground,
  axis,
  readOnly,
  onAxis,
}: {
  readonly ground: Ground;
  readonly axis: Axis;
  readonly readOnly: boolean;
  readonly onAxis: (axis: Axis) => void;
}) {
  const [open, setOpen] = useState(false);
  const { accounts, merged } = ground.book;
  const assigned = accounts.filter((a) => Object.hasOwn(axis.byAccount, a.id)).length;
  return (
    <section className={classes.step}>
      <h2>
        Accounts as a whole
        <small>
          {assigned > 0
            ? `${count(assigned, 'account')} put into a value`
            : 'for entries that say nothing themselves'}
        </small>
        <Button onClick={() => setOpen(!open)}>{open ? 'Close' : 'Put accounts into values'}</Button>
      </h2>
      {open && (
        <table className={classes.table} style={{ maxWidth: 620 }}>
          <tbody>
            {accounts.map((a) => (
              <tr key={a.id}>
                <td className="figure">{a.code}</td>
                <td>{a.name}</td>
                <td>
                  <NativeSelect
                    aria-label={`${axis.name} of ${a.name}`}
                    disabled={readOnly}
                    value={axis.byAccount[a.id] ?? ''}
                    data={[
                      { value: '', label: 'unassigned' },
                      ...axis.values.map((v) => ({ value: v.id, label: v.name })),
                    ]}
                    onChange={(e) => onAxis(assignAccount(axis, a.id, e.currentTarget.value || null, merged))}
                  />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Rename({
  label,
  aria,
  value,
  readOnly,
  onValue,
}: {
  readonly label?: string;
  readonly aria?: string;
  readonly value: string;
  readonly readOnly: boolean;
  readonly onValue: (value: string) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  return (
    <TextInput
      label={label}
      aria-label={aria}
      variant={label ? 'default' : 'unstyled'}
      disabled={readOnly}
      value={text ?? value}
      maxLength={LIMITS.segmentName}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={() => {
        const next = text?.trim();
        setText(null);
        if (next && next !== value) onValue(next);
      }}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  );
}
