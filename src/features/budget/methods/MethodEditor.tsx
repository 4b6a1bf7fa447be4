'use client';

import { METHOD_NAMES, typedMonths } from '@/store/methodWords';
import { useRef, useState } from 'react';
import { Button, Checkbox } from '@mantine/core';
import type { Minor } from '@/core/money';
import { fiscalYearsLabel } from '@/core/calendar';
import { blankLine, lineKey, type Line, type LineRef, type Method } from '@/core/model';
import { PairBars } from '@/components/PairBars';
import stage from '@/components/Stage.module.css';
import { dispatch } from '@/store/bookStore';
import type { Ground, Reckoned } from '@/core/ground';
import { moneyFormat } from '@/store/format';
import { say, setSession } from '@/store/session';
import { MethodFields } from './MethodFields';
import { methodKinds } from '@/core/plan';
import { methodAs, methodForOther } from './methodChange';
import { createPreviewer } from '../edit/preview';
import { many } from '../edit/edits';
import { yearBefore } from '@/core/ground';
import { ISSUE_WORDS, METHOD_HINTS } from '../words';
import classes from '../Budget.module.css';

/** What was tried on a line and not applied yet: it is there again when one comes back to the line. */
const left = new Map<string, Method>();

/** "3 typed months", "All 12 months", "Typed months of 4 lines". */
function typedWords(counts: readonly number[], length: number): string {
  const some = counts.filter((n) => n > 0);
  if (counts.length > 1) return `Typed months of ${many(some.length, 'line')}`;
  return some[0] === length ? `All ${many(length, 'month')}` : many(some[0]!, 'typed month');
}

/**
 * How a line is made, and trying another way: what is chosen is shown beside what is there, and becomes the line's (or
 * that of every selected line) when it is applied.
 */
export function MethodEditor({
  ground,
  reckoned,
  refs,
  lineOf,
  net,
  readOnly,
}: {
  readonly ground: Ground;
  readonly reckoned: Reckoned;
  /** The selected lines; the first is the one that is shown. */
  readonly refs: readonly LineRef[];
  readonly lineOf: (ref: LineRef) => Line | undefined;
  readonly net: Minor | null;
  readonly readOnly: boolean;
}) {
  const { book } = ground;
  const { budget, facts, reckoning } = reckoned;
  const first = refs[0]!;
  const line = lineOf(first) ?? blankLine(first);
  const result = reckoning.lines.get(first);
  const money = moneyFormat(book);
  const place = `${book.id}/${budget.id}/${refs.map(lineKey).join()}`;
  const [draft, setDraft] = useState<Method | null>(() => left.get(place) ?? null);
  const [reads, setReads] = useState(true);
  const [kept, setKept] = useState<boolean | null>(null);
  const [preview] = useState(createPreviewer);
  // What Enter applies: the value that was typed a moment ago, which the state does not show yet.
  const latest = useRef<Method | null>(draft);
  const method = draft ?? line.method;
  const balance = facts.isBalance(first.account);
  const account = book.accounts.find((a) => a.id === first.account)!;

  const { length } = facts.periods;
  const counts = refs.map((ref) => typedMonths(lineOf(ref) ?? blankLine(ref), facts.periods));
  const most = Math.max(...counts);
  // Over a line whose months are all typed a method is chosen to make them; a few typed ones were meant.
  const stays = kept ?? counts.some((n) => n < length);
  const asksOfTyped = method.kind !== 'byMonth' && most > 0;

  const choose = (next: Method | null) => {
    if (next?.kind !== 'formula') setReads(true);
    latest.current = next;
    setDraft(next);
    if (next) left.set(place, next);
    else left.delete(place);
  };
  const targets = (m: Method) =>
    refs.map((ref, i) => ({
      ...ref,
      method: i === 0 ? m : methodForOther(m, lineOf(ref) ?? blankLine(ref), reckoning.lines.get(ref), facts),
    }));
  const apply = () => {
    const m = latest.current;
    if (!m) return;
    // What was refused stays in the fields, to be changed.
    const restore = draft !== null && asksOfTyped && !stays;
    if (dispatch({ type: 'setMethods', budget: budget.id, lines: targets(m), restore })) return;
    setKept(null);
    if (refs.length > 1) say(`${METHOD_NAMES[m.kind]} applied to ${many(refs.length, 'line')}.`);
    choose(null);
  };
  const would = draft
    ? preview(reckoned, book.accounts, [{ ...first, method: draft }], asksOfTyped && !stays)
    : null;

  const plan = would?.line.amounts ?? reckoned.amounts(first.account, first.segment) ?? [];
  const prior = yearBefore(ground, reckoned).of(first.account, first.segment);
  const issue = would ? would.line.issue : result?.issue;
  const year = fiscalYearsLabel(facts.periods);
  return (
    <section aria-label="Method">
      <div className="label">
        How {refs.length > 1 ? `these ${many(refs.length, 'line')} are` : 'this line is'} made
      </div>
      <div className={classes.methods} role="group" aria-label="Method">
        {methodKinds(balance).map((kind) => (
          <button
            key={kind}
            type="button"
            className={classes.method}
            aria-pressed={method.kind === kind}
            disabled={readOnly}
            title={METHOD_HINTS[kind]}
            onClick={() => {
              if (kind === line.method.kind) return choose(null);
              const next = methodAs(kind, line, result, reckoned, book);
              if (next) choose(next);
              else if (kind === 'driver') {
                setSession({ budgetView: 'drivers' });
                say('Make a driver first: a quantity by month that lines follow.');
              } else say('There is no other line to follow yet.');
            }}
          >
            {METHOD_NAMES[kind]}
          </button>
        ))}
      </div>
      <p className={classes.hint}>{METHOD_HINTS[method.kind]}</p>
      {!draft && counts[0] === length && (
        <p className={classes.hint}>Every month is typed: this makes none of them.</p>
      )}
      {issue && <p className={classes.issue}>{ISSUE_WORDS[issue]}</p>}
      <PairBars
        plan={plan}
        prior={prior}
        ticks={facts.periods.map((p) => p.tick)}
        label={`${account.name}: ${year} budget beside the year before, by month`}
      />
      <MethodFields
        key={`${lineKey(first)} ${method.kind}`}
        method={method}
        book={book}
        reckoned={reckoned}
        account={first.account}
        segment={first.segment}
        readOnly={readOnly}
        onMethod={choose}
        onReads={setReads}
        onEnter={apply}
      />
      {draft && (
        <div className={classes.would} role="group" aria-label="What it would come to">
          <div className={stage.pair}>
            <span>{refs.length > 1 ? `${account.name}, ${year}` : year}</span>
            <span>
              {money.text(result?.total ?? null) || 'blank'} →{' '}
              <b>{money.text(would?.line.total ?? null) || 'blank'}</b>
            </span>
          </div>
          {refs.length === 1 && net !== null && would?.net !== null && (
            <div className={stage.pair}>
              <span>Net profit</span>
              <span>
                {money.text(net)} → <b>{money.text(would!.net)}</b>
              </span>
            </div>
          )}
          {asksOfTyped && (
            <Checkbox
              size="xs"
              mt={6}
              label={`${typedWords(counts, length)} ${refs.length === 1 && most === 1 ? 'stays' : 'stay'} as typed`}
              checked={stays}
              onChange={(e) => setKept(e.currentTarget.checked)}
            />
          )}
          <div className={classes.apply}>
            <Button
              variant="filled"
              disabled={!reads}
              title={reads ? undefined : 'What is typed is not a formula yet'}
              onClick={apply}
            >
              {refs.length > 1 ? `Apply to ${many(refs.length, 'line')}` : 'Apply'}
            </Button>
            <Button onClick={() => choose(null)}>Leave as it was</Button>
          </div>
        </div>
      )}
      {!draft && refs.length > 1 && !readOnly && line.method.kind !== 'byMonth' && (
        <Button
          mt={6}
          onClick={() => {
            latest.current = line.method;
            apply();
          }}
        >
          Make all {refs.length} lines this way
        </Button>
      )}
    </section>
  );
}
