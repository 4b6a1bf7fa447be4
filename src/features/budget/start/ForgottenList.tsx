'use client';

import { useMemo, useState } from 'react';
import { Button } from '@mantine/core';
import { lineOf, type AccountId, type Method } from '@/core/model';
import {
  leavesOut,
  pricesUntouched,
  remindersFor,
  withoutLump,
  type Forgotten,
  type Lump,
} from '@/core/plan';
import type { Ground, Reckoned } from '@/core/ground';
import { moneyFormat } from '@/store/format';
import { setSession } from '@/store/session';
import classes from './FirstPass.module.css';

const WORDS: Record<Forgotten, { readonly title: string; readonly text: string }> = {
  oneOffs: {
    title: 'One-offs of last year',
    text: 'These months stand out. What will not come back is left out of the new year; the rest stays.',
  },
  renewals: {
    title: 'Renewals',
    text: 'Insurance, licences and subscriptions fall due once a year, often at a new price.',
  },
  prices: {
    title: 'Prices',
    text: 'What will you charge next year? A change of prices moves every line of income.',
  },
  hires: {
    title: 'Hires and raises',
    text: 'With what comes on top of pay: social security, pension, training.',
  },
  loans: { title: 'Loans', text: 'Interest falls as a loan is paid down, and rises with a new one.' },
  equipment: {
    title: 'Replacing equipment',
    text: 'What is near the end of its life, and what its repair costs.',
  },
  taxes: {
    title: 'Taxes and when they fall due',
    text: 'Property, business and sales taxes have their months.',
  },
  draws: { title: 'Owners’ draws', text: 'Not a cost, but it leaves the bank.' },
};

const SHOWN = 8;

/** What is easily forgotten, each thing with the lines that it is about and the lumps that the ledger has of them. */
export function ForgottenList({
  ground,
  reckoned,
  readOnly,
  onMethod,
}: {
  readonly ground: Ground;
  readonly reckoned: Reckoned;
  readonly readOnly: boolean;
  readonly onMethod: (account: AccountId, method: Method) => void;
}) {
  const { book } = ground;
  const { budget, facts } = reckoned;
  const reminders = useMemo(() => remindersFor(facts, book.accounts), [facts, book.accounts]);
  const [open, setOpen] = useState<readonly Forgotten[]>([]);
  const money = moneyFormat(book);
  const byId = new Map(book.accounts.map((a) => [a.id, a]));
  const go = (account: AccountId) => setSession({ soughtAccount: account, budgetView: 'sheet' });
  const lumpWords = (l: Lump) =>
    `${l.period.label} ${money.text(l.value)}${l.kind === 'lump' || l.kind === 'double' ? '' : `, ${ODD_WORDS[l.kind]}`}`;
  const untouched = pricesUntouched(budget, (id) => byId.get(id)?.kind === 'income');
  return (
    <section className={classes.forgotten} aria-label="Easily forgotten">
      <h2>Easily forgotten</h2>
      <p className="faded" style={{ margin: '0 0 10px' }}>
        What the ledger shows, and what it cannot know. Each leads to its line.
      </p>
      {reminders.map(({ of, accounts }) => {
        const all = open.includes(of);
        return (
          <div key={of} className={classes.reminder}>
            <h3>{WORDS[of].title}</h3>
            <span className="faded">
              {WORDS[of].text}
              {of === 'prices' && untouched ? ' All income is as last year so far.' : ''}
            </span>
            <ul>
              {(all ? accounts : accounts.slice(0, SHOWN)).map(({ account, lumps }) => {
                const line = lineOf(budget, { account, segment: budget.segments[0]! });
                return (
                  <li key={account}>
                    <button type="button" className={classes.link} onClick={() => go(account)}>
                      {byId.get(account)!.name}
                    </button>
                    {lumps.slice(0, 3).map((l) => {
                      const without = line && withoutLump(line, l);
                      const out = line && leavesOut(line, l);
                      return (
                        <span key={l.period.id} className="faded">
                          {lumpWords(l)}
                          {of === 'oneOffs' && without && !readOnly && (
                            <Button ml={6} disabled={out} onClick={() => onMethod(account, without)}>
                              {out ? 'left out' : 'Leave it out'}
                            </Button>
                          )}
                        </span>
                      );
                    })}
                  </li>
                );
              })}
              {!all && accounts.length > SHOWN && (
                <li>
                  <button type="button" className={classes.link} onClick={() => setOpen([...open, of])}>
                    {accounts.length - SHOWN} more lines
                  </button>
                </li>
              )}
            </ul>
          </div>
        );
      })}
    </section>
  );
}

const ODD_WORDS: Record<Lump['kind'], string> = {
  lump: 'a lump',
  double: 'double',
  low: 'low',
  gap: 'nothing',
  sign: 'the other sign',
  outside: 'outside the usual',
  threePaydays: 'three paydays',
};
