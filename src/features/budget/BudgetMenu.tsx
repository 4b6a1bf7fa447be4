'use client';

import { useState } from 'react';
import { Button, Menu, Modal, TextInput } from '@mantine/core';
import type { Budget } from '@/core/model';
import { dispatch, useBookStore } from '@/store/bookStore';
import { approveBudget } from '@/store/actions';
import { useOpenGround } from '@/store/derived';
import { say, setSession } from '@/store/session';
import classes from './Budget.module.css';

type Dialog = 'rename' | 'delete' | 'approve' | null;

/** The budget's name: the way to the other budgets, and what can be done with this one. */
export function BudgetMenu({ budget }: { readonly budget: Budget }) {
  const ground = useOpenGround();
  const readOnly = useBookStore((s) => s.readOnly);
  const [dialog, setDialog] = useState<Dialog>(null);
  const [text, setText] = useState('');
  const close = () => setDialog(null);
  const open = (d: Dialog) => {
    setText(d === 'rename' ? budget.name : '');
    setDialog(d);
  };

  const approve = () => {
    const refusal = approveBudget(ground, budget);
    if (!refusal) say(`${budget.name} is approved: its ${budget.length} months are frozen.`);
    close();
  };

  return (
    <>
      <Menu position="bottom-start" width={260} shadow="sm" transitionProps={{ duration: 0 }}>
        <Menu.Target>
          <button type="button" className={classes.name}>
            {budget.name} ▾
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {ground.book.budgets.map((b) => (
            <Menu.Item
              key={b.id}
              fw={b.id === budget.id ? 600 : 400}
              onClick={() => setSession({ budgetId: b.id })}
              rightSection={<span className="faded">{b.state}</span>}
            >
              {b.name}
            </Menu.Item>
          ))}
          {!readOnly && (
            <>
              <Menu.Divider />
              {budget.state === 'draft' && <Menu.Item onClick={() => open('approve')}>Approve…</Menu.Item>}
              <Menu.Item onClick={() => open('rename')}>Rename…</Menu.Item>
              <Menu.Item c="var(--bad)" onClick={() => open('delete')}>
                Delete…
              </Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
      <Modal
        opened={dialog === 'approve'}
        onClose={close}
        title={<span className="title">Approve {budget.name}</span>}
      >
        <p>
          Its figures are frozen as they are now, and actuals are compared with them. Changes go on in a
          revision. An approved budget for the same months becomes superseded.
        </p>
        <Button data-autofocus variant="filled" onClick={approve}>
          Approve
        </Button>
      </Modal>
      <Modal
        opened={dialog === 'rename'}
        onClose={close}
        title={<span className="title">Rename the budget</span>}
      >
        <form
          onSubmit={(e) => {
            e.preventDefault();
            if (text.trim()) dispatch({ type: 'renameBudget', budget: budget.id, name: text });
            close();
          }}
        >
          <TextInput
            data-autofocus
            label="Name"
            value={text}
            maxLength={120}
            onChange={(e) => setText(e.currentTarget.value)}
            mb="md"
          />
          <Button type="submit" variant="filled" disabled={!text.trim()}>
            Rename
          </Button>
        </form>
      </Modal>
      <Modal
        opened={dialog === 'delete'}
        onClose={close}
        title={<span className="title">Delete the budget</span>}
      >
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
      </Modal>
    </>
  );
}
