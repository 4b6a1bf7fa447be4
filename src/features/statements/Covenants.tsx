'use client';

import { useState } from 'react';
import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { minor, unitOf } from '@/core/money';
import type { Ground } from '@/core/ground';
import { LIMITS, TEST_DAYS, type Book, type Covenant } from '@/core/model';
import { ratioUnit, type CovenantState, type Measure } from '@/core/statements';
import { dispatch, useBookStore } from '@/store/bookStore';
import { moneyFormat } from '@/store/format';
import { ratioInWords, ratioName } from '@/store/ratioNames';
import { ratioText } from '@/store/statementWords';
import { say } from '@/store/session';
import classes from './Statements.module.css';

const TESTED: Readonly<Record<Covenant['tested'], string>> = {
  period: 'every month',
  quarter: 'quarter ends',
  year: 'year ends',
};

/** What lenders ask of ratios: each with the first period that breaks it and its headroom, and a new one. */
export function Covenants({
  ground,
  states,
  ratio,
  unit,
}: {
  readonly ground: Ground;
  readonly states: readonly CovenantState[];
  /** The ratio that a new one asks something of, and what that is told in. */
  readonly ratio: Covenant['ratio'];
  readonly unit: Measure['unit'];
}) {
  const { book, calendar } = ground;
  const money = moneyFormat(book);
  const readOnly = useBookStore((s) => s.readOnly);
  const [name, setName] = useState('');
  const [bound, setBound] = useState<Covenant['bound']>('least');
  const [tested, setTested] = useState<Covenant['tested']>('period');
  const [limit, setLimit] = useState('');
  const add = () => {
    const value = Number(limit.replace(',', '.').replace(/[%×\s]/g, ''));
    if (limit.trim() === '' || !Number.isFinite(value))
      return say('A covenant needs a limit, such as 1.25.', 'trouble');
    const from = ground.closedThrough ?? ground.balances.range?.last ?? null;
    if (from === null) return say('A covenant begins with a closed month, and none is.', 'trouble');
    const covenant: Covenant = {
      id: `c${book.nextId}`,
      name: name.trim() || 'Lender',
      ratio,
      bound,
      limit: Math.round(value * ratioScale(unit, book.currency)),
      from: calendar.period(from).id,
      tested,
    };
    if (!dispatch({ type: 'setCovenant', covenant })) setLimit('');
  };
  return (
    <section>
      <div className="label">Covenants</div>
      {states.length === 0 && <p className="faded">Nobody asks anything of a ratio yet.</p>}
      {states.map(({ covenant: c, tested, unknown, broken, tightest }) => (
        <div key={c.id} className={classes.cause}>
          <b>
            {c.name}: {ratioInWords(book, c.ratio)} at {c.bound}{' '}
            {ratioText(c.limit, unitOfRatio(book, c.ratio), money)}
            {c.tested === 'period' ? '' : `, at ${TESTED[c.tested]}`}
          </b>
          {!readOnly && (
            <Button size="compact-xs" onClick={() => dispatch({ type: 'removeCovenant', covenant: c.id })}>
              Take away
            </Button>
          )}
          <small style={broken === null ? undefined : { color: 'var(--bad)' }}>
            {keptWords(
              { tested, unknown: unknown.length },
              broken === null ? null : calendar.period(broken).label,
            )}
            {tightest &&
              ` · ${roomWords(c, unitOfRatio(book, c.ratio), tightest.room)} ${money.text(minor(Math.abs(tightest.room)))} in ${calendar.period(tightest.period).label}`}
          </small>
        </div>
      ))}
      {!readOnly && (
        <form
          onSubmit={(e) => {
            e.preventDefault();
            add();
          }}
        >
          <Group gap={6} align="end" mt={8}>
            <TextInput
              label="Who asks"
              value={name}
              maxLength={LIMITS.rowName}
              w={110}
              onChange={(e) => setName(e.currentTarget.value)}
            />
            <NativeSelect
              label={ratioName(book, ratio)}
              value={bound}
              data={[
                { value: 'least', label: 'at least' },
                { value: 'most', label: 'at most' },
              ]}
              onChange={(e) => setBound(e.currentTarget.value as Covenant['bound'])}
            />
            <TextInput label="Limit" value={limit} w={70} onChange={(e) => setLimit(e.currentTarget.value)} />
            <NativeSelect
              label="Looked at"
              value={tested}
              data={TEST_DAYS.map((value) => ({ value, label: TESTED[value] }))}
              onChange={(e) => setTested(e.currentTarget.value as Covenant['tested'])}
            />
            <Button type="submit">Add</Button>
          </Group>
        </form>
      )}
    </section>
  );
}

/** How a covenant fares: what is not known is not kept. `broken`: the first period that breaks it. */
function keptWords(
  { tested, unknown }: { readonly tested: number; readonly unknown: number },
  broken: string | null,
): string {
  if (tested === 0) return 'Not looked at in any month ahead';
  if (broken !== null) return `Broken first in ${broken}`;
  if (unknown === tested) return 'Its ratio is not known in any month, so nobody can say whether it is kept';
  return unknown === 0
    ? 'Kept every time'
    : `Kept where its ratio is known: ${tested - unknown} of ${tested} times`;
}

/** What a ratio is told in; of one that is gone, plain times. */
const unitOfRatio = ({ ownRatios }: Pick<Book, 'ownRatios'>, ratio: Covenant['ratio']): Measure['unit'] =>
  typeof ratio === 'string' ? ratioUnit(ratio) : (ownRatios.find((r) => r.id === ratio.own)?.unit ?? 'times');

/** How many of a ratio's own whole numbers are one of what it is written in. */
export const ratioScale = (unit: Measure['unit'], currency: string): number =>
  unit === 'money' ? unitOf(currency) : unit === 'percent' ? 10 : 1000;

/** Ratios whose upper part is profit, which is what one asks the headroom in. */
const OF_PROFIT: ReadonlySet<Covenant['ratio']> = new Set<Covenant['ratio']>([
  'grossMargin',
  'operatingMargin',
  'debtService',
  'interestCover',
]);

/** What the headroom is an amount of. */
function roomWords({ ratio, bound }: Covenant, unit: Measure['unit'], room: number): string {
  if (room < 0) return bound === 'least' ? 'short by' : 'over by';
  const way = bound === 'least' ? 'fall' : 'rise';
  if (OF_PROFIT.has(ratio)) return `profit could ${way} by`;
  return unit === 'money' ? `it could ${way} by` : `what is above the line could ${way} by`;
}
