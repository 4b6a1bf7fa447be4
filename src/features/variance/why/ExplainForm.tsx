'use client';

import { useState } from 'react';
import { Button, NativeSelect, Textarea } from '@mantine/core';
import { minor, type Minor } from '@/core/money';
import { periodsOf, type Period, type PeriodIndex } from '@/core/calendar';
import { LIMITS, type Account, type ExplanationPart, type VarianceNote } from '@/core/model';
import { entriesOf } from '@/core/ledger';
import { cellOf, type ReportRow, type ReportTable } from '@/core/report';
import { explain } from '@/core/variance';
import type { Ground } from '@/core/ground';
import { MoneyInput } from '@/components/MoneyInput';
import { explainVariance } from '@/store/actions';
import { dayText, moneyFormat, type MoneyFormat } from '@/store/format';
import { stillWrong, WrongPart, wrongOf } from './WrongEntries';
import classes from '../Variance.module.css';

const KINDS: readonly { readonly value: PlainKind; readonly label: string }[] = [
  { value: 'timing', label: 'Timing: comes back' },
  { value: 'lasting', label: 'Lasting: goes on' },
  { value: 'once', label: 'Once' },
];
/** So many months from the one explained may be named. */
const AHEAD = 18;

/** A part of a kind, of so much: what a person begins with. */
function partOf(kind: PlainKind, amount: Minor | null, shown: Minor): ExplanationPart {
  switch (kind) {
    case 'timing':
      return { kind, amount, back: [] };
    case 'lasting':
      return { kind, amount, monthly: shown, until: null };
    case 'once':
      return { kind, amount };
  }
}
type PlainKind = Exclude<ExplanationPart['kind'], 'wrongEntry'>;

/** Why a line is over or under in a month: in words, and in parts that the outlook follows from. Kept as it is said. */
export function ExplainForm({
  ground,
  account: { id: account, ...rest },
  month,
  moved,
  row,
  table,
  against,
  disabled,
}: {
  readonly ground: Ground;
  readonly account: Account;
  readonly month: PeriodIndex;
  /** What of its actual stands elsewhere in the ledger, or came from elsewhere. */
  readonly moved: Minor | null;
  /** The account's row in a report of the month. */
  readonly row: ReportRow;
  readonly table: ReportTable;
  readonly against: string | null;
  readonly disabled: boolean;
}) {
  const { book, calendar } = ground;
  const period = calendar.period(month);
  const note: VarianceNote | null = book.varianceNotes[period.id]?.[account] ?? null;
  const money = moneyFormat(book);
  const parts = note?.parts ?? [];
  const own: Account = { id: account, ...rest };
  const at = (key: string) => cellOf(table, row, key) as Minor | null;
  const wrong = wrongOf(ground, account, month);
  const compared = at('monthDiff');
  // What is explained is the ledger's own difference: that wrong entries are shown elsewhere explains a part of it.
  const difference = compared === null ? null : minor(compared - (moved ?? 0));
  const explained = explain(
    difference ?? minor(0),
    parts.map((p) => (p.kind === 'wrongEntry' ? { ...p, amount: stillWrong(p, own, wrong) } : p)),
  );
  const later = periodsOf(calendar, { first: month + 1, last: month + AHEAD });
  const factsNow = {
    actual: at('monthActual'),
    budget: at('monthBudget'),
    entries: entriesOf(ground.blocks, calendar, account, { first: month, last: month }, ground.view).length,
  };
  const save = (change: Partial<Pick<VarianceNote, 'text' | 'parts'>>) =>
    explainVariance(period.id, account, {
      text: note?.text ?? '',
      parts,
      ...change,
      // The first to explain it says against what.
      against: note?.against ?? against,
      facts: factsNow,
    });
  const put = (at: number, part: ExplanationPart) =>
    save({ parts: parts.map((p, i) => (i === at ? part : p)) });
  const before = book.varianceNotes[calendar.period(month - 1).id]?.[account] ?? null;
  const goesOn = (before?.parts ?? []).filter(
    (p) =>
      p.kind === 'lasting' && p.monthly !== 0 && (p.until === null || later.some((l) => l.id === p.until)),
  );
  return (
    <>
      <Words
        key={note?.text ?? ''}
        text={note?.text ?? ''}
        disabled={disabled}
        onText={(text) => save({ text })}
      />
      {explained.parts.map(({ part, amount }, k) => (
        <div key={k} className={classes.part} role="group" aria-label={`Part ${k + 1}`}>
          <div className={classes.partRow}>
            {part.kind === 'wrongEntry' ? (
              <span style={{ width: 92, alignSelf: 'center', fontSize: 12.5 }}>Wrong entry</span>
            ) : (
              <NativeSelect
                aria-label="Kind of explanation"
                w={92}
                disabled={disabled}
                value={part.kind}
                data={KINDS.map((x) => ({ value: x.value, label: x.label.split(':')[0]! }))}
                onChange={(e) => put(k, partOf(e.currentTarget.value as PlainKind, part.amount, amount))}
              />
            )}
            <MoneyInput
              size="xs"
              w={92}
              aria-label="Explains"
              placeholder={money.text(amount)}
              value={part.amount}
              currency={book.currency}
              locale={book.locale}
              disabled={disabled || part.kind === 'wrongEntry'}
              onCommit={(value) => {
                // Blank means all that the others leave, which one part alone can be.
                if (value !== null || !parts.some((p, i) => i !== k && p.amount === null))
                  put(k, { ...part, amount: value });
              }}
            />
            <Button
              aria-label={`Take part ${k + 1} away`}
              disabled={disabled}
              onClick={() => save({ parts: parts.filter((_, i) => i !== k) })}
            >
              ×
            </Button>
          </div>
          {part.kind === 'wrongEntry' && (
            <WrongPart ground={ground} part={part} shown={wrong} dayText={dayText} exact={money.exact} />
          )}
          {part.kind === 'timing' && (
            <Back part={part} amount={amount} {...{ later, book, disabled }} onPart={(p) => put(k, p)} />
          )}
          {part.kind === 'lasting' && (
            <div className={classes.partRow}>
              <MoneyInput
                size="xs"
                w={92}
                label="A month"
                value={part.monthly}
                currency={book.currency}
                locale={book.locale}
                disabled={disabled}
                onCommit={(value) => put(k, { ...part, monthly: value ?? minor(0) })}
              />
              <NativeSelect
                label="Until"
                disabled={disabled}
                value={part.until ?? ''}
                data={[
                  { value: '', label: 'without end' },
                  ...later.map((p) => ({ value: p.id as string, label: p.label })),
                ]}
                onChange={(e) =>
                  put(k, { ...part, until: later.find((p) => p.id === e.currentTarget.value)?.id ?? null })
                }
              />
            </div>
          )}
        </div>
      ))}
      {note?.facts && (note.facts.actual !== factsNow.actual || note.facts.budget !== factsNow.budget) && (
        <div className={classes.beyond} role="note">
          Since this was said, {changedWords(note.facts, factsNow, money)}.{' '}
          <Button disabled={disabled} onClick={() => save({})}>
            It still holds
          </Button>
        </div>
      )}
      {difference !== null && parts.length > 0 && (
        <div
          className={explained.beyond ? classes.beyond : 'faded'}
          role={explained.beyond ? 'alert' : undefined}
        >
          {explained.beyond
            ? `The parts explain more than the difference of ${money.signed(difference)}`
            : explained.left === 0
              ? 'All of it is explained'
              : `${money.signed(explained.left)} is unexplained`}
        </div>
      )}
      <div className={classes.partRow}>
        {KINDS.map(({ value, label }) => (
          <Button
            key={value}
            disabled={disabled || difference === null || parts.length >= 12}
            onClick={() => {
              const takesRest = !parts.some((p) => p.amount === null);
              const amount = takesRest ? null : minor(0);
              save({ parts: [...parts, partOf(value, amount, takesRest ? explained.left : minor(0))] });
            }}
          >
            + {label.split(':')[0]}
          </Button>
        ))}
      </div>
      {goesOn.length > 0 && parts.length === 0 && (
        <Button
          mt={6}
          disabled={disabled}
          onClick={() =>
            save({
              text: note?.text || before!.text,
              parts: goesOn.map((p) => ({ ...p, amount: p.kind === 'lasting' ? p.monthly : p.amount })),
            })
          }
        >
          It goes on since {calendar.period(month - 1).label}: say it again
        </Button>
      )}
    </>
  );
}

type Facts = NonNullable<VarianceNote['facts']>;

/** What became of the figures that an explanation was about. */
function changedWords(then: Facts, now: Facts, money: MoneyFormat): string {
  const changed = (name: string, a: Minor | null, b: Minor | null) =>
    a === b ? [] : [`the ${name} went from ${money.text(a) || 'nothing'} to ${money.text(b) || 'nothing'}`];
  return [...changed('actual', then.actual, now.actual), ...changed('budget', then.budget, now.budget)].join(
    ' and ',
  );
}

/** In which months timing comes back, and with how much each. */
function Back({
  part,
  amount,
  later,
  book,
  disabled,
  onPart,
}: {
  readonly part: Extract<ExplanationPart, { kind: 'timing' }>;
  readonly amount: Minor;
  readonly later: readonly Period[];
  readonly book: Ground['book'];
  readonly disabled: boolean;
  readonly onPart: (part: ExplanationPart) => void;
}) {
  const { back } = part;
  const rest = minor(-amount - back.reduce((t, b) => t + b.amount, 0));
  const set = (next: typeof back) => onPart({ ...part, back: next });
  return (
    <>
      {back.map((b, i) => (
        <div key={i} className={classes.partRow}>
          <NativeSelect
            aria-label="Comes back in"
            disabled={disabled}
            value={b.period}
            data={[
              ...later.map((p) => ({ value: p.id as string, label: `in ${p.label}` })),
              ...(later.some((p) => p.id === b.period)
                ? []
                : [{ value: b.period as string, label: b.period }]),
            ]}
            onChange={(e) => {
              const next = later.find((p) => p.id === e.currentTarget.value);
              if (next) set(back.map((x, k) => (k === i ? { ...x, period: next.id } : x)));
            }}
          />
          <MoneyInput
            size="xs"
            w={92}
            aria-label="Comes back with"
            value={b.amount}
            currency={book.currency}
            locale={book.locale}
            disabled={disabled}
            onCommit={(value) =>
              set(
                value === null || value === 0
                  ? back.filter((_, k) => k !== i)
                  : back.map((x, k) => (k === i ? { ...x, amount: value } : x)),
              )
            }
          />
        </div>
      ))}
      {rest !== 0 && (
        <Button
          disabled={disabled || back.length >= 36}
          onClick={() => {
            const after = later.findIndex((p) => p.id === back.at(-1)?.period);
            const next = later[after + 1] ?? later[0]!;
            set([...back, { period: next.id, amount: rest }]);
          }}
        >
          {back.length === 0 ? 'Say when it comes back' : 'The rest comes back in…'}
        </Button>
      )}
    </>
  );
}

/** Words of an explanation; kept when their field is left. */
function Words({
  text: kept,
  disabled,
  onText,
}: {
  readonly text: string;
  readonly disabled: boolean;
  readonly onText: (text: string) => void;
}) {
  const [text, setText] = useState(kept);
  return (
    <Textarea
      aria-labelledby="why"
      rows={3}
      maxLength={LIMITS.note}
      disabled={disabled}
      placeholder="What happened, and what follows"
      value={text}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={() => text.trim() !== kept && onText(text)}
      onKeyDown={(e) => {
        if (e.key === 'Escape' || (e.key === 'Enter' && (e.ctrlKey || e.metaKey))) e.currentTarget.blur();
      }}
      styles={{ input: { fontFamily: 'var(--font-title)', fontStyle: 'italic', fontSize: 15 } }}
      my={6}
    />
  );
}
