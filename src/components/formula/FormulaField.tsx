'use client';

import { useMemo, useRef, useState } from 'react';
import { Textarea } from '@mantine/core';
import {
  keptFormula,
  keyOfWritten,
  parseFormula,
  shownFormula,
  writtenOfKey,
  type FormulaIssue,
} from '@/core/formula';
import { LIMITS, type Account, type Driver } from '@/core/model';
import { labelsOf, namesOf, resolverOf, type Named } from './formulaNames';
import classes from './Formula.module.css';

const FORMULA_ISSUES: Record<FormulaIssue['code'], string> = {
  empty: 'Write a formula.',
  strange: 'This sign means nothing here.',
  unknownName: 'Nothing has this name.',
  unexpected: 'Something else belongs here.',
  unfinished: 'The formula is not finished.',
  badNumber: 'This is not a number that can stand here.',
  tooDeep: 'Too many parentheses within one another.',
};

/** The part of a name that is being typed before the cursor, without its quote; null when none is. */
function openName(text: string, cursor: number): { readonly at: number; readonly part: string } | null {
  const before = text.slice(0, cursor);
  const quotes = before.split('"').length - 1;
  if (quotes % 2 === 1) {
    const at = before.lastIndexOf('"');
    return { at, part: before.slice(at + 1) };
  }
  const word = /([A-Za-z][A-Za-z ]{1,})$/.exec(before);
  return word && !/^(if|then|else|and|or|prior|min|max|round|to)\s*$/i.test(word[1]!.trim())
    ? { at: cursor - word[1]!.length, part: word[1]! }
    : null;
}

/** A formula as one writes it: names complete while typing, and an error points at its place. */
export function FormulaField({
  kept,
  accounts,
  drivers,
  figures,
  base = null,
  self,
  readOnly,
  onKept,
  onReads,
  onEnter,
}: {
  readonly kept: string;
  readonly accounts: readonly Account[];
  readonly drivers: readonly Driver[];
  /** Figures that the statements add up, by what they are called; none where a formula is of one line's months. */
  readonly figures?: Readonly<Record<string, string>>;
  /** What the amount as it was is called, where a formula changes one. */
  readonly base?: string | null;
  /** The line itself, whose earlier months may be named. */
  readonly self: Account | null;
  readonly readOnly: boolean;
  readonly onKept: (kept: string) => void;
  /** Whether what is typed so far could be kept. */
  readonly onReads?: (reads: boolean) => void;
  readonly onEnter: () => void;
}) {
  const names = useMemo(
    () => namesOf(self ? [...accounts, self] : accounts, drivers, figures, base),
    [accounts, drivers, self, figures, base],
  );
  const resolve = useMemo(
    () => resolverOf(names, self ? [...accounts, self] : accounts),
    [names, accounts, self],
  );
  const shown = useMemo(() => shownFormula(kept, labelsOf(names), writtenOfKey), [kept, names]);
  const [text, setText] = useState<string | null>(null);
  const [cursor, setCursor] = useState(0);
  const [at, setAt] = useState(0);
  const field = useRef<HTMLTextAreaElement>(null);
  const now = text ?? shown;
  const parsed = parseFormula(now, resolve);
  // With ids for names it may be longer than it looks.
  const tooLong = (keptFormula(now, resolve, keyOfWritten)?.length ?? 0) > LIMITS.formula;
  const open = text === null ? null : openName(now, cursor);
  const offers = open ? offersFor(names, open.part) : [];

  /** What is typed; null: what is kept. */
  const write = (next: string | null) => {
    setText(next);
    onReads?.(next === null || parseFormula(next, resolve).ok);
  };
  const take = (name: Named) => {
    const quoted = `"${name.label.replaceAll('"', '""')}"`;
    const after = now.slice(cursor).replace(/^[^"+\-*/×÷(),<>=]*"/, '');
    const next =
      now.slice(0, open!.at) + quoted + (after.startsWith(' ') || after === '' ? after : ` ${after}`);
    write(next);
    setCursor(open!.at + quoted.length);
    requestAnimationFrame(() => {
      field.current?.focus();
      field.current?.setSelectionRange(open!.at + quoted.length, open!.at + quoted.length);
    });
  };
  const commit = (): boolean => {
    const next = keptFormula(now, resolve, keyOfWritten);
    if (next === null || tooLong) return false;
    setText(null);
    if (next !== kept) onKept(next);
    return true;
  };

  return (
    <div className={classes.formula}>
      <Textarea
        ref={field}
        aria-label="Formula"
        aria-invalid={!parsed.ok || tooLong}
        rows={3}
        maxLength={LIMITS.formula}
        spellCheck={false}
        disabled={readOnly}
        value={now}
        onChange={(e) => {
          write(e.currentTarget.value);
          setCursor(e.currentTarget.selectionStart);
          setAt(0);
        }}
        onSelect={(e) => setCursor(e.currentTarget.selectionStart)}
        onBlur={() => commit()}
        onKeyDown={(e) => {
          const step = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
          if (offers.length > 0 && step !== 0) {
            e.preventDefault();
            setAt((at + step + offers.length) % offers.length);
          } else if (offers.length > 0 && (e.key === 'Tab' || e.key === 'Enter') && !e.shiftKey) {
            e.preventDefault();
            take(offers[at]!);
          } else if (e.key === 'Enter' && !e.shiftKey) {
            e.preventDefault();
            if (commit()) onEnter();
          } else if (e.key === 'Escape') {
            e.stopPropagation();
            write(null);
          }
        }}
      />
      {offers.length > 0 && (
        <ul className={classes.offers} role="listbox" aria-label="Names">
          {offers.map((o, i) => (
            <li
              key={`${o.of} ${o.label}`}
              role="option"
              aria-selected={i === at}
              onPointerDown={(e) => {
                e.preventDefault();
                take(o);
              }}
            >
              <span>{o.label}</span>
              <span className="faded">{o.of}</span>
            </li>
          ))}
        </ul>
      )}
      {tooLong && (
        <p className={classes.issue} role="alert">
          Too long: it names too many things to be kept.
        </p>
      )}
      {!parsed.ok && offers.length === 0 && (
        <p className={classes.issue} role="alert">
          {FORMULA_ISSUES[parsed.issue.code]}
          <code className={classes.pointed}>
            {now.slice(Math.max(0, parsed.issue.at - 24), parsed.issue.at)}
            <mark>
              {now.slice(parsed.issue.at, parsed.issue.at + Math.max(1, parsed.issue.length)) || '…'}
            </mark>
            {now.slice(parsed.issue.at + Math.max(1, parsed.issue.length)).slice(0, 12)}
          </code>
        </p>
      )}
      <p className={classes.hint}>
        Names in quotes: {base === null ? '"Total income" * 4% + prior "Rent"' : `"${base}" * 90% + 200`}.
        Also min( , ), max( , ), round( to ), if … then … else ….
      </p>
    </div>
  );
}

/** Names that begin with what is typed, then names that hold it. */
function offersFor(names: readonly Named[], part: string): Named[] {
  const p = part.trim().toLowerCase();
  const starts = names.filter((n) => n.label.toLowerCase().startsWith(p));
  const holds = p === '' ? [] : names.filter((n) => !starts.includes(n) && n.label.toLowerCase().includes(p));
  const list = [...starts, ...holds].slice(0, 8);
  // A name that is written out needs no offer.
  return list.length === 1 && list[0]!.label.toLowerCase() === p ? [] : list;
}
