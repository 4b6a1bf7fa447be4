'use client';

import { useMemo, useRef, useState } from 'react';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Button, Checkbox, NativeSelect, Switch } from '@mantine/core';
import {
  cellKey,
  compareReturn,
  draftOf,
  mergeOf,
  NO_PICKS,
  roundPeriods,
  USUAL_MEANING,
  yearBeforeOf,
  type ComparedCell,
  type ComparedLine,
  type Meaning,
  type PickedSide,
  type Picks,
} from '@/core/handout';
import type { Ground } from '@/core/ground';
import {
  isProfitAndLoss,
  lineKey,
  newAccount,
  type Budget,
  type CellValue,
  type Handout,
  type LineRef,
  type OwnTaken,
  type Return,
  type Round,
} from '@/core/model';
import { minor, splitEven, sumBlank, type Minor } from '@/core/money';
import stage from '@/components/Stage.module.css';
import { instant } from '@/store/actions';
import { dispatch } from '@/store/bookStore';
import { moneyFormat } from '@/store/format';
import { CELL_STATE_WORDS, returnWords, SAID_WORDS, STRAY_WORDS } from '@/store/handoutWords';
import { say } from '@/store/session';
import { lineLabel } from './lineLabel';
import classes from './Handouts.module.css';

/** What a line of their own becomes: left, put to an account that is there, or an account of its own. */
type OwnChoice = 'leave' | 'income' | 'expense' | `a:${string}`;

/** Height of a row, in pixels. */
const ROW = 29;

const MARKS: Readonly<Record<ComparedCell['state'], string>> = {
  same: '',
  changed: '●',
  agrees: '✓',
  blanked: '○',
  left: '',
  unread: '✗',
  conflict: '!',
};

/** A return beside the draft, cell by cell, and what of it goes into the budget. */
export function ReturnView({
  ground,
  budget,
  round,
  handout,
  returned,
  readOnly,
  onBack,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly round: Round;
  readonly handout: Handout;
  readonly returned: Return;
  readonly readOnly: boolean;
  readonly onBack: () => void;
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const [meaning, setMeaning] = useState<Meaning>(USUAL_MEANING);
  const [picks, setPicks] = useState<Picks>(NO_PICKS);
  const [own, setOwn] = useState<Readonly<Record<number, OwnChoice>>>({});
  const [withComments, setWithComments] = useState(true);
  const [at, setAt] = useState<{ readonly line: string; readonly cell: number } | null>(null);
  const periods = useMemo(() => roundPeriods(calendar, round), [calendar, round]);
  const { lines, merged } = useMemo(() => {
    const c = {
      round,
      handout,
      returned,
      periods,
      draft: draftOf(ground, budget, round),
      lastYear: yearBeforeOf(ground, budget, round).of,
      meaning,
      picks,
    };
    const compared = compareReturn(c);
    return { lines: compared, merged: mergeOf(compared, c) };
  }, [ground, budget, round, handout, returned, periods, meaning, picks]);
  const accounts = useMemo(() => new Map(book.accounts.map((a) => [a.id, a])), [book.accounts]);
  const axis = book.axes.find((a) => a.id === budget.axis) ?? null;
  const nameOf = (line: LineRef) => lineLabel(accounts.get(line.account), axis, line);
  const pick = (line: ComparedLine, cell: number | null, side: PickedSide | null) => {
    const [cells, whole] = [new Map(picks.cells), new Map(picks.lines)];
    const [map, key] = cell === null ? [whole, lineKey(line)] : [cells, cellKey(line, cell)];
    if (side) map.set(key, side);
    else map.delete(key);
    setPicks({ cells, lines: whole });
  };
  const settle = (side: PickedSide) => {
    const cells = new Map(picks.cells);
    for (const line of lines)
      line.cells.forEach((c, i) => {
        if (c.state === 'conflict') cells.set(cellKey(line, i), side);
      });
    setPicks({ ...picks, cells });
  };
  const [differing, setDiffering] = useState(false);
  const shown = useMemo(
    () =>
      differing
        ? lines.filter(
            (l) =>
              l.beyond ||
              l.line.turned ||
              l.line.comment !== '' ||
              l.cells.some((c) => c.state !== 'same' && c.state !== 'left'),
          )
        : lines,
    [lines, differing],
  );
  // Someone may send back a whole budget: only the rows in sight are drawn.
  const scroll = useRef<HTMLDivElement>(null);
  // eslint-disable-next-line react-hooks/incompatible-library -- the virtualizer is meant to be read anew on each render
  const rows = useVirtualizer({
    count: shown.length,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW,
    overscan: 20,
  });
  const sight = rows.getVirtualItems();
  const [above, below] = [
    (sight[0]?.index ?? 0) * ROW,
    (shown.length - 1 - (sight.at(-1)?.index ?? shown.length - 1)) * ROW,
  ];
  const frozen = budget.state !== 'draft';
  const missing = handout.lines.filter((l) => !returned.lines.some((r) => lineKey(r) === lineKey(l)));
  const heads = round.answer === 'months' ? periods.map((p) => p.short) : ['All months'];
  const chosen = at && lines.find((l) => lineKey(l) === at.line);
  const cell = chosen?.cells[at!.cell];
  const takes = returned.own.map((o, place) => ({ o, place, choice: own[place] ?? 'leave' }));
  const merge = () => {
    let next = book.nextId;
    const cells: CellValue[] = [...merged.cells];
    const taken = takes.map(({ o, place, choice }): OwnTaken => {
      if (choice === 'leave') return { place, line: null, account: null };
      const account = choice.startsWith('a:')
        ? null
        : { ...newAccount(`a${next++}`, '', o.name, choice as 'income' | 'expense') };
      const line = { account: account?.id ?? choice.slice(2), segment: budget.segments[0] ?? null };
      const amounts =
        round.answer === 'months'
          ? o.cells.map((c) => c.amount)
          : o.cells[0]?.amount == null
            ? []
            : splitEven(o.cells[0].amount, periods.length);
      amounts.forEach((value, i) => {
        if (value !== null) cells.push({ ...line, period: periods[i]!.id, value });
      });
      return { place, line, account };
    });
    const notes = withComments
      ? lines.flatMap(({ line, account, segment }) =>
          line.comment.trim() === ''
            ? []
            : [{ account, segment, note: { text: line.comment, by: handout.to, at: instant() } }],
        )
      : [];
    const refused = dispatch({
      type: 'mergeReturn',
      round: round.id,
      handout: handout.id,
      fingerprint: returned.fingerprint,
      at: instant(),
      cells,
      notes,
      own: taken,
      said: returnWords(handout, returned),
    });
    if (refused) return;
    say(
      `${merged.counts.in} ${merged.counts.in === 1 ? 'figure' : 'figures'} of ${returnWords(handout, returned)} went into ${budget.name}. Ctrl+Z takes them back.`,
    );
    onBack();
  };
  const text = (a: Minor | null) => (a === null ? '·' : money.text(a));
  const sides: readonly (readonly [PickedSide, string, string])[] = cell
    ? [
        ['theirs', 'Theirs', cell.theirs.is === 'amount' ? text(cell.theirs.amount) : cell.theirs.raw || '·'],
        ['ours', 'The draft now', text(cell.ours)],
        ['handed', 'When it was handed out', text(cell.handed)],
      ]
    : [];
  const sideOf = chosen
    ? (picks.cells.get(cellKey(chosen, at!.cell)) ?? picks.lines.get(at!.line) ?? null)
    : null;
  return (
    <div className={stage.work}>
      <div className={stage.left}>
        <div className={stage.tools}>
          <Button onClick={onBack}>Back to the round</Button>
          <NativeSelect
            aria-label="What a blank means"
            value={meaning.blank}
            disabled={returned.merged !== null}
            data={[
              { value: 'leave', label: 'A blank says nothing' },
              { value: 'clear', label: 'A blank makes blank' },
              { value: 'zero', label: 'A blank is a zero' },
            ]}
            onChange={(e) => setMeaning({ ...meaning, blank: e.currentTarget.value as Meaning['blank'] })}
          />
          <NativeSelect
            aria-label="What a zero means"
            value={meaning.zero}
            disabled={returned.merged !== null}
            data={[
              { value: 'zero', label: 'A zero is a zero' },
              { value: 'leave', label: 'A zero says nothing' },
            ]}
            onChange={(e) => setMeaning({ ...meaning, zero: e.currentTarget.value as Meaning['zero'] })}
          />
          <NativeSelect
            aria-label="How it goes in"
            value={meaning.how}
            disabled={returned.merged !== null}
            data={[
              { value: 'replace', label: 'In place of the draft' },
              { value: 'add', label: 'Changes on top of the draft' },
            ]}
            onChange={(e) => setMeaning({ ...meaning, how: e.currentTarget.value as Meaning['how'] })}
          />
          <Switch
            size="xs"
            label="Only what differs"
            checked={differing}
            onChange={(e) => setDiffering(e.currentTarget.checked)}
          />
        </div>
        <div
          ref={scroll}
          className={classes.scroll}
          tabIndex={0}
          role="region"
          aria-label={`Return of ${handout.to}`}
        >
          <table className={classes.table} aria-rowcount={shown.length + 1}>
            <thead>
              <tr>
                <th data-words>Line</th>
                {heads.map((h) => (
                  <th key={h}>{h}</th>
                ))}
                <th>Theirs</th>
                <th>Draft</th>
                <th data-words>Comment</th>
              </tr>
            </thead>
            <tbody>
              {above > 0 && <tr aria-hidden style={{ height: above }} />}
              {sight.map(({ index }) => {
                const line = shown[index]!;
                const key = lineKey(line);
                return (
                  <tr key={key} aria-rowindex={index + 2}>
                    <td data-words>
                      {nameOf(line)}
                      {line.line.turned && <small className="faded"> · read as a cost</small>}
                      {line.beyond && <small style={{ color: 'var(--bad)' }}> · beyond its limit</small>}
                    </td>
                    {line.cells.map((c, i) => (
                      <td
                        key={i}
                        data-state={c.state}
                        data-settled={picks.cells.has(cellKey(line, i)) || undefined}
                        title={CELL_STATE_WORDS[c.state]}
                      >
                        <button
                          type="button"
                          className={classes.pick}
                          aria-label={`${nameOf(line)}, ${heads[i]}: ${CELL_STATE_WORDS[c.state]}, ${theirsText(c, text)}`}
                          aria-pressed={at?.line === key && at.cell === i}
                          onClick={() => setAt({ line: key, cell: i })}
                        >
                          <span className={classes.mark} aria-hidden>
                            {MARKS[c.state]}
                          </span>
                          {theirsText(c, text)}
                        </button>
                      </td>
                    ))}
                    <td>{text(sumBlank(line.cells.map((c) => c.theirs.amount)))}</td>
                    <td>{text(sumBlank(line.cells.map((c) => c.ours)))}</td>
                    <td data-words>{line.line.comment}</td>
                  </tr>
                );
              })}
              {below > 0 && <tr aria-hidden style={{ height: below }} />}
              {missing.slice(0, 200).map((l) => (
                <tr key={`missing ${lineKey(l)}`}>
                  <td data-words className="faded">
                    {nameOf(l)} · not in the file
                  </td>
                  <td colSpan={heads.length + 3} />
                </tr>
              ))}
            </tbody>
          </table>
          {returned.own.length > 0 && (
            <table className={classes.table} style={{ marginTop: 16 }} aria-label="Lines of their own">
              <thead>
                <tr>
                  <th data-words>Lines of their own</th>
                  {heads.map((h) => (
                    <th key={h}>{h}</th>
                  ))}
                  <th data-words>Becomes</th>
                </tr>
              </thead>
              <tbody>
                {takes.map(({ o, place, choice }) => (
                  <tr key={place}>
                    <td data-words>
                      {o.name} <small className="faded">{o.comment}</small>
                    </td>
                    {heads.map((h, i) => (
                      <td key={h}>{text(o.cells[i]?.amount ?? null)}</td>
                    ))}
                    <td data-words>
                      {o.done ? (
                        'settled'
                      ) : (
                        <NativeSelect
                          aria-label={`What ${o.name} becomes`}
                          value={choice}
                          disabled={readOnly || frozen}
                          data={[
                            { value: 'leave', label: 'Left' },
                            { value: 'income', label: 'A new account of income' },
                            { value: 'expense', label: 'A new account of costs' },
                            ...handoutable(ground).map((a) => ({
                              value: `a:${a.id}`,
                              label: [a.code, a.name].filter(Boolean).join(' '),
                            })),
                          ]}
                          onChange={(e) => setOwn({ ...own, [place]: e.currentTarget.value as OwnChoice })}
                        />
                      )}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
        </div>
      </div>
      <aside tabIndex={0} className={stage.panel} aria-label="What goes in">
        <h2>{handout.to}</h2>
        <div className="faded" style={{ fontSize: 12.5 }}>
          {returned.fileName}
          {returned.known === 'names' ? ' · known by its names and months' : ''}
        </div>
        <section>
          <div className={stage.pair}>
            <span>Their own totals</span>
            <span>{merged.off === null ? 'none' : money.exact(minor(merged.read + merged.off))}</span>
          </div>
          <div className={stage.pair}>
            <span>What was read</span>
            <span>{money.exact(minor(merged.read))}</span>
          </div>
          {merged.off !== null && merged.off !== 0 && (
            <p className={stage.odd}>
              Their totals are {money.exact(minor(Math.abs(merged.off)))} {merged.off > 0 ? 'more' : 'less'}{' '}
              than what was read: a cell that is no amount, or totals that were not reckoned again.
            </p>
          )}
          <div className={stage.pair}>
            <span>
              Goes in: {merged.counts.in} {merged.counts.in === 1 ? 'figure' : 'figures'}
            </span>
            <span>{money.exact(minor(merged.goesIn))}</span>
          </div>
          <div className={stage.pair}>
            <span>Stay as they are</span>
            <span>{merged.counts.same}</span>
          </div>
          {merged.counts.unread > 0 && (
            <div className={stage.pair}>
              <span style={{ color: 'var(--bad)' }}>No amounts</span>
              <span>{merged.counts.unread}</span>
            </div>
          )}
          {merged.counts.open > 0 && (
            <>
              <div className={stage.pair}>
                <span style={{ color: 'var(--bad)' }}>Changed by both, not settled</span>
                <span>{merged.counts.open}</span>
              </div>
              <div className={classes.sides}>
                <Button onClick={() => settle('theirs')}>All of them: theirs</Button>
                <Button onClick={() => settle('ours')}>All of them: ours</Button>
              </div>
            </>
          )}
        </section>
        {chosen && cell && (
          <section aria-label="One figure">
            <div className="label">
              {nameOf(chosen)}, {heads[at!.cell]}
            </div>
            <p style={{ margin: '4px 0', fontSize: 13 }}>
              {cell.state === 'unread' ? SAID_WORDS[cell.theirs.is] : CELL_STATE_WORDS[cell.state]} · row{' '}
              {chosen.line.row} of the file
            </p>
            <div className={classes.sides}>
              {sides.map(([side, label, value]) => (
                <Button
                  key={side}
                  aria-pressed={sideOf === side}
                  variant={sideOf === side ? 'filled' : 'default'}
                  disabled={
                    returned.merged !== null ||
                    (side === 'theirs' && cell.theirs.is !== 'amount' && cell.theirs.is !== 'blank')
                  }
                  justify="space-between"
                  rightSection={value}
                  onClick={() => pick(chosen, at!.cell, sideOf === side ? null : side)}
                >
                  {label}
                </Button>
              ))}
              {(['theirs', 'ours'] as const).map((side) => (
                <Button
                  key={`line ${side}`}
                  disabled={returned.merged !== null}
                  aria-pressed={picks.lines.get(at!.line) === side}
                  variant={picks.lines.get(at!.line) === side ? 'filled' : 'default'}
                  onClick={() => pick(chosen, null, picks.lines.get(at!.line) === side ? null : side)}
                >
                  The whole line: {side === 'theirs' ? 'theirs' : 'as the draft has it'}
                </Button>
              ))}
            </div>
          </section>
        )}
        {returned.strays.length + returned.without.length > 0 && (
          <section>
            <div className="label">Not read, or worth a look</div>
            {returned.strays.slice(0, 40).map((s, i) => (
              <p key={i} className={stage.odd}>
                Row {s.row}: {STRAY_WORDS[s.code](s.what)}
              </p>
            ))}
            {returned.without.length > 0 && (
              <p className={stage.odd}>
                No column of{' '}
                {periods
                  .filter((p) => returned.without.includes(p.id))
                  .map((p) => p.label)
                  .join(', ')}
                .
              </p>
            )}
          </section>
        )}
        <section>
          <Checkbox
            size="xs"
            label="Their comments become notes"
            checked={withComments}
            onChange={(e) => setWithComments(e.currentTarget.checked)}
          />
          {frozen && <p className="faded">{budget.name} is approved: revise it to put answers in.</p>}
          <Button
            mt={10}
            variant="filled"
            disabled={readOnly || frozen || returned.merged !== null || merged.counts.open > 0}
            onClick={merge}
          >
            {returned.merged ? 'It is in the budget' : 'Put it into the budget'}
          </Button>
          {!readOnly && returned.merged === null && (
            <Button
              mt={6}
              c="var(--bad)"
              onClick={() => {
                const gone = { round: round.id, handout: handout.id, fingerprint: returned.fingerprint };
                if (!dispatch({ type: 'dropReturn', ...gone })) onBack();
              }}
            >
              Leave it out
            </Button>
          )}
        </section>
      </aside>
    </div>
  );
}

const theirsText = (c: ComparedCell, text: (a: Minor | null) => string): string =>
  c.theirs.is === 'amount' ? text(c.theirs.amount) : c.theirs.raw || '·';

const handoutable = ({ book }: Ground) => book.accounts.filter((a) => a.active && isProfitAndLoss(a.kind));
