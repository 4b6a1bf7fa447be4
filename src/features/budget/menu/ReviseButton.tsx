'use client';

import { useState } from 'react';
import { Button, TextInput } from '@mantine/core';
import { Dialog } from '@/components/Dialog';
import { fiscalYearLabel } from '@/core/calendar';
import { LIMITS, type Book, type Budget } from '@/core/model';
import { addDraftOf } from '@/store/actions';
import { setSession } from '@/store/session';

/** A new draft with an approved budget's lines, and why it is made. */
export function ReviseButton({ budget, book }: { readonly budget: Budget; readonly book: Book }) {
  const [reason, setReason] = useState<string | null>(null);
  const year = fiscalYearLabel(Number(budget.first.slice(0, 4)));
  const revise = () => {
    const n = book.budgets.filter((b) => b.first === budget.first && b.length === budget.length).length;
    const change = {
      name: `${year} revision ${n}`,
      revises: { budget: budget.id, reason: (reason ?? '').trim() },
      lines: budget.lines.map((l) => ({ ...l, looked: null })),
    };
    const id = addDraftOf(book, budget, change, reason ?? '');
    if (id) setSession({ budgetId: id });
    setReason(null);
  };
  return (
    <>
      <span className="faded">Approved figures stay as they are.</span>
      <Button variant="filled" onClick={() => setReason('')}>
        Start a revision
      </Button>
      <Dialog
        opened={reason !== null}
        onClose={() => setReason(null)}
        title={<span className="title">Start a revision of {budget.name}</span>}
      >
        <form
          onSubmit={(e) => {
            e.preventDefault();
            revise();
          }}
        >
          <TextInput
            data-autofocus
            label="Why it is revised"
            placeholder="A new tariff, a hire, a lost contract …"
            value={reason ?? ''}
            maxLength={LIMITS.reason}
            onChange={(e) => setReason(e.currentTarget.value)}
            mb="md"
          />
          <Button type="submit" variant="filled" disabled={!reason?.trim()}>
            Start the revision
          </Button>
        </form>
      </Dialog>
    </>
  );
}
