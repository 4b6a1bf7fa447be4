'use client';

import { useMemo, useState } from 'react';
import { Button, Checkbox, NativeSelect, SegmentedControl, TextInput } from '@mantine/core';
import { found } from '@/core/finding';
import { minor, type Minor } from '@/core/money';
import { fromDayNumber, toDayNumber } from '@/core/calendar';
import type { Cash, ItemChange } from '@/core/model';
import { assumedOfItems, type CashView, type Ground, type ShownItem } from '@/core/ground';
import { reachesItem } from '@/core/scenario';
import { TriedMark } from '@/components/TriedMark';
import stage from '@/components/Stage.module.css';
import { instant } from '@/store/actions';
import { dispatch, useBookStore } from '@/store/bookStore';
import { useTry } from '@/store/useTry';
import { markWords } from '@/store/caseWords';
import { countText, moneyFormat } from '@/store/format';
import { recordedName } from '@/store/person';
import { say } from '@/store/session';
import { onDay } from '@/store/cashWords';
import { DecidedCells } from './DecidedCells';
import { MissedTable } from './MissedTable';
import { TakeItems } from './TakeItems';
import classes from './Cash.module.css';

const STATES: readonly { readonly value: ItemChange['state']; readonly label: string }[] = [
  { value: 'counted', label: 'counts' },
  { value: 'waiting', label: 'waits for a look' },
  { value: 'held', label: 'on hold' },
  { value: 'leftOut', label: 'left out' },
];
type Order = 'due' | 'expected' | 'open' | 'counterparty';
const BY: Record<Order, (a: ShownItem, b: ShownItem) => number> = {
  due: (a, b) => a.due - b.due,
  expected: (a, b) => a.expected - b.expected,
  open: (a, b) => b.open - a.open,
  counterparty: (a, b) => a.counterparty.localeCompare(b.counterparty) || a.due - b.due,
};
const AGES = [
  ['not due yet', -Infinity, 0],
  ['1–30 days', 1, 30],
  ['31–60', 31, 60],
  ['61–90', 61, 90],
  ['over 90', 91, Infinity],
] as const;
const STEP = 200;
const KIND_WORDS = { order: 'order', disposal: 'to be sold' } as const;

/** What is unpaid at the closed day: aged, searched, moved to another day, held or left out, each with a reason. */
export function ItemsView({ ground, view }: { readonly ground: Ground; readonly view: CashView }) {
  const tryThis = useTry();
  const readOnly = useBookStore((s) => s.readOnly);
  const [shows, setShows] = useState<'in' | 'out' | 'missed'>('in');
  const side = shows === 'missed' ? 'in' : shows;
  const [sought, setSought] = useState('');
  const [order, setOrder] = useState<Order>('due');
  const [shown, setShown] = useState(STEP);
  const [onlyWaiting, setOnlyWaiting] = useState(false);
  const money = moneyFormat(ground.book);
  const { start } = view.input;
  const own = useMemo(() => view.items.filter((i) => i.side === side), [view.items, side]);
  const shownItems = useMemo(() => {
    const all = own.filter((i) => !onlyWaiting || i.state === 'waiting');
    return [...found(all, (i) => `${i.counterparty} ${i.number}`, sought)].sort(BY[order]);
  }, [own, sought, order, onlyWaiting]);
  const waiting = view.items.filter((i) => i.state === 'waiting');
  const total = own.filter((i) => i.kind === 'invoice').reduce((t, i) => t + i.open, 0);
  const left = view.withoutItems[side];
  const kind = side === 'in' ? 'receivable' : 'payable';
  const bare = ground.book.accounts.filter((a) => a.kind === kind && view.projected.untold.get(a.id));
  const untold = bare.reduce(
    (t, a) => t + (side === 'in' ? 1 : -1) * (view.projected.untold.get(a.id) ?? 0),
    0,
  );
  const runsUntil = onDay(Math.max(start, ...bare.map((a) => view.input.runOffEnd(a.id))));
  const sides = (
    <SegmentedControl
      size="xs"
      aria-label="Side"
      value={shows}
      onChange={(v) => setShows(v as typeof shows)}
      data={[
        { value: 'in', label: 'Owed to us' },
        { value: 'out', label: 'Owed by us' },
        {
          value: 'missed',
          label: `Planned, not come${view.missed.length > 0 ? ` (${view.missed.length})` : ''}`,
        },
      ]}
    />
  );
  if (shows === 'missed')
    return (
      <div className={stage.left} style={{ flex: 1, paddingRight: 18 }}>
        <div className={stage.tools}>{sides}</div>
        <MissedTable ground={ground} missed={view.missed} readOnly={readOnly} />
      </div>
    );
  return (
    <div className={stage.left} style={{ flex: 1, paddingRight: 18 }}>
      <div className={stage.tools}>
        {sides}
        <TextInput
          size="xs"
          aria-label="Find an item"
          placeholder="Find"
          value={sought}
          onChange={(e) => setSought(e.currentTarget.value)}
        />
        <NativeSelect
          aria-label="Order of items"
          value={order}
          data={[
            { value: 'due', label: 'by due day' },
            { value: 'expected', label: 'by expected day' },
            { value: 'open', label: 'largest first' },
            { value: 'counterparty', label: 'by counterparty' },
          ]}
          onChange={(e) => setOrder(e.currentTarget.value as Order)}
        />
        <NewItems ground={ground} view={view} waiting={waiting} readOnly={readOnly} />
        {waiting.length > 0 && (
          <Checkbox
            size="xs"
            label="only what waits"
            checked={onlyWaiting}
            onChange={(e) => setOnlyWaiting(e.currentTarget.checked)}
          />
        )}
        <span className={stage.push} />
        <OrdersStand ground={ground} view={view} side={side} readOnly={readOnly} />
        <TakeItems ground={ground} start={start} />
      </div>
      <div className={classes.ages}>
        {AGES.map(([name, from, to]) => {
          const sum = own
            .filter((i) => i.kind === 'invoice' && start - i.due >= from && start - i.due <= to)
            .reduce((t, i) => t + i.open, 0);
          return (
            <span key={name}>
              {name} <b>{money.text(minor(sum))}</b>
            </span>
          );
        })}
        <span>
          in all <b>{money.text(minor(total))}</b>
        </span>
        <span className={left === 0 ? 'faded' : classes.guess}>
          {left === 0
            ? `ties to the ledger on ${onDay(start)}`
            : withoutWords(money.text, side === 'in' ? left : -left, untold, runsUntil)}
        </span>
      </div>
      <ListsInForce ground={ground} side={side} start={start} readOnly={readOnly} />
      <div className={classes.scroll} tabIndex={0} role="region" aria-label="Open items">
        <table className={classes.table}>
          <thead>
            <tr>
              <th>Counterparty</th>
              <th>Number</th>
              <th>Dated</th>
              <th>Due</th>
              <th className={classes.figure}>Open</th>
              <th>Expected</th>
              <th>State</th>
              <th>Reason</th>
            </tr>
          </thead>
          <tbody>
            {shownItems.slice(0, shown).map((i) => {
              const name = `${i.counterparty || 'Brought forward'} ${i.number}`.trim();
              const { state } = i;
              return (
                <tr
                  key={i.key}
                  data-chosen={i.change !== null}
                  data-off={state === 'held' || state === 'leftOut'}
                >
                  <td>
                    {i.counterparty || <i>Brought forward</i>}{' '}
                    {tryThis && i.counterparty !== '' && i.kind === 'invoice' && (
                      <Button
                        size="compact-xs"
                        variant="subtle"
                        aria-label={`Try what if ${i.counterparty} pays later`}
                        title="Try what if all of it is paid later"
                        onClick={() =>
                          tryThis({ of: { side: i.side, counterparty: i.counterparty }, from: null })
                        }
                      >
                        Try…
                      </Button>
                    )}
                  </td>
                  <td>{i.kind === 'invoice' ? i.number : `${i.number} (${KIND_WORDS[i.kind]})`}</td>
                  <td>{onDay(i.dated)}</td>
                  <td>{onDay(i.due)}</td>
                  <td className={classes.figure}>{money.exact(minor(i.open))}</td>
                  <DecidedCells
                    item={i.change?.day ? { ...i, expected: toDayNumber(i.change.day) } : i}
                    plainState={i.plainState}
                    states={STATES}
                    labels={{
                      day: `${name}: expected on`,
                      state: `${name}: state`,
                      reason: `${name}: reason`,
                    }}
                    beside={
                      <>
                        {comesWords(i) && <span className="faded"> {comesWords(i)}</span>}
                        <TakenIn ground={ground} item={i} />
                      </>
                    }
                    readOnly={readOnly}
                  />
                </tr>
              );
            })}
          </tbody>
        </table>
        {shownItems.length === 0 && <p className="faded">Nothing is open here.</p>}
        {shownItems.length > shown && (
          <Button m={8} onClick={() => setShown(shown + 5 * STEP)}>
            {countText(shownItems.length - shown)} more
          </Button>
        )}
      </div>
    </div>
  );
}

/** That the day of an item is another since an adjustment was taken into a plan. */
function TakenIn({ ground, item }: { readonly ground: Ground; readonly item: ShownItem }) {
  const all = assumedOfItems(ground).taken.filter((a) => reachesItem(a.adjustment.what, item));
  if (all.length === 0) return null;
  const words = markWords(
    all.map((a) => a.adjustment),
    undefined,
  );
  return <TriedMark words={`${words}: expected on ${onDay(item.expected)}`} />;
}

/** The lists that a side's items come from, of what day they are, and taking them back. */
function ListsInForce({
  ground,
  side,
  start,
  readOnly,
}: {
  readonly ground: Ground;
  readonly side: 'in' | 'out';
  readonly start: number;
  readonly readOnly: boolean;
}) {
  const { lists, items } = ground.book.cash;
  const own = lists.filter((l) => l.side === side);
  if (own.length === 0) return null;
  return (
    <div className={classes.ages} aria-label="Lists in force">
      {own.map((l) => {
        const count = items.filter((i) => i.side === side && i.from === l.from).length;
        const day = l.day === null ? null : toDayNumber(l.day);
        const old = day !== null && day < start;
        return (
          <span key={l.from} className={old ? classes.guess : undefined}>
            <b>{l.from}</b>, {count} {count === 1 ? 'item' : 'items'}
            {day === null ? ', of a day that nobody said' : ` of ${onDay(day)}`}
            {old &&
              `: older than the month closed on ${onDay(start)}; what was invoiced and paid since comes from the ledger’s entries`}
            <Button
              ml={8}
              disabled={readOnly}
              aria-label={`Take back the list ${l.from}`}
              onClick={() => {
                dispatch({ type: 'removeOpenList', from: l.from, side });
                say(`${l.from} is taken back. Ctrl+Z brings it in again.`);
              }}
            >
              Take back
            </Button>
          </span>
        );
      })}
    </div>
  );
}

/** What stands in the ledger beyond items, and how it goes: by the terms of its lines, and what no terms tell over days. */
function withoutWords(text: (amount: Minor) => string, left: number, untold: number, until: string): string {
  if (left < 0) return `items are ${text(minor(-left))} more than the ledger has`;
  const told = left - untold;
  const ways = [
    told > 0 ? `${text(minor(told))} by the terms of ${told === left ? 'their' : 'some'} lines` : '',
    untold > 0 ? `${text(minor(untold))} in equal parts until ${until}` : '',
  ].filter(Boolean);
  return `${text(minor(left))} stand in the ledger without items; they come ${ways.join(', ')}`;
}

/** How an item comes, where that is not as a whole on one day. */
function comesWords({ comes, change }: ShownItem): string | null {
  if (comes.ruled) return 'with its line’s days outstanding';
  const days = new Set(comes.shares.filter((s) => s.to === 'bank').map((s) => s.day)).size;
  const lost = comes.shares.some((s) => s.to === 'lost');
  if (change?.day || (days < 2 && !lost)) return null;
  return [days > 1 ? `first of ${days} parts` : '', lost ? 'not all of it' : ''].filter(Boolean).join(', ');
}

/** What happens to what a refresh brings, and looking at what waits. */
function NewItems({
  ground,
  view,
  waiting,
  readOnly,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly waiting: readonly ShownItem[];
  readonly readOnly: boolean;
}) {
  const day = fromDayNumber(view.input.start);
  return (
    <>
      <NativeSelect
        aria-label="New items of a refresh"
        value={ground.book.cash.newItems}
        disabled={readOnly}
        data={[
          { value: 'counted', label: 'new items count at once' },
          { value: 'waitCounted', label: 'new items wait, and count' },
          { value: 'wait', label: 'new items wait, uncounted' },
        ]}
        onChange={(e) => {
          const newItems = e.currentTarget.value as Cash['newItems'];
          dispatch({
            type: 'setCash',
            change: { newItems, lookedThrough: ground.book.cash.lookedThrough ?? day },
          });
        }}
      />
      {waiting.length > 0 && (
        <Button
          disabled={readOnly}
          onClick={() => {
            const by = recordedName();
            const changes = waiting.flatMap((i) =>
              i.change
                ? [
                    {
                      key: i.key,
                      change: i.change.day
                        ? { ...i.change, state: 'counted' as const, by, at: instant() }
                        : null,
                    },
                  ]
                : [],
            );
            if (changes.length > 0) dispatch({ type: 'setItemChanges', changes });
            if (waiting.some((i) => !i.change)) dispatch({ type: 'setCash', change: { lookedThrough: day } });
          }}
        >
          {waiting.length === 1
            ? 'Looked at the one that waits'
            : `Looked at all ${waiting.length} that wait`}
        </Button>
      )}
    </>
  );
}

/** Whether orders of a side stand in place of the plan or on top of it; nothing where there are none. */
function OrdersStand({
  ground,
  view,
  side,
  readOnly,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly side: 'in' | 'out';
  readonly readOnly: boolean;
}) {
  if (!view.items.some((i) => i.kind === 'order' && i.side === side)) return null;
  const source = side === 'in' ? 'salesOrders' : 'purchaseOrders';
  const { ordersOnTop } = ground.book.cash;
  return (
    <NativeSelect
      aria-label="Orders and the plan"
      value={ordersOnTop.includes(source) ? 'top' : 'place'}
      disabled={readOnly}
      data={[
        { value: 'place', label: 'orders in place of the plan' },
        { value: 'top', label: 'orders on top of the plan' },
      ]}
      onChange={(e) => {
        const rest = ordersOnTop.filter((s) => s !== source);
        const onTop = e.currentTarget.value === 'top';
        dispatch({ type: 'setCash', change: { ordersOnTop: onTop ? [...rest, source] : rest } });
      }}
    />
  );
}
