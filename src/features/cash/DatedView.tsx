'use client';

import { useState } from 'react';
import { Button, NativeSelect, TextInput } from '@mantine/core';
import { minor, type Minor } from '@/core/money';
import { fromDayNumber, type Day } from '@/core/calendar';
import { datesOf } from '@/core/schedule';
import { isProfitAndLoss, LIMITS, type Book, type DatedItem } from '@/core/model';
import type { CashView, Ground } from '@/core/ground';
import { CellSelect } from '@/components/CellSelect';
import { MoneyInput, NumberInput } from '@/components/MoneyInput';
import stage from '@/components/Stage.module.css';
import { instant } from '@/store/actions';
import { dispatch, useBookStore } from '@/store/bookStore';
import { useTry } from '@/store/useTry';
import { dayText, moneyFormat } from '@/store/format';
import { recordedName } from '@/store/person';
import { onDay, repeatWords } from '@/store/cashWords';
import { AccountChoice } from '@/components/AccountChoice';
import { DayInput } from '@/components/DayInput';
import classes from './Cash.module.css';

const GROUPS: Record<DatedItem['group'], string> = {
  owners: 'Owners',
  loans: 'Loans',
  taxes: 'Taxes',
  disposals: 'Disposals',
  other: 'Other',
};

/** A payment of today’s plan that is not filled in yet. */
const blank = (book: Book, first: Day): DatedItem => ({
  id: `i${book.nextId}`,
  name: '',
  direction: 'out',
  amount: minor(0),
  first,
  repeat: null,
  against: null,
  bank: null,
  group: 'other',
});

/** Receipts and payments that no budget line has: draws, grants, refunds, an equipment sale; once or repeating. */
export function DatedView({ ground, view }: { readonly ground: Ground; readonly view: CashView }) {
  const readOnly = useBookStore((s) => s.readOnly);
  const { book } = ground;
  const money = moneyFormat(book);
  const [draft, setDraft] = useState<DatedItem | null>(null);
  const until = view.input.start + view.projected.days;
  return (
    <div className={`${stage.work} ${classes.work}`}>
      <div className={stage.left}>
        <div className={stage.tools}>
          <span className="faded">Receipts and payments that no budget line has.</span>
          <span className={stage.push} />
          <Button
            disabled={readOnly}
            onClick={() => setDraft(blank(book, fromDayNumber(view.input.start + 1)))}
          >
            Add a dated item
          </Button>
        </div>
        <div className={classes.scroll} tabIndex={0} role="region" aria-label="Dated items">
          <table className={classes.table}>
            <thead>
              <tr>
                <th>What</th>
                <th>Of</th>
                <th>First day</th>
                <th>Repeats</th>
                <th className={classes.figure}>Comes in</th>
                <th className={classes.figure}>Goes out</th>
                <th>Next</th>
                <th>State</th>
              </tr>
            </thead>
            <tbody>
              {book.cash.dated.map((d) => {
                const state = book.cash.changes[`dated ${d.id}`]?.state ?? 'counted';
                const [next] = datesOf(d, view.input.start, until);
                return (
                  <tr key={d.id} data-chosen={draft?.id === d.id} data-off={state !== 'counted'}>
                    <td>
                      <button type="button" className={classes.name} onClick={() => setDraft(d)}>
                        {d.name}
                      </button>
                    </td>
                    <td>{GROUPS[d.group]}</td>
                    <td>{dayText(d.first)}</td>
                    <td>{d.repeat ? repeatWords(d.repeat) : 'once'}</td>
                    <td className={classes.figure}>{d.direction === 'in' ? money.exact(d.amount) : ''}</td>
                    <td className={classes.figure}>{d.direction === 'out' ? money.exact(d.amount) : ''}</td>
                    <td>{next === undefined ? 'none ahead' : onDay(next)}</td>
                    <td>
                      <CellSelect
                        aria-label={`${d.name}: state`}
                        value={state}
                        disabled={readOnly}
                        data={[
                          { value: 'counted', label: 'counts' },
                          { value: 'held', label: 'on hold' },
                        ]}
                        onChange={(e) =>
                          dispatch({
                            type: 'setItemChanges',
                            changes: [
                              {
                                key: `dated ${d.id}`,
                                change:
                                  e.currentTarget.value === 'counted'
                                    ? null
                                    : {
                                        day: null,
                                        state: 'held',
                                        reason: '',
                                        by: recordedName(),
                                        at: instant(),
                                      },
                              },
                            ],
                          })
                        }
                      />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {book.cash.dated.length === 0 && <p className="faded">None yet.</p>}
        </div>
      </div>
      <aside
        tabIndex={0}
        className={stage.panel}
        data-open={draft !== null || undefined}
        aria-label="Dated item"
      >
        {draft ? (
          <DatedForm
            key={draft.id}
            book={book}
            item={draft}
            readOnly={readOnly}
            onDone={() => setDraft(null)}
          />
        ) : (
          <p className="faded">Choose an item to change it, or add one.</p>
        )}
      </aside>
    </div>
  );
}

function DatedForm({
  book,
  item,
  readOnly,
  onDone,
}: {
  readonly book: Book;
  readonly item: DatedItem;
  readonly readOnly: boolean;
  readonly onDone: () => void;
}) {
  const tryThis = useTry();
  const [now, setNow] = useState(item);
  const set = (change: Partial<DatedItem>) => setNow({ ...now, ...change });
  const isNew = !book.cash.dated.some((d) => d.id === item.id);
  const ready = now.name.trim() !== '' && now.amount > 0;
  const { repeat } = now;
  const banks = book.accounts.filter((a) => a.kind === 'bank');
  const pays = now.bank ?? book.cash.bank ?? banks[0]?.id;
  // Another bank account on the other side makes it a transfer.
  const accounts = book.accounts.filter((a) => !isProfitAndLoss(a.kind) && a.id !== pays);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (ready && !dispatch({ type: 'setDatedItem', item: { ...now, name: now.name.trim() } })) onDone();
      }}
      style={{ display: 'grid', gap: 8 }}
    >
      <h2>{isNew ? 'A new dated item' : item.name}</h2>
      <TextInput
        size="xs"
        label="What"
        data-autofocus
        maxLength={LIMITS.accountName}
        value={now.name}
        onChange={(e) => set({ name: e.currentTarget.value })}
      />
      <NativeSelect
        label="Direction"
        value={now.direction}
        data={[
          { value: 'out', label: 'goes out' },
          { value: 'in', label: 'comes in' },
        ]}
        onChange={(e) => set({ direction: e.currentTarget.value as DatedItem['direction'] })}
      />
      <MoneyInput
        size="xs"
        label="Amount"
        value={now.amount}
        currency={book.currency}
        locale={book.locale}
        onCommit={(v) => set({ amount: Math.abs(v ?? 0) as Minor })}
      />
      <DayInput label="First day" value={now.first} onCommit={(day) => day && set({ first: day })} />
      <NativeSelect
        label="Repeats"
        value={repeat === null ? '' : repeat.unit}
        data={[
          { value: '', label: 'once' },
          { value: 'weeks', label: 'by weeks' },
          { value: 'months', label: 'by months' },
        ]}
        onChange={(e) => {
          const unit = e.currentTarget.value;
          set({
            repeat:
              unit === ''
                ? null
                : { every: 1, until: null, times: null, ...repeat, unit: unit as 'weeks' | 'months' },
          });
        }}
      />
      {repeat && (
        <>
          <NumberInput
            size="xs"
            label={`Every so many ${repeat.unit}`}
            least={1}
            most={120}
            value={repeat.every}
            onCommit={(every) => set({ repeat: { ...repeat, every } })}
          />
          <DayInput
            label="Until (blank: without end)"
            value={repeat.until}
            onCommit={(until) => set({ repeat: { ...repeat, until } })}
          />
          <NumberInput
            size="xs"
            label="So many times (0: without end)"
            least={0}
            most={1000}
            value={repeat.times ?? 0}
            onCommit={(times) => set({ repeat: { ...repeat, times: times === 0 ? null : times } })}
          />
        </>
      )}
      <NativeSelect
        label="Stands among"
        value={now.group}
        data={Object.entries(GROUPS).map(([value, label]) => ({ value, label }))}
        onChange={(e) => set({ group: e.currentTarget.value as DatedItem['group'] })}
      />
      <AccountChoice
        label="Against the account"
        none="none in particular"
        accounts={accounts}
        value={now.against}
        onValue={(against) => set({ against })}
      />
      <AccountChoice
        label="Bank account"
        none="the one that pays by default"
        accounts={banks}
        value={now.bank}
        onValue={(bank) => set({ bank, against: now.against === bank ? null : now.against })}
      />
      <Button type="submit" disabled={readOnly || !ready}>
        {isNew ? 'Add it' : 'Keep the change'}
      </Button>
      {!ready && <span className="faded">It needs a name and an amount.</span>}
      {!isNew && (
        <Button
          disabled={readOnly}
          onClick={() => {
            dispatch({ type: 'removeDatedItem', item: item.id });
            onDone();
          }}
        >
          Take it away
        </Button>
      )}
      {!isNew && tryThis && (
        <Button onClick={() => tryThis({ of: { dated: item.id }, from: null })}>Try it later…</Button>
      )}
      <Button onClick={onDone}>Leave it</Button>
    </form>
  );
}
