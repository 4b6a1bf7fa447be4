'use client';

import { useState } from 'react';
import { Button, FileButton } from '@mantine/core';
import { fromDayNumber, toDayNumber, type Day } from '@/core/calendar';
import { STOPS, type ReadStatement, type StatementIssue } from '@/core/cash';
import type { CashView, Ground } from '@/core/ground';
import { minor, type Minor, type NumberFormat } from '@/core/money';
import type { AccountId } from '@/core/model';
import { AccountChoice } from '@/components/AccountChoice';
import { DayInput } from '@/components/DayInput';
import { Dialog } from '@/components/Dialog';
import { MoneyInput } from '@/components/MoneyInput';
import { NumbersChoice } from '@/components/NumbersChoice';
import {
  accountOf,
  askBank,
  offeredOf,
  readBankFile,
  takeStatements,
  type BankFile,
  type Offered,
} from '@/store/bank';
import { useBookStore } from '@/store/bookStore';
import { onDay } from '@/store/cashWords';
import { moneyFormat, type MoneyFormat } from '@/store/format';
import { say } from '@/store/session';

type Asked = {
  readonly file: BankFile;
  readonly said: NumberFormat | null;
  readonly accounts: readonly (AccountId | null)[];
};

/** The simulated bank is asked for so many days, a week and a bit. */
const USUAL_DAYS = 9;

/** Takes statements of a bank in, from a file or from the simulated bank: what is wrong is named before anything changes. */
export function TakeBank({ ground, view }: { readonly ground: Ground; readonly view: CashView }) {
  const readOnly = useBookStore((s) => s.readOnly);
  const { book } = ground;
  const money = moneyFormat(book);
  const [asked, setAsked] = useState<Asked | null>(null);
  const [until, setUntil] = useState<Day | null>(null);
  const [busy, setBusy] = useState(false);
  const offer = (file: BankFile | string, said: NumberFormat | null = null) => {
    if (typeof file === 'string') return say(file, 'trouble');
    setAsked({ file, said, accounts: file.statements.map((s) => accountOf(book, s.account, file.name)) });
  };
  const take = async (file: File | null) => {
    if (file) offer(await readBankFile(book, file.name, new Uint8Array(await file.arrayBuffer())));
  };
  const usual = fromDayNumber((view.today?.day ?? view.input.start) + USUAL_DAYS);
  const ask = async () => {
    const to = until ?? usual;
    setBusy(true);
    const after = (account: AccountId | null) =>
      fromDayNumber(view.today?.stands.find((s) => s.account === account)?.day ?? view.input.start);
    offer(await askBank(book, after, to));
    setBusy(false);
    setUntil(null);
  };
  const change = (n: number, to: Partial<ReadStatement>) =>
    asked &&
    setAsked({
      ...asked,
      file: {
        ...asked.file,
        statements: asked.file.statements.map((s, i) => (i === n ? { ...s, ...to } : s)),
      },
    });
  const offered = asked ? offeredOf(book, asked.file.statements, (n) => asked.accounts[n] ?? null) : [];
  const isReady =
    asked !== null &&
    (asked.file.doubt === null || asked.said !== null) &&
    offered.length > 0 &&
    offered.every((o) => o.isSound && o.account !== null);
  const accept = () => {
    if (!asked || !isReady) return;
    // Why it is refused is said where every refusal is.
    if (takeStatements(asked.file.name, offered)) return;
    const count = offered.reduce((t, o) => t + o.joins.movements.length, 0);
    say(
      `${asked.file.name} is taken in: ${count} movements. Ctrl+Z takes ${offered.length > 1 ? 'them' : 'it'} back.`,
    );
    setAsked(null);
  };
  return (
    <>
      <FileButton
        accept=".xml,.csv,.txt,.tsv,.xlsx"
        onChange={(f) => void take(f)}
        inputProps={{ 'aria-label': 'File of a bank' }}
      >
        {(props) => (
          <Button {...props} disabled={readOnly}>
            Statement from a file…
          </Button>
        )}
      </FileButton>
      <DayInput
        aria-label="The simulated bank is asked up to"
        size="xs"
        w={130}
        disabled={readOnly}
        value={until ?? usual}
        onCommit={setUntil}
      />
      <Button disabled={readOnly || busy} onClick={() => void ask()}>
        Ask the simulated bank
      </Button>
      {asked && (
        <Dialog opened onClose={() => setAsked(null)} title={asked.file.name} size="lg">
          {offered.map((o, n) => (
            <section key={n} aria-label={`Statement ${n + 1}`} style={{ marginBottom: 14 }}>
              <StatementWords offered={o} money={money} isTable={asked.file.isTable} />
              <AccountChoice
                label={o.statement.account ? `Account ${o.statement.account} at the bank is` : 'It is of'}
                none="choose an account"
                accounts={book.accounts.filter((a) => a.kind === 'bank')}
                value={o.account}
                onValue={(account) =>
                  setAsked({ ...asked, accounts: asked.accounts.map((a, i) => (i === n ? account : a)) })
                }
              />
              {asked.file.isTable && (
                <div style={{ display: 'flex', gap: 10, marginTop: 8, flexWrap: 'wrap' }}>
                  <DayInput
                    label="It tells every day from"
                    size="xs"
                    value={o.statement.first}
                    onCommit={(day: Day | null) => day && change(n, { first: day })}
                  />
                  <DayInput
                    label="to the end of"
                    size="xs"
                    value={o.statement.last}
                    onCommit={(day: Day | null) => day && change(n, { last: day })}
                  />
                  <MoneyInput
                    label="Held then (blank: not known)"
                    size="xs"
                    currency={book.currency}
                    locale={book.locale}
                    value={o.statement.closing}
                    onCommit={(closing: Minor | null) =>
                      change(n, {
                        closing,
                        opening: closing === null ? null : openingOf(o.statement, closing),
                      })
                    }
                  />
                </div>
              )}
            </section>
          ))}
          {asked.file.doubt && (
            <NumbersChoice
              doubt={asked.file.doubt}
              text={money.exact}
              chosen={asked.said}
              onChoose={(format) =>
                void readBankFile(book, asked.file.name, asked.file.bytes, format).then((f) =>
                  typeof f === 'string'
                    ? say(f, 'trouble')
                    : setAsked({ ...asked, file: { ...f, doubt: asked.file.doubt }, said: format }),
                )
              }
            />
          )}
          <Button data-autofocus mr={8} disabled={!isReady} onClick={accept}>
            Take it in
          </Button>
          <Button onClick={() => setAsked(null)}>Leave it out</Button>
        </Dialog>
      )}
    </>
  );
}

const openingOf = ({ movements }: ReadStatement, closing: Minor): Minor =>
  minor(movements.reduce((t, m) => t - m.amount, closing as number));

/** What a statement holds, what is told of it, and what stands in its way. */
function StatementWords({
  offered: { statement, joins },
  money,
  isTable,
}: {
  readonly offered: Offered;
  readonly money: MoneyFormat;
  readonly isTable: boolean;
}) {
  const { movements, first, last, opening, closing, issues } = statement;
  const exact = (amount: number) => money.exact(minor(amount));
  const wrong = issues.filter((i) => STOPS.has(i.code));
  const told = issues.filter((i) => !STOPS.has(i.code));
  return (
    <>
      <p>
        {movements.length} {movements.length === 1 ? 'movement' : 'movements'} from{' '}
        {onDay(toDayNumber(first))} to {onDay(toDayNumber(last))}
        {opening !== null && closing !== null
          ? `: from ${exact(opening)} to ${exact(closing)}.`
          : `; ${isTable ? 'the list' : 'the statement'} says no balance.`}
      </p>
      {joins.repeated > 0 && (
        <p>
          {joins.repeated} of them {joins.repeated === 1 ? 'is' : 'are'} in the book already and{' '}
          {joins.repeated === 1 ? 'is' : 'are'} not taken twice.
        </p>
      )}
      {joins.gap && (
        <p className="trouble">
          Nothing is known from {onDay(joins.gap.from)} to {onDay(joins.gap.to)}: a statement is missing
          between.
        </p>
      )}
      {joins.jump !== 0 && (
        <p className="trouble">It opens {exact(joins.jump)} off what the one before it closed with.</p>
      )}
      {told.map((i) => (
        <p key={i.code}>{issueWords(i, exact)}</p>
      ))}
      {wrong.length > 0 && (
        <>
          <p>
            <b>It cannot be taken in: one movement less, and every balance after it is wrong.</b>
          </p>
          <ul style={{ maxHeight: 180, overflow: 'auto' }}>
            {wrong.slice(0, 100).map((i, n) => (
              <li key={n}>{issueWords(i, exact)}</li>
            ))}
          </ul>
        </>
      )}
    </>
  );
}

function issueWords(issue: StatementIssue, exact: (amount: number) => string): string {
  switch (issue.code) {
    case 'pending':
      return `${issue.count} ${issue.count === 1 ? 'entry is' : 'entries are'} not booked yet and left out.`;
    case 'reversals':
      return `${issue.count} ${issue.count === 1 ? 'takes an earlier one' : 'take earlier ones'} back.`;
    case 'batches':
      return `${issue.count} booked together ${issue.count === 1 ? 'stands' : 'stand'} apart by payment.`;
    case 'batchOff':
      return `${issue.place}: the payments booked together are ${exact(issue.by)} off what was booked; it stays one movement.`;
    case 'noAmount':
      return `${issue.place}: the amount is missing or cannot be read (“${issue.value}”)`;
    case 'noDay':
      return `${issue.place}: the day is missing or cannot be read (“${issue.value}”)`;
    case 'otherCurrency':
      return `${issue.place}: in another currency (${issue.value})`;
    case 'offBy':
      return `${issue.place}: movements and balances are ${exact(issue.by)} apart`;
  }
}
