'use client';

import { countText } from '@/store/format';
import { useEffect, useState } from 'react';
import { Button, Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import type { Schedule } from '@/core/model';
import type { Ground } from '@/core/ground';
import {
  connectFeed,
  disconnectFeed,
  FEED_PATH,
  feedSimulation,
  loadPulls,
  pullNow,
  setSchedule,
  useFeed,
  type FeedSimulation,
  type PulledItems,
  type PullRecord,
} from '@/store/feed';
import { say } from '@/store/session';
import { FEED_FAULTS } from './intakeWords';
import { count } from './words';
import classes from './Books.module.css';

const DAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'];

/** The ledger feed: connecting, pulling on demand or by schedule, and what came of each pull. */
export function FeedPanel({ ground, readOnly }: { readonly ground: Ground; readonly readOnly: boolean }) {
  const { feed } = ground.book;
  const { log, pulling } = useFeed();
  const [busy, setBusy] = useState(false);
  const { id } = ground.book;
  useEffect(() => void loadPulls(id), [id]);
  if (!feed)
    return (
      <div className={classes.page}>
        <p style={{ maxWidth: 640 }}>
          A ledger feed brings the entries of an accounting service without files. The service that ships with
          Tellan is simulated: it holds the demo company’s ledger at <code>{FEED_PATH}</code> and closes a
          month when asked. The book takes what comes after its own last day.
        </p>
        <Button
          variant="filled"
          disabled={readOnly || busy}
          onClick={async () => {
            setBusy(true);
            const trouble = await connectFeed();
            setBusy(false);
            if (trouble) say(trouble, 'trouble');
          }}
        >
          Connect to the feed
        </Button>
        <Simulation />
      </div>
    );
  return (
    <div className={classes.page}>
      <div className={classes.fields}>
        <div>
          <b>{feed.company}</b>
          <div className={classes.hintLine}>
            {feed.url}, entries up to {countText(feed.cursor)} are in the book
          </div>
        </div>
        <Button variant="filled" disabled={readOnly || pulling} onClick={() => void pullNow('asked')}>
          {pulling ? 'Pulling…' : 'Pull now'}
        </Button>
        <ScheduleFields schedule={feed.schedule} readOnly={readOnly} />
        <Button disabled={readOnly} onClick={disconnectFeed}>
          Disconnect
        </Button>
      </div>
      <PullLog log={log} />
      <Simulation />
    </div>
  );
}

function ScheduleFields({ schedule, readOnly }: { readonly schedule: Schedule; readonly readOnly: boolean }) {
  return (
    <>
      <NativeSelect
        label="Pull while the app is open"
        disabled={readOnly}
        value={schedule.every}
        data={[
          { value: 'never', label: 'only when asked' },
          { value: 'hours', label: 'every so many hours' },
          { value: 'days', label: 'on certain days' },
        ]}
        onChange={(e) => {
          const every = e.currentTarget.value as Schedule['every'];
          setSchedule(
            every === 'hours'
              ? { every, hours: 4 }
              : every === 'days'
                ? { every, weekdays: [1, 2, 3, 4, 5], at: '08:00' }
                : { every: 'never' },
          );
        }}
      />
      {schedule.every === 'hours' && (
        <NumberInput
          label="Hours"
          size="xs"
          w={80}
          min={1}
          max={168}
          disabled={readOnly}
          value={schedule.hours}
          onChange={(v) =>
            typeof v === 'number' &&
            v >= 1 &&
            v <= 168 &&
            setSchedule({ every: 'hours', hours: Math.round(v) })
          }
        />
      )}
      {schedule.every === 'days' && (
        <>
          <div role="group" aria-label="Weekdays" className={classes.weekdays}>
            {DAYS.map((d, i) => (
              <Checkbox
                key={d}
                size="xs"
                label={d}
                disabled={readOnly}
                checked={schedule.weekdays.includes(i + 1)}
                onChange={(e) => {
                  const weekdays = e.currentTarget.checked
                    ? [...schedule.weekdays, i + 1].sort()
                    : schedule.weekdays.filter((w) => w !== i + 1);
                  if (weekdays.length > 0) setSchedule({ ...schedule, weekdays });
                }}
              />
            ))}
          </div>
          <TextInput
            label="At"
            type="time"
            w={120}
            disabled={readOnly}
            value={schedule.at}
            onChange={(e) =>
              /^\d\d:\d\d$/.test(e.currentTarget.value) &&
              setSchedule({ ...schedule, at: e.currentTarget.value })
            }
          />
        </>
      )}
    </>
  );
}

function PullLog({ log }: { readonly log: readonly PullRecord[] }) {
  if (log.length === 0) return null;
  return (
    <table className={classes.table} aria-label="Pulls" style={{ maxWidth: 860 }}>
      <thead>
        <tr>
          <th>When</th>
          <th>How</th>
          <th>What came of it</th>
        </tr>
      </thead>
      <tbody>
        {[...log].reverse().map((r, i) => (
          <tr key={`${r.at}-${i}`}>
            <td className="figure">{new Date(r.at).toLocaleString('sv-SE')}</td>
            <td>{r.how === 'asked' ? 'asked for' : 'by schedule'}</td>
            <td className={r.outcome.is === 'failed' ? classes.bad : undefined}>{outcomeWords(r.outcome)}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function itemsWords({ items, aside = [], itemsFailed }: PulledItems): string {
  if (itemsFailed) return '; its open items could not be taken in, and those of before stand';
  if (items === undefined) return '';
  const left = aside.length > 0 ? `, set aside: ${aside.join(', ')}` : '';
  return `; ${count(items, 'open item', 'open items')} as of the closed day${left}`;
}

function outcomeWords(o: PullRecord['outcome']): string {
  switch (o.is) {
    case 'connected':
      return 'connected';
    case 'nothingNew':
      return `nothing new${itemsWords(o)}`;
    case 'taken':
      return `${count(o.entries, 'entry', 'entries')} taken in, up to number ${countText(o.through)}${itemsWords(o)}`;
    case 'waits':
      return `${count(o.entries, 'entry', 'entries')} came and wait for your look on the intake page`;
    case 'failed':
      return `nothing was taken: ${FEED_FAULTS[o.code]}${o.detail ? ` (${o.detail})` : ''}`;
  }
}

/** The simulated service's own controls: closing a month, and misbehaving, to see that nothing is lost or doubled. */
function Simulation() {
  const [state, setState] = useState<FeedSimulation | null>(null);
  useEffect(() => {
    void feedSimulation().then(setState);
  }, []);
  const change = (what: 'close' | 'settings' | 'reset', body?: object) =>
    void feedSimulation(what, body).then((s) => s && setState(s));
  if (!state) return null;
  return (
    <section className={classes.step} aria-label="The simulated service">
      <h2>
        The simulated service <small>{state.closedMonths} months closed since July 2024</small>
      </h2>
      <div className={classes.fields}>
        <Button onClick={() => change('close')}>Close one more month</Button>
        <Button onClick={() => change('settings', { failNext: 5 })}>
          Fail the next five answers{state.failNext > 0 ? ` (${state.failNext} left)` : ''}
        </Button>
        <Button onClick={() => change('settings', { halfNext: 1 })}>
          Break off the next page{state.halfNext > 0 ? ` (${state.halfNext} left)` : ''}
        </Button>
        <Checkbox
          size="xs"
          label="Repeat entries on every page"
          checked={state.repeat}
          onChange={(e) => change('settings', { repeat: e.currentTarget.checked })}
        />
        <Checkbox
          size="xs"
          label="Take three seconds for every answer"
          checked={state.delayMs > 0}
          onChange={(e) => change('settings', { delayMs: e.currentTarget.checked ? 3000 : 0 })}
        />
        <Button onClick={() => change('reset')}>As at first</Button>
      </div>
    </section>
  );
}
