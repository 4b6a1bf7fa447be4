'use client';

import { useState } from 'react';
import { Button, NativeSelect } from '@mantine/core';
import type { AccountChoice, Draft } from '@/core/intake';
import { ACCOUNT_KINDS, type AccountKind } from '@/core/model';
import { count, KIND_NAMES, KIND_REASONS } from './words';
import classes from './Books.module.css';

const STEP = 60;
const KIND_OPTIONS = ACCOUNT_KINDS.map((k) => ({ value: k, label: KIND_NAMES[k] }));

/** The accounts of the file: which the book has already, and what kind the new ones are, unsure ones on top. */
export function IntakeAccounts({
  draft,
  choices,
  onKind,
}: {
  readonly draft: Draft;
  readonly choices: readonly AccountChoice[];
  readonly onKind: (account: number, kind: AccountKind) => void;
}) {
  const [showAll, setShowAll] = useState(false);
  // A thousand rows of choices take the page a second to draw; the unsure ones stand on top.
  const [drawn, setDrawn] = useState(STEP);
  const all = draft.accounts
    .map((account, i) => ({ account, choice: choices[i]!, i }))
    .filter((x) => x.choice !== undefined);
  const fresh = all.filter((x) => x.choice.existing === null);
  const unsure = fresh.filter((x) => !x.choice.sure);
  const known = all.length - fresh.length;
  const shown = [
    ...unsure,
    ...fresh.filter((x) => x.choice.sure),
    ...(showAll ? all.filter((x) => x.choice.existing !== null) : []),
  ];
  return (
    <section className={classes.step}>
      <h2>
        Accounts
        <small>
          {known > 0 ? `${count(known, 'account')} found in the book, ` : ''}
          {fresh.length} new
          {unsure.length > 0 ? `, ${unsure.length} unsure` : ''}
        </small>
        {known > 0 && (
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
                <th>Kind</th>
                <th>Why</th>
              </tr>
            </thead>
            <tbody>
              {shown.slice(0, drawn).map(({ account, choice, i }) => (
                <tr key={i} className={choice.sure ? undefined : classes.unsure}>
                  <td className="figure">{account.code}</td>
                  <td>{account.name}</td>
                  <td className="faded">{account.section}</td>
                  <td>
                    {choice.existing === null ? (
                      <NativeSelect
                        aria-label={`Kind of ${account.name}`}
                        value={choice.kind}
                        data={KIND_OPTIONS}
                        onChange={(e) => onKind(i, e.currentTarget.value as AccountKind)}
                      />
                    ) : (
                      KIND_NAMES[choice.kind]
                    )}
                  </td>
                  <td className="faded">
                    {choice.sure ? KIND_REASONS[choice.why] : `unsure: ${KIND_REASONS[choice.why]}`}
                  </td>
                </tr>
              ))}
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
}
