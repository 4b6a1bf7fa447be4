'use client';

import { useRouter } from 'next/navigation';
import { useMemo, useRef, useState } from 'react';
import { Button, Checkbox, FileButton, NativeSelect } from '@mantine/core';
import { rangeLabel, type Day } from '@/core/calendar';
import {
  draftOf,
  handedLines,
  handoutState,
  linesToHand,
  newHandout,
  roundPeriods,
  yearBeforeOf,
} from '@/core/handout';
import type { Ground } from '@/core/ground';
import { profitSign, type Budget, type Handout, type Round } from '@/core/model';
import { minor, plus, sumBlank, type Minor } from '@/core/money';
import stage from '@/components/Stage.module.css';
import { today } from '@/store/actions';
import { dispatch, useBookStore } from '@/store/bookStore';
import { dayText, moneyFormat } from '@/store/format';
import { HANDOUT_STATE_WORDS } from '@/store/handoutWords';
import { sendHandouts, takeReturns, takeTable } from '@/store/handouts';
import { recordedName } from '@/store/person';
import { say } from '@/store/session';
import { AddHandout } from './AddHandout';
import { HandoutPanel } from './HandoutPanel';
import { ReturnView } from './ReturnView';
import { RoundForm } from './RoundForm';
import classes from './Handouts.module.css';

/** Lines that others fill in: rounds of handouts, what is out, what came back, and the budget that comes of it. */
export function HandoutsView({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const router = useRouter();
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const readOnly = useBookStore((s) => s.readOnly);
  const rounds = useMemo(() => book.rounds.filter((r) => r.budget === budget.id), [book.rounds, budget.id]);
  const [roundId, setRoundId] = useState<string | null>(null);
  const round = rounds.find((r) => r.id === roundId) ?? rounds.at(-1) ?? null;
  const [form, setForm] = useState<'newRound' | 'round' | 'add' | 'edit' | null>(null);
  const [chosen, setChosen] = useState<string | null>(null);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [as, setAs] = useState<'xlsx' | 'csv'>('xlsx');
  const [withMail, setWithMail] = useState(false);
  const [looked, setLooked] = useState<string | null>(null);
  const [making, setMaking] = useState<number | null>(null);
  const [dragged, setDragged] = useState(false);
  const stop = useRef<AbortController | null>(null);
  const handout = round?.handouts.find((h) => h.id === chosen) ?? null;
  const returned = handout?.returns.find((r) => r.fingerprint === looked) ?? null;

  if (round && handout && returned)
    return (
      <ReturnView
        key={returned.fingerprint}
        {...{ ground, budget, round, handout, returned, readOnly }}
        onBack={() => setLooked(null)}
      />
    );

  const send = async (handouts: readonly Handout[], reminds: boolean) => {
    if (!round) return;
    stop.current = new AbortController();
    setMaking(0);
    await sendHandouts(ground, round, handouts, { as, withMail, reminds }, setMaking, stop.current.signal);
    setMaking(null);
  };
  /** All lines for whoever works here: out, worked on in a spreadsheet, and back with the same proof. */
  const wholeBudget = () => {
    if (!round) return;
    const id = `h${book.nextId}`;
    const lines = linesToHand(ground, budget, () => true, true);
    const to = recordedName() || 'Myself';
    const whole = newHandout(id, to, '', handedLines(ground, budget, round, lines));
    if (whole.lines.length === 0) return say('The budget has no lines of profit and loss yet.', 'trouble');
    if (!dispatch({ type: 'setRound', round: { ...round, handouts: [...round.handouts, whole] } }))
      setChosen(id);
  };
  const takeIn = async (file: File) => {
    const place = await takeTable(ground, budget, file);
    if (!place) return;
    setRoundId(place.round);
    setChosen(place.handout);
  };
  const several = round?.handouts.filter((h) => ticked.size === 0 || ticked.has(h.id)) ?? [];

  return (
    <div className={stage.work}>
      <div
        className={`${stage.left} ${dragged ? classes.drop : ''}`}
        onDragOver={(e) => {
          e.preventDefault();
          setDragged(true);
        }}
        onDragLeave={() => setDragged(false)}
        onDrop={(e) => {
          e.preventDefault();
          setDragged(false);
          if (!readOnly) void takeReturns([...e.dataTransfer.files], null);
        }}
      >
        <div className={stage.tools}>
          {rounds.length > 0 && (
            <NativeSelect
              aria-label="Round"
              value={round?.id}
              data={rounds.map((r) => ({ value: r.id, label: r.name }))}
              onChange={(e) => {
                setRoundId(e.currentTarget.value);
                setChosen(null);
                setTicked(new Set());
              }}
            />
          )}
          {!readOnly && (
            <>
              <Button onClick={() => setForm('newRound')}>New round</Button>
              {round && <Button onClick={() => setForm('add')}>Add someone</Button>}
              {round && (
                <Button
                  title="All lines in one workbook, to work on in a spreadsheet and take back"
                  onClick={wholeBudget}
                >
                  The whole budget
                </Button>
              )}
              {round && round.handouts.length > 0 && (
                <>
                  <NativeSelect
                    aria-label="Files as"
                    value={as}
                    data={[
                      { value: 'xlsx', label: 'Workbooks' },
                      { value: 'csv', label: 'CSV' },
                    ]}
                    onChange={(e) => setAs(e.currentTarget.value as typeof as)}
                  />
                  <Checkbox
                    size="xs"
                    label="with a message each"
                    checked={withMail}
                    onChange={(e) => setWithMail(e.currentTarget.checked)}
                  />
                  <Button
                    variant="filled"
                    disabled={making !== null}
                    onClick={() => void send(several, false)}
                  >
                    {`Hand out ${several.length}`}
                  </Button>
                </>
              )}
              {making !== null && (
                <>
                  <span role="status">{Math.round(making * 100)}%</span>
                  <Button onClick={() => stop.current?.abort()}>Stop</Button>
                </>
              )}
              <span className={stage.push} />
              <FileButton
                accept=".csv,.txt,.tsv,.xlsx"
                onChange={(file) => file && void takeIn(file)}
                inputProps={{ 'aria-label': 'A table of the budget' }}
              >
                {(props) => (
                  <Button {...props} title="A budget made elsewhere: accounts down, months across">
                    Take in a table…
                  </Button>
                )}
              </FileButton>
              {round && (
                <FileButton
                  accept=".csv,.txt,.tsv,.xlsx"
                  multiple
                  onChange={(files) => void takeReturns(files, null)}
                  inputProps={{ 'aria-label': 'Returned files' }}
                >
                  {(props) => <Button {...props}>Returned files…</Button>}
                </FileButton>
              )}
            </>
          )}
        </div>
        {form === 'newRound' || form === 'round' ? (
          <div className={`${classes.scroll} ${classes.wide}`}>
            <RoundForm
              key={form}
              ground={ground}
              budget={budget}
              round={form === 'round' ? round : null}
              onDone={(id) => {
                if (id) setRoundId(id);
                setForm(null);
              }}
            />
          </div>
        ) : (form === 'add' || form === 'edit') && round ? (
          <div className={classes.scroll}>
            <AddHandout
              key={form}
              {...{ ground, budget, round }}
              handout={form === 'edit' ? handout : null}
              onDone={(id) => {
                if (id) setChosen(id);
                setForm(null);
              }}
            />
          </div>
        ) : round ? (
          <RoundTable
            {...{ ground, budget, round, chosen, ticked, money }}
            onChoose={setChosen}
            onTick={(id, on) => {
              const next = new Set(ticked);
              if (on) next.add(id);
              else next.delete(id);
              setTicked(next);
            }}
          />
        ) : (
          <div className={classes.wide}>
            <p>
              People who know their lines fill them in without this program: each gets a workbook of their
              own, sends it back, and what they changed is seen beside the draft before it goes in.
            </p>
            <p className="faded">
              Start a round for {budget.name}: who asks, by when, for which months. Someone who makes a table
              of their own can answer too: it is read by its names and months.
            </p>
            <p className="faded">
              Actuals that people keep in files of their own come in under{' '}
              <button
                type="button"
                className={classes.link}
                onClick={() => router.push('/books?view=sources')}
              >
                Books, one source each
              </button>
              .
            </p>
          </div>
        )}
      </div>
      <aside tabIndex={0} className={stage.panel} aria-label="Handout">
        {handout && round ? (
          <HandoutPanel
            {...{ ground, budget, round, handout, readOnly }}
            onEdit={() => setForm('edit')}
            onSend={(reminds) => void send([handout], reminds)}
            onReturn={setLooked}
          />
        ) : round ? (
          <>
            <h2>{round.name}</h2>
            <div className="faded" style={{ fontSize: 12.5 }}>
              {[
                round.asks && `asked by ${round.asks}`,
                round.due && `due ${dayText(round.due)}`,
                rangeLabel(calendar, rangeOf(ground, round)),
                round.answer === 'months' ? 'by month' : 'one amount',
              ]
                .filter(Boolean)
                .join(' · ')}
            </div>
            <p className="faded" style={{ fontSize: 13 }}>
              Drop returned files anywhere here. Choose someone to see their lines and what came back.
            </p>
            {!readOnly && (
              <div className={classes.sides}>
                <Button onClick={() => setForm('round')}>Change the round</Button>
                <Button
                  c="var(--bad)"
                  onClick={() => {
                    if (!dispatch({ type: 'removeRound', round: round.id }))
                      say(`${round.name} is taken away. Ctrl+Z brings it back.`);
                  }}
                >
                  Take the round away
                </Button>
              </div>
            )}
          </>
        ) : (
          <p className="faded">Nothing is handed out yet.</p>
        )}
      </aside>
    </div>
  );
}

function rangeOf({ calendar }: Ground, round: Round) {
  const periods = roundPeriods(calendar, round);
  return { first: periods[0]?.index ?? 0, last: periods.at(-1)?.index ?? 0 };
}

/** Everyone of a round: what is out and in, and what it comes to beside last year and what they are asked to stay within. */
function RoundTable({
  ground,
  budget,
  round,
  chosen,
  ticked,
  money,
  onChoose,
  onTick,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly round: Round;
  readonly chosen: string | null;
  readonly ticked: ReadonlySet<string>;
  readonly money: ReturnType<typeof moneyFormat>;
  readonly onChoose: (handout: string) => void;
  readonly onTick: (handout: string, on: boolean) => void;
}) {
  const { book } = ground;
  const rows = useMemo(() => {
    const signs = new Map(book.accounts.map((a) => [a.id, profitSign(a.kind)]));
    const draft = draftOf(ground, budget, round);
    const before = yearBeforeOf(ground, budget, round);
    const sum = (
      h: Handout,
      of: (l: Handout['lines'][number]) => readonly (Minor | null)[],
    ): Minor | null => {
      let [total, any] = [0, false];
      for (const l of h.lines)
        for (const a of of(l))
          if (a !== null) {
            any = true;
            total = plus(total, (signs.get(l.account) ?? 1) * a);
          }
      return any ? minor(total) : null;
    };
    return round.handouts.map((h) => ({
      h,
      state: handoutState(h, round, today() as Day),
      last: sum(h, before.of),
      handed: sum(h, (l) => l.handed),
      now: sum(h, draft),
      // A limit is a limit, of incomes and of costs.
      target: sumBlank(h.lines.map((l) => l.target)),
    }));
  }, [ground, budget, round, book.accounts]);
  const total = (pick: (r: (typeof rows)[number]) => Minor | null): Minor | null =>
    rows.every((r) => pick(r) === null)
      ? null
      : minor(rows.reduce((t: number, r) => plus(t, pick(r) ?? 0), 0));
  const text = (a: Minor | null) => (a === null ? '·' : money.text(a));
  const inCount = rows.filter((r) => r.state === 'merged' || r.state === 'returned').length;
  return (
    <div className={classes.scroll} tabIndex={0} role="region" aria-label="Handouts of the round">
      <table className={classes.table}>
        <thead>
          <tr>
            <th data-words>For</th>
            <th data-words>State</th>
            <th>Lines</th>
            <th title="Incomes less costs of their lines">Last year</th>
            <th>Handed out</th>
            <th>Stay within</th>
            <th>Draft now</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ h, state, last, handed, now, target }) => (
            <tr key={h.id} data-chosen={h.id === chosen || undefined}>
              <td data-words>
                <Checkbox
                  size="xs"
                  display="inline-block"
                  mr={8}
                  aria-label={`Choose ${h.to}`}
                  checked={ticked.has(h.id)}
                  onChange={(e) => onTick(h.id, e.currentTarget.checked)}
                />
                <button
                  type="button"
                  className={classes.pick}
                  aria-pressed={h.id === chosen}
                  onClick={() => onChoose(h.id)}
                >
                  {h.to}
                </button>
              </td>
              <td data-words>
                <span className={classes.state} data-state={state}>
                  {HANDOUT_STATE_WORDS[state]}
                </span>
              </td>
              <td>{h.lines.length}</td>
              <td>{text(last)}</td>
              <td>{text(handed)}</td>
              <td>{text(target)}</td>
              <td>{text(now)}</td>
            </tr>
          ))}
          {rows.length === 0 && (
            <tr>
              <td data-words colSpan={7} className="faded">
                Nobody is asked yet: “Add someone” hands lines to a person.
              </td>
            </tr>
          )}
          {rows.length > 1 && (
            <tr data-total>
              <td data-words>Together</td>
              <td data-words>
                {inCount} of {rows.length} came back
              </td>
              <td>{rows.reduce((t, r) => t + r.h.lines.length, 0)}</td>
              <td>{text(total((r) => r.last))}</td>
              <td>{text(total((r) => r.handed))}</td>
              <td>{text(total((r) => r.target))}</td>
              <td>{text(total((r) => r.now))}</td>
            </tr>
          )}
        </tbody>
      </table>
      <p className="faded" style={{ fontSize: 12.5 }}>
        Sums are incomes less costs. What is merged is in {budget.name} at once: the worksheet, cash and
        statements show it.
      </p>
    </div>
  );
}
