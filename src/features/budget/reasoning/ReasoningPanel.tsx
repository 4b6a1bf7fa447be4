'use client';

import { useState, type RefObject } from 'react';
import dynamic from 'next/dynamic';
import { Button, Textarea } from '@mantine/core';
import { ZERO, sumBlank, type Minor } from '@/core/money';
import { fiscalYearsLabel } from '@/core/calendar';
import { LIMITS, segmentName, type Line, type LineRef, type Note } from '@/core/model';
import { explainMonth, type LineResult, type Reckoning } from '@/core/plan';
import { ROW_NAMES, type PeriodGroup, type SectionKind } from '@/core/report';
import { AccountChoice } from '@/components/AccountChoice';
import stage from '@/components/Stage.module.css';
import { dispatch } from '@/store/bookStore';
import type { Ground, Reckoned } from '@/core/ground';
import { dayText, moneyFormat } from '@/store/format';
import { lookedNow, noteOf, wantName } from '@/store/person';
import { setSession, useSession } from '@/store/session';
import { useTry } from '@/store/useTry';
import { CellHistory } from './FigureHistory';
import { MethodEditor } from '../methods/MethodEditor';
import { yearBefore } from '@/core/ground';
import { kindWords } from '@/components/formula/kindWords';
import { reasonWords, type Naming } from '../words';
import classes from '../Budget.module.css';

/** Cash is reckoned for whoever asks for it; nothing of it is loaded before. */
const AppliedPart = dynamic(() => import('./AppliedPart').then((m) => m.AppliedPart));
const LineCash = dynamic(() => import('./LineCash').then((m) => m.LineCash));

type Props = {
  readonly ground: Ground;
  readonly reckoned: Reckoned;
  /** The selected lines; the first is the one under the cursor. */
  readonly refs: readonly LineRef[];
  readonly lineOf: (ref: LineRef) => Line | undefined;
  /** The months of the selected column; null on the total. */
  readonly group: PeriodGroup | null;
  readonly net: Minor | null;
  readonly readOnly: boolean;
  readonly notesOnly: boolean;
  readonly noteField: RefObject<HTMLTextAreaElement | null>;
};

/**
 * How a month was made, step by step. An approved figure keeps its steps while its method still comes to it; when the
 * ledger has gone on since, both figures are said.
 */
function stepsOf(
  line: Line,
  result: LineResult,
  reckoning: Reckoning,
  month: number,
  approved: Minor | null | undefined,
  naming: Naming,
): { readonly text: string; readonly figure: string }[] {
  const now = result.amounts[month] ?? null;
  if (approved === undefined || approved === now)
    return explainMonth(line, result, reckoning, month).map((reason) => reasonWords(reason, naming));
  const exact = (v: Minor | null) => (v === null ? 'blank' : naming.money.exact(v));
  return [
    { text: 'Its method comes to this by now', figure: exact(now) },
    { text: 'as it was approved', figure: exact(approved) },
  ];
}

/** How the selected line is made, what it changes, and where both are edited. */
export function ReasoningPanel({
  ground,
  reckoned,
  refs,
  lineOf,
  group,
  net,
  readOnly,
  notesOnly,
  noteField,
}: Props) {
  const { book, calendar } = ground;
  const { budget, facts, reckoning } = reckoned;
  const ref = refs[0]!;
  const account = book.accounts.find((a) => a.id === ref.account)!;
  const line = lineOf(ref);
  const result = reckoning.lines.get(ref);
  const money = moneyFormat(book);
  const tryThis = useTry();
  const moneyShown = useSession((s) => s.moneyShown);
  // Net profit as it was when the person came to this line.
  const [cameWith] = useState(net);
  const change = ((net ?? 0) - (cameWith ?? 0)) as Minor;
  const plan = reckoned.figures(ref.account, ref.segment);
  const before = yearBefore(ground, reckoned);
  const lastYear = before.of(ref.account, ref.segment);
  const year = fiscalYearsLabel(facts.periods);
  const month = group && group.to - group.from === 1 ? group.from : null;
  const balance = facts.isBalance(ref.account);
  const naming: Naming = {
    calendar,
    money,
    account: (id) => book.accounts.find((x) => x.id === id)?.name ?? 'a line that is gone',
    driver: (id) => budget.drivers.find((d) => d.id === id)?.name ?? 'a driver that is gone',
    adjustment: (id) =>
      [...budget.applied.map((a) => a.adjustment), ...book.adjustments].find((a) => a.id === id)?.name ??
      'an adjustment that is gone',
    row: (id) => budget.schedules.find((r) => r.id === id)?.name ?? 'a row that is gone',
  };
  const axis = book.axes.find((a) => a.id === budget.axis);
  const segment = axis && segmentName(axis, ref.segment);
  const notesAllowed = !readOnly || notesOnly;
  const period = month === null ? null : facts.periods[month]!;
  const steps =
    line && result && month !== null
      ? stepsOf(
          line,
          result,
          reckoning,
          month,
          budget.approved ? (plan?.amounts[month] ?? null) : undefined,
          naming,
        )
      : [];
  const last = balance ? (lastYear.findLast((v) => v !== null) ?? null) : sumBlank(lastYear);

  return (
    <>
      <h2>{account.name}</h2>
      <div className="faded" style={{ fontSize: 12 }}>
        {[account.code, ROW_NAMES[account.kind as SectionKind] ?? kindWords(account.kind), segment]
          .filter(Boolean)
          .join(' · ')}
      </div>
      <MethodEditor
        ground={ground}
        reckoned={reckoned}
        refs={refs}
        lineOf={lineOf}
        net={net}
        readOnly={readOnly}
      />
      {budget.applied.length + book.adjustments.length > 0 && (
        <AppliedPart
          book={book}
          budget={budget}
          account={account}
          segment={ref.segment}
          calendar={calendar}
          readOnly={readOnly || budget.state !== 'draft'}
        />
      )}
      {period && steps.length > 0 && (
        <section aria-label="How the month was made">
          <div className="label">{period.label}</div>
          <ol className={classes.steps}>
            {steps.map(({ text, figure }, i) => (
              <li key={i}>
                <span>{text}</span>
                <span className={classes.figure}>{figure}</span>
              </li>
            ))}
          </ol>
        </section>
      )}
      <section>
        <div className="label">What it changes</div>
        <div className={stage.pair}>
          <span>
            {before.label} → {year}
          </span>
          <span>
            {money.text(last ?? ZERO)} →{' '}
            <b>
              {money.text(
                (balance
                  ? (plan?.amounts.findLast((v) => v !== null) ?? null)
                  : sumBlank([...(plan?.amounts ?? []), ...(plan?.wholes ?? [])])) ?? ZERO,
              )}
            </b>
          </span>
        </div>
        {net !== null && (
          <div className={stage.pair}>
            <span>Net profit {year}</span>
            <span>
              {change !== 0 && <>{money.text(cameWith ?? ZERO)} → </>}
              <b>{money.text(net)}</b>
            </span>
          </div>
        )}
        {change !== 0 && (
          <div className={stage.pair}>
            <span>Since you came to this line</span>
            <span>{money.signed(change)}</span>
          </div>
        )}
        {!balance && tryThis && (
          <Button mt={8} onClick={() => tryThis({ of: { line: ref.account }, from: period?.id ?? null })}>
            Try a change of it…
          </Button>
        )}
      </section>
      {balance && (
        <section>
          <div className="label">What brings it about</div>
          <AccountChoice
            label="The difference on each month’s last day comes from"
            none={account.kind === 'bank' ? 'nothing: the bank follows' : 'the bank'}
            accounts={book.accounts.filter((a) => a.active && a.id !== account.id)}
            value={budget.contras[account.id] ?? null}
            readOnly={readOnly}
            onValue={(against) =>
              dispatch({ type: 'setContra', budget: budget.id, account: account.id, against })
            }
          />
        </section>
      )}
      {!balance && (
        <section aria-label="What its money does">
          <Button aria-expanded={moneyShown} onClick={() => setSession({ moneyShown: !moneyShown })}>
            {moneyShown ? 'Hide its money' : 'What its money does'}
          </Button>
          {moneyShown && (
            <LineCash ground={ground} budget={budget} line={ref} period={period?.index ?? null} />
          )}
        </section>
      )}
      <section>
        <Button
          disabled={!notesAllowed}
          aria-pressed={Boolean(line?.looked)}
          onClick={() =>
            dispatch({
              type: 'setLooked',
              budget: budget.id,
              lines: refs,
              looked: line?.looked ? null : lookedNow(),
            })
          }
        >
          {line?.looked ? '✓ Looked at' : 'Mark as looked at'}
        </Button>
        {line?.looked && <span className={classes.by}>{byWords(line.looked)}</span>}
      </section>
      <section>
        <div className="label" id="line-note">
          Note on the line
        </div>
        <NoteField
          key={`line ${line?.note?.text ?? ''}`}
          labelledBy="line-note"
          account={ref.account}
          note={line?.note ?? null}
          disabled={!notesAllowed}
          field={noteField}
          onNote={(text) =>
            dispatch({ type: 'setLineNote', budget: budget.id, line: ref, note: noteOf(text) })
          }
        />
        {period && (
          <>
            <div className="label" id="cell-note" style={{ marginTop: 10 }}>
              Note on {period.label}
            </div>
            <NoteField
              key={`${period.id} ${line?.cellNotes[period.id]?.text ?? ''}`}
              labelledBy="cell-note"
              note={line?.cellNotes[period.id] ?? null}
              disabled={!notesAllowed}
              onNote={(text) =>
                dispatch({
                  type: 'setCellNote',
                  budget: budget.id,
                  cell: { ...ref, period: period.id },
                  note: noteOf(text),
                })
              }
            />
          </>
        )}
      </section>
      <CellHistory
        key={`${budget.id} ${month ?? ''}`}
        ground={ground}
        budget={budget}
        line={ref}
        month={month}
      />
    </>
  );
}

/** Who and when, in a few words. */
const byWords = ({ by, at }: { readonly by: string; readonly at: string }): string =>
  [by, at && dayText(at)].filter(Boolean).join(', ');

function NoteField({
  note,
  labelledBy,
  account,
  disabled,
  field,
  onNote,
}: {
  readonly note: Note | null;
  readonly labelledBy: string;
  /** Marks the field of the line's note, for whoever waits for it. */
  readonly account?: string;
  readonly disabled: boolean;
  readonly field?: RefObject<HTMLTextAreaElement | null>;
  readonly onNote: (text: string) => void;
}) {
  const was = note?.text ?? '';
  const [text, setText] = useState(was);
  return (
    <>
      <Textarea
        ref={field}
        className={classes.note}
        aria-labelledby={labelledBy}
        data-account={account}
        rows={2}
        maxLength={LIMITS.note}
        disabled={disabled}
        placeholder="Why this figure"
        value={text}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={() => {
          if (text === was) return;
          onNote(text);
          wantName();
        }}
        onKeyDown={(e) => {
          if (e.key === 'Escape') e.currentTarget.blur();
        }}
      />
      {note && <span className={classes.by}>{byWords(note)}</span>}
    </>
  );
}
