'use client';

import { memo, useState } from 'react';
import { Button } from '@mantine/core';
import { CellSelect } from '@/components/CellSelect';
import { LIMITS, ACCOUNT_KINDS, type Account, type AccountKind } from '@/core/model';
import { acceptGuesses, setChoice, type OpenIntake } from '@/store/intake';
import { useSteps } from './useSteps';
import { KIND_NAMES } from '@/store/kindNames';
import { KIND_REASONS } from './intakeWords';
import { count } from './words';
import classes from './Books.module.css';

const STEP = 24;
const KIND_OPTIONS = ACCOUNT_KINDS.map((k) => ({ value: k, label: KIND_NAMES[k] }));
const named = (a: { readonly code: string; readonly name: string }) =>
  [a.code, a.name].filter(Boolean).join(' ');

type AccountsProps = {
  readonly now: OpenIntake;
  readonly accounts: readonly Account[];
};

/** The accounts of the file: which the book has already, and what kind the new ones are, unsure ones on top. */
export const IntakeAccounts = memo(function IntakeAccounts({ now, accounts }: AccountsProps) {
  const { draft, choices } = now;
  const [showAll, setShowAll] = useState(false);
  // A thousand rows of choices take the page a second to draw; the unsure ones stand on top.
  const [drawn, setDrawn] = useState(STEP);
  const step = useSteps(2);
  // Every row of a thousand accounts to choose from would be a million options: only the row at hand has them.
  const [picking, setPicking] = useState(-1);
  // The order is that of the first look: a row must not jump away while one works on it.
  const [order] = useState(() => {
    const rank = (i: number) => (choices[i]!.existing !== null ? 2 : choices[i]!.sure ? 1 : 0);
    return draft.accounts.map((_, i) => i).sort((a, b) => rank(a) - rank(b) || a - b);
  });
  const fresh = choices.filter((c) => c.existing === null);
  const unsure = choices.filter((c) => !c.sure);
  const wasKnown = (i: number) => choices[i]!.why === 'book';
  const known = choices.filter((c) => c.existing !== null).length;
  const shown = order.filter((i) => choices[i] !== undefined && (showAll || !wasKnown(i)));
  const claimed = new Set(choices.flatMap((c) => (c.existing ? [c.existing] : [])));
  const byId = new Map(accounts.map((a) => [a.id, a]));
  const free = accounts.filter((a) => !claimed.has(a.id)).map((a) => ({ value: a.id, label: named(a) }));
  return (
    <section className={classes.step} aria-label="Accounts">
      <h2>
        Accounts
        <small>
          {known > 0 ? `${count(known, 'account')} found in the book, ` : ''}
          {fresh.length} new
          {unsure.length > 0 ? `, ${unsure.length} unsure` : ''}
        </small>
        {unsure.length > 0 && <Button onClick={acceptGuesses}>Accept all guesses</Button>}
        {choices.some((_, i) => wasKnown(i)) && (
          <Button onClick={() => setShowAll(!showAll)}>
            {showAll ? 'Show the new ones only' : 'Show all'}
          </Button>
        )}
      </h2>
      {shown.length > 0 && (
        <div className={classes.accounts} tabIndex={0} role="region" aria-label="Accounts of the file">
          <table className={classes.table}>
            <thead>
              <tr>
                <th>Code</th>
                <th>Name</th>
                <th>Section in the file</th>
                <th>In the book</th>
                <th>Kind</th>
                <th>Group</th>
                <th>Why</th>
              </tr>
            </thead>
            <tbody>
              {shown.slice(0, step < 2 ? (STEP / 3) * (1 + step) : drawn).map((i) => {
                const account = draft.accounts[i]!;
                const choice = choices[i]!;
                const maybe = choice.maybe ? byId.get(choice.maybe.id) : undefined;
                const matched = choice.existing ? byId.get(choice.existing) : undefined;
                return (
                  <tr key={i} className={choice.sure ? undefined : classes.unsure}>
                    <td className="figure">{account.code}</td>
                    <td>{account.name}</td>
                    <td className="faded">{account.section}</td>
                    <td>
                      {wasKnown(i) && matched ? (
                        <span className="faded">{named(matched)}</span>
                      ) : accounts.length === 0 ? (
                        <span className="faded">new</span>
                      ) : (
                        <CellSelect
                          aria-label={`${account.name} in the book`}
                          value={choice.existing ?? ''}
                          onFocus={() => setPicking(i)}
                          onPointerDown={() => setPicking(i)}
                          data={[
                            { value: '', label: 'new account' },
                            ...(maybe && maybe.id !== choice.existing
                              ? [{ value: maybe.id, label: `perhaps ${named(maybe)}` }]
                              : []),
                            ...(matched ? [{ value: matched.id, label: named(matched) }] : []),
                            ...(picking === i ? free.filter((f) => f.value !== maybe?.id) : []),
                          ]}
                          onChange={(e) => {
                            const id = e.currentTarget.value;
                            const target = byId.get(id);
                            setChoice(
                              i,
                              target
                                ? { existing: id, kind: target.kind, group: target.group, rename: true }
                                : { existing: null, rename: false },
                            );
                          }}
                        />
                      )}
                      {choice.existing && choice.rename && (
                        <div className={classes.hintLine}>takes this file’s code and name</div>
                      )}
                    </td>
                    <td>
                      {choice.existing === null ? (
                        <CellSelect
                          aria-label={`Kind of ${account.name}`}
                          value={choice.kind}
                          data={KIND_OPTIONS}
                          onChange={(e) =>
                            setChoice(i, { kind: e.currentTarget.value as AccountKind, why: 'name' })
                          }
                        />
                      ) : (
                        KIND_NAMES[choice.kind]
                      )}
                    </td>
                    <td>
                      {choice.existing === null ? (
                        <input
                          aria-label={`Group of ${account.name}`}
                          className={classes.bare}
                          placeholder="none"
                          defaultValue={choice.group}
                          maxLength={LIMITS.group}
                          onBlur={(e) => {
                            const group = e.currentTarget.value.trim();
                            if (group !== choice.group) setChoice(i, { group });
                          }}
                        />
                      ) : (
                        choice.group
                      )}
                    </td>
                    <td className="faded">
                      {maybe && choice.existing === null && !choice.sure
                        ? `unsure: ${choice.maybe!.by === 'name' ? 'the same name has another code in the book' : 'the book has a name like it'}`
                        : choice.sure
                          ? KIND_REASONS[choice.why]
                          : `unsure: ${KIND_REASONS[choice.why]}`}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          {shown.length > drawn && (
            <Button m="xs" onClick={() => setDrawn(drawn + 10 * STEP)}>
              Show {Math.min(10 * STEP, shown.length - drawn)} more of {count(shown.length, 'account')}
            </Button>
          )}
        </div>
      )}
    </section>
  );
}, drawnAlike);

/** What it is drawn from: a proof that comes is none of it. */
function drawnAlike(a: AccountsProps, b: AccountsProps): boolean {
  return a.accounts === b.accounts && a.now.draft === b.now.draft && a.now.choices === b.now.choices;
}
