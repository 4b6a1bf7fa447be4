'use client';

import { useState } from 'react';
import { Button, TextInput } from '@mantine/core';
import type { MenuEntry } from '@/components/Opened';
import { MenuButton } from '@/components/Opens';
import { Dialog } from '@/components/Dialog';
import { AfterApproval, mayRule, rulesNow } from './InForce';
import { PersonFields } from '@/components/PersonFields';
import { LIMITS, nameWith, type Budget } from '@/core/model';
import { dispatch, useBookStore } from '@/store/bookStore';
import { addDraftOf, approveBudget, putInForce, fingerprintOf } from '@/store/actions';
import type { Ground } from '@/core/ground';
import { useOpenGround } from '@/store/openGround';
import { initialsOf, setPerson, usePerson } from '@/store/person';
import { say, setSession } from '@/store/session';
import classes from '../Budget.module.css';

type Asking = 'rename' | 'delete' | 'approve' | 'clear' | 'person' | 'duplicate' | 'fingerprint' | null;

const TITLES: Record<NonNullable<Asking>, (name: string) => string> = {
  rename: () => 'Rename the budget',
  delete: () => 'Delete the budget',
  approve: (name) => `Approve ${name}`,
  clear: (name) => `Clear ${name}`,
  person: () => 'Who works here',
  duplicate: (name) => `Duplicate ${name}`,
  fingerprint: (name) => `What was approved in ${name}`,
};

/** The budget's name: the way to the other budgets, and what can be done with this one. */
export function BudgetMenu({ id: budgetId }: { readonly id: string }) {
  const ground = useOpenGround();
  const budget = ground.book.budgets.find((b) => b.id === budgetId);
  return budget ? <MenuOf ground={ground} budget={budget} /> : null;
}

function MenuOf({ ground, budget }: { readonly ground: Ground; readonly budget: Budget }) {
  const readOnly = useBookStore((s) => s.readOnly);
  const person = usePerson();
  const [dialog, setDialog] = useState<Asking>(null);
  const [text, setText] = useState('');
  const [takesOver, setTakesOver] = useState(false);
  const [print, setPrint] = useState<string | null>(null);
  const close = () => setDialog(null);
  const open = (d: Asking, more = ', copy') => {
    setText(
      d === 'rename' ? budget.name : d === 'duplicate' ? nameWith(budget.name, more, LIMITS.budgetName) : '',
    );
    setTakesOver(false);
    setDialog(d);
  };

  const approve = async () => {
    const refusal = await approveBudget(ground, budget, person.name, takesOver);
    if (!refusal) say(`${budget.name} is approved: its ${budget.length} months are frozen.`);
    close();
  };
  const checkPrint = async () => {
    setPrint(null);
    open('fingerprint');
    // What was approved is as it was then, not as it is shown through later merges.
    const then = useBookStore.getState().history?.book.budgets.find((b) => b.id === budget.id);
    if (then?.approved) setPrint(await fingerprintOf(then, then.approved.lines));
  };
  const rule = async () => {
    if (await putInForce(ground, budget)) return;
    const now = useBookStore.getState().history?.book;
    const since = now ? rulesNow({ ...ground, book: now }, budget) : null;
    say(
      `${budget.name} is in force${since === null ? '' : ` from ${ground.calendar.period(since).label} on`}. Ctrl+Z takes that back.`,
    );
  };
  const duplicate = () => {
    const id = addDraftOf(ground.book, budget, { name: text.trim(), revises: null });
    if (id) setSession({ budgetId: id });
    close();
  };
  const named = (run: () => void, label: string, action: string) => (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) run();
      }}
    >
      <TextInput
        data-autofocus
        label={label}
        value={text}
        maxLength={LIMITS.budgetName}
        onChange={(e) => setText(e.currentTarget.value)}
        mb="md"
      />
      <Button type="submit" variant="filled" disabled={!text.trim()}>
        {action}
      </Button>
    </form>
  );

  const entries: MenuEntry[] = [
    ...ground.book.budgets.map((b) => ({
      key: b.id,
      label: b.name,
      current: b.id === budget.id,
      aside: <span className="faded">{rulesNow(ground, b) === null ? b.state : `${b.state}, in force`}</span>,
      run: () => setSession({ budgetId: b.id }),
    })),
  ];
  if (budget.approved) entries.push('line', { label: 'What was approved…', run: () => void checkPrint() });
  if (!readOnly) {
    entries.push('line');
    if (budget.state === 'draft') entries.push({ label: 'Approve…', run: () => open('approve') });
    if (mayRule(ground, budget)) entries.push({ label: 'Put in force', run: () => void rule() });
    entries.push(
      { label: 'Rename…', run: () => open('rename') },
      { label: 'Duplicate…', run: () => open('duplicate') },
      { label: 'A better case…', run: () => open('duplicate', ', better case') },
      { label: 'A worse case…', run: () => open('duplicate', ', worse case') },
      { label: 'Your name…', run: () => open('person') },
    );
    if (budget.state === 'draft') entries.push({ label: 'Clear all lines…', run: () => open('clear') });
    entries.push({ label: 'Delete…', run: () => open('delete'), takesAway: true });
  }

  return (
    <>
      <MenuButton
        width={280}
        button={
          <button type="button" className={classes.name}>
            {budget.name} ▾
          </button>
        }
        entries={entries}
      />
      <Dialog
        opened={dialog !== null}
        onClose={close}
        title={<span className="title">{dialog && TITLES[dialog](budget.name)}</span>}
      >
        {dialog === 'approve' && (
          <>
            <p style={{ marginTop: 0 }}>
              Its figures are frozen as they are now, and actuals are compared with them. Changes go on in a
              revision.
            </p>
            <AfterApproval ground={ground} budget={budget} takesOver={takesOver} onTakesOver={setTakesOver} />
            <PersonFields person={person} initialsOf={initialsOf} onPerson={setPerson} />
            <Button mt="md" data-autofocus variant="filled" onClick={() => void approve()}>
              Approve
            </Button>
          </>
        )}
        {dialog === 'person' && (
          <>
            <p style={{ marginTop: 0 }}>
              Your name goes with your changes, notes and approvals. It is kept in this browser.
            </p>
            <PersonFields person={person} initialsOf={initialsOf} onPerson={setPerson} />
            <Button mt="md" variant="filled" onClick={close}>
              Done
            </Button>
          </>
        )}
        {dialog === 'fingerprint' && budget.approved && <Approved approved={budget.approved} print={print} />}
        {dialog === 'rename' &&
          named(
            () => {
              dispatch({ type: 'renameBudget', budget: budget.id, name: text });
              close();
            },
            'Name',
            'Rename',
          )}
        {dialog === 'duplicate' && named(duplicate, 'Name of the copy', 'Duplicate')}
        {dialog === 'clear' && (
          <>
            <p style={{ marginTop: 0 }}>
              All {budget.lines.length} lines become blank, to be typed by month. Notes and drivers stay.
              Ctrl+Z brings everything back.
            </p>
            <Button
              data-autofocus
              variant="filled"
              onClick={() => {
                dispatch({ type: 'clearLines', budget: budget.id, lines: budget.lines });
                say(`${budget.name} is cleared. Ctrl+Z brings it back.`);
                close();
              }}
            >
              Clear all lines
            </Button>
          </>
        )}
        {dialog === 'delete' && (
          <form
            onSubmit={(e) => {
              e.preventDefault();
              if (text.trim() !== budget.name) return;
              dispatch({ type: 'deleteBudget', budget: budget.id });
              say(`${budget.name} is deleted. Ctrl+Z brings it back.`);
              close();
            }}
          >
            <TextInput
              data-autofocus
              label={`Type “${budget.name}” to delete it`}
              value={text}
              onChange={(e) => setText(e.currentTarget.value)}
              mb="md"
            />
            <Button
              type="submit"
              variant="filled"
              color="#a8322a"
              c="white"
              disabled={text.trim() !== budget.name}
            >
              Delete
            </Button>
          </form>
        )}
      </Dialog>
    </>
  );
}

/** Who approved, when, and whether the figures are still those that were approved. */
function Approved({
  approved,
  print,
}: {
  readonly approved: NonNullable<Budget['approved']>;
  readonly print: string | null;
}) {
  const same = print !== null && print === approved.fingerprint;
  return (
    <>
      <p style={{ marginTop: 0 }}>
        Approved {new Date(approved.at).toLocaleString('sv-SE')}
        {approved.by ? ` by ${approved.by}` : ''}, {approved.lines.length} lines.
      </p>
      <p>
        {print === null
          ? 'Adding up its fingerprint …'
          : approved.fingerprint === ''
            ? 'It was approved before fingerprints were taken; there is none to compare with.'
            : same
              ? '✓ The figures are those that were approved: their fingerprint is the same.'
              : '✗ The figures are not those that were approved: their fingerprint differs.'}
      </p>
      <p className={classes.print}>{print ?? ''}</p>
      <p className={classes.hint}>
        The fingerprint is the SHA-256 of every figure of every line. A board that has written it down can
        tell that a budget is the one it approved.
      </p>
    </>
  );
}
