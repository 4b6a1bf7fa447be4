'use client';

import { useState } from 'react';
import { NativeSelect } from '@mantine/core';
import { minor, plus, type Minor } from '@/core/money';
import type { PeriodIndex } from '@/core/calendar';
import type { Entry } from '@/core/ledger';
import { reclassifiedOf, type Ground, type WrongShown } from '@/core/ground';
import { cutText, LIMITS, natural, type Account, type ExplanationPart } from '@/core/model';
import { explainVariance } from '@/store/actions';
import classes from '../Variance.module.css';

type Part = Extract<ExplanationPart, { kind: 'wrongEntry' }>;

/** Says of an entry that it belongs to another account: the report shows it there until the ledger has it. */
export function BelongsElsewhere({
  ground,
  account,
  month,
  entry,
  against,
}: {
  readonly ground: Ground;
  readonly account: Account;
  readonly month: PeriodIndex;
  readonly entry: Entry;
  readonly against: string | null;
}) {
  const { book, calendar } = ground;
  const [asked, setAsked] = useState(false);
  const period = calendar.period(month);
  const inMonth = entry.day >= period.start && entry.day <= period.end;
  const note = book.varianceNotes[period.id]?.[account.id] ?? null;
  const key = entryKey(entry);
  const said = (note?.parts ?? []).some(
    (p) => p.kind === 'wrongEntry' && p.entries.some((e) => entryKey(e) === key),
  );
  if (!inMonth || entry.mark !== 'activity' || said) return null;
  const say = (to: string) => {
    const parts = note?.parts ?? [];
    const place = parts.findIndex((p) => p.kind === 'wrongEntry' && p.to === to);
    const own = {
      day: entry.day,
      reference: cutText(entry.reference, LIMITS.reference),
      counterparty: cutText(entry.counterparty, LIMITS.counterparty),
      amount: entry.amount,
    };
    const there = parts[place] as Part | undefined;
    const amount = minor(plus(there?.amount ?? 0, natural(account.kind, entry.amount)));
    const part: Part = { kind: 'wrongEntry', amount, entries: [...(there?.entries ?? []), own], to };
    explainVariance(period.id, account.id, {
      text: note?.text ?? '',
      parts: place < 0 ? [...parts, part] : parts.map((p, i) => (i === place ? part : p)),
      against: note?.against ?? against,
    });
    setAsked(false);
  };
  return asked ? (
    <NativeSelect
      aria-label="Belongs to"
      autoFocus
      value=""
      data={[
        { value: '', label: 'Belongs to…' },
        ...book.accounts
          .filter((a) => a.id !== account.id && a.active)
          .map((a) => ({ value: a.id, label: `${a.code} ${a.name}`.trim() })),
      ]}
      onChange={(e) => e.currentTarget.value && say(e.currentTarget.value)}
      onBlur={() => setAsked(false)}
    />
  ) : (
    <button type="button" className={classes.elsewhere} onClick={() => setAsked(true)}>
      Belongs elsewhere
    </button>
  );
}

const entryKey = (e: Pick<Entry, 'day' | 'reference' | 'counterparty' | 'amount'>): string =>
  JSON.stringify([e.day, e.reference, e.counterparty, e.amount]);

/** What became of an account's wrong entries of a month. */
export const wrongOf = (ground: Ground, account: string, month: PeriodIndex): readonly WrongShown[] =>
  reclassifiedOf(ground, null, 'all').entries.filter((e) => e.account === account && e.period === month);

/** How much of a part is still so, in the account's natural sign: what the ledger has put right explains nothing more. */
export function stillWrong(part: Part, account: Account, shown: readonly WrongShown[]): Minor {
  const keys = new Set(part.entries.map(entryKey));
  return minor(
    shown.reduce(
      (t, w) =>
        w.state !== 'gone' && w.to === part.to && keys.has(entryKey(w.entry as Entry))
          ? plus(t, natural(account.kind, w.entry.amount))
          : t,
      0,
    ),
  );
}

/** The entries of a part, where they belong, and whether the ledger has it. */
export function WrongPart({
  ground,
  part,
  shown,
  dayText,
  exact,
}: {
  readonly ground: Ground;
  readonly part: Part;
  readonly shown: readonly WrongShown[];
  readonly dayText: (day: string) => string;
  readonly exact: (amount: Minor) => string;
}) {
  const { book, calendar } = ground;
  const states = new Map(shown.map((w) => [entryKey(w.entry as Entry), w]));
  return (
    <>
      <div style={{ fontSize: 12.5 }}>
        Shown in <b>{book.accounts.find((a) => a.id === part.to)?.name ?? part.to}</b>
      </div>
      {part.entries.map((e, i) => {
        const w = states.get(entryKey(e as Entry));
        return (
          <div key={i} className="faded" style={{ fontSize: 12 }}>
            {dayText(e.day)} {e.counterparty || e.reference} {exact(Math.abs(e.amount) as Minor)}:{' '}
            {!w || w.state === 'gone'
              ? 'the ledger has it right by now'
              : w.state === 'corrected'
                ? `put right by an entry in ${calendar.period(w.in).label}`
                : 'not put right in the ledger yet'}
          </div>
        );
      })}
    </>
  );
}
