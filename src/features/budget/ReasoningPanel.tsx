'use client';

import { useState, type RefObject } from 'react';
import { Textarea } from '@mantine/core';
import { ZERO, type Minor } from '@/core/money';
import { fiscalYearLabel } from '@/core/calendar';
import { blankLine, type AccountId, type MethodKind } from '@/core/model';
import { explainMonth } from '@/core/plan';
import { ROW_NAMES, type PeriodGroup, type SectionKind } from '@/core/report';
import { PairBars } from '@/components/PairBars';
import stage from '@/components/Stage.module.css';
import { dispatch } from '@/store/bookStore';
import type { Ground, Reckoned } from '@/store/derived';
import { moneyFormat } from '@/store/format';
import { methodAs } from './methodChange';
import { MethodFields } from './MethodFields';
import { ISSUE_WORDS, METHOD_HINTS, METHOD_NAMES, reasonWords } from './words';
import classes from './Budget.module.css';

const KINDS: readonly MethodKind[] = ['byMonth', 'lastYear', 'even', 'pattern', 'share'];

type Props = {
  readonly ground: Ground;
  readonly reckoned: Reckoned;
  readonly account: AccountId;
  /** The months of the selected column; null on the total. */
  readonly group: PeriodGroup | null;
  readonly net: Minor | null;
  readonly readOnly: boolean;
  readonly notesOnly: boolean;
  readonly noteField: RefObject<HTMLTextAreaElement | null>;
};

/** How the selected line is made, what it changes, and where both are edited. */
export function ReasoningPanel({
  ground,
  reckoned,
  account: id,
  group,
  net,
  readOnly,
  notesOnly,
  noteField,
}: Props) {
  const { book, calendar } = ground;
  const { budget, facts, reckoning, amounts } = reckoned;
  const account = book.accounts.find((a) => a.id === id)!;
  const line = budget.lines[id] ?? blankLine(id);
  const result = reckoning.lines.get(id);
  const money = moneyFormat(book);
  // Net profit as it was when the person came to this line.
  const [cameWith] = useState(net);
  const change = ((net ?? 0) - (cameWith ?? 0)) as Minor;
  const plan = amounts(id) ?? facts.periods.map(() => null);
  const { lastYear } = facts.past(id);
  const year = fiscalYearLabel(facts.periods.at(-1)!.year);
  const prior = fiscalYearLabel(facts.periods[0]!.year - 1);
  const firstIncome = book.accounts.find((a) => a.kind === 'income' && a.id !== id) ?? null;
  const month = group && group.to - group.from === 1 ? group.from : null;
  const nameOf = (a: AccountId) => book.accounts.find((x) => x.id === a)?.name ?? 'a line that is gone';

  return (
    <>
      <h2>{account.name}</h2>
      <div className="faded" style={{ fontSize: 12 }}>
        {[account.code, ROW_NAMES[account.kind as SectionKind]].filter(Boolean).join(' · ')}
      </div>
      <section>
        <div className="label">How this line is made</div>
        <div className={classes.methods} role="group" aria-label="Method">
          {KINDS.map((kind) => (
            <button
              key={kind}
              type="button"
              className={classes.method}
              aria-pressed={line.method.kind === kind}
              disabled={readOnly || (kind === 'share' && !firstIncome)}
              onClick={() => {
                if (line.method.kind !== kind)
                  dispatch({
                    type: 'setMethod',
                    budget: budget.id,
                    account: id,
                    method: methodAs(kind, line, result, reckoned, firstIncome?.id ?? null),
                  });
              }}
            >
              {METHOD_NAMES[kind]}
            </button>
          ))}
        </div>
        <p className={classes.hint}>{METHOD_HINTS[line.method.kind]}</p>
        {result?.issue && <p className={classes.issue}>{ISSUE_WORDS[result.issue]}</p>}
        <PairBars
          plan={plan}
          prior={lastYear}
          ticks={facts.periods.map((p) => p.tick)}
          label={`${account.name}: ${year} budget beside ${prior} actual, by month`}
        />
        <MethodFields
          method={line.method}
          book={book}
          self={id}
          lines={Object.keys(budget.lines)}
          lastYearTotal={lastYear.reduce<number>((t, v) => t + (v ?? 0), 0) as Minor}
          readOnly={readOnly}
          onMethod={(method) => dispatch({ type: 'setMethod', budget: budget.id, account: id, method })}
        />
      </section>
      {month !== null && result && !budget.approved && (
        <section>
          <div className="label">{facts.periods[month]!.label}</div>
          <ol className={classes.steps}>
            {explainMonth(line, result, facts, month, amounts).map((reason, i) => {
              const { text, figure } = reasonWords(reason, money, calendar, nameOf);
              return (
                <li key={i}>
                  <span>{text}</span>
                  <span className={classes.figure}>{figure}</span>
                </li>
              );
            })}
          </ol>
        </section>
      )}
      <section>
        <div className="label">What it changes</div>
        <div className={stage.pair}>
          <span>
            {prior} actual → {year}
          </span>
          <span>
            {money.text(lastYear.reduce<number>((t, v) => t + (v ?? 0), 0) as Minor)} →{' '}
            <b>{money.text(plan.reduce<number>((t, v) => t + (v ?? 0), 0) as Minor)}</b>
          </span>
        </div>
        <div className={stage.pair}>
          <span>Net profit {year}</span>
          <span>
            {change !== 0 && <>{money.text(cameWith ?? ZERO)} → </>}
            <b>{money.text(net ?? ZERO)}</b>
          </span>
        </div>
        {change !== 0 && (
          <div className={stage.pair}>
            <span>Since you came to this line</span>
            <span>{money.signed(change)}</span>
          </div>
        )}
      </section>
      <section>
        <div className="label" id="line-note">
          Note
        </div>
        <NoteField
          key={line.note}
          note={line.note}
          disabled={readOnly && !notesOnly}
          field={noteField}
          onNote={(note) => dispatch({ type: 'setLineNote', budget: budget.id, account: id, note })}
        />
      </section>
    </>
  );
}

function NoteField({
  note,
  disabled,
  field,
  onNote,
}: {
  readonly note: string;
  readonly disabled: boolean;
  readonly field: RefObject<HTMLTextAreaElement | null>;
  readonly onNote: (note: string) => void;
}) {
  const [text, setText] = useState(note);
  return (
    <Textarea
      ref={field}
      className={classes.note}
      aria-labelledby="line-note"
      rows={3}
      maxLength={4000}
      disabled={disabled}
      placeholder="Why this figure"
      value={text}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={() => text !== note && onNote(text)}
      onKeyDown={(e) => {
        if (e.key === 'Escape') e.currentTarget.blur();
      }}
    />
  );
}
