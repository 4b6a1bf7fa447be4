'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import type { Budget } from '@/core/model';
import { Trouble } from '@/components/Trouble';
import { useOpenGround } from '@/store/derived';
import { setSession, useSession } from '@/store/session';
import { StartBudget } from './StartBudget';
import { BudgetWork } from './BudgetWork';

/** The budget to show: the one chosen, else the latest draft, else the latest. */
export function chosenBudget(budgets: readonly Budget[], id: string | null): Budget | null {
  return (
    budgets.find((b) => b.id === id) ?? budgets.findLast((b) => b.state === 'draft') ?? budgets.at(-1) ?? null
  );
}

/** Going through a budget line by line; or starting one. */
export function BudgetScreen() {
  const ground = useOpenGround();
  const router = useRouter();
  const [starting, setStarting] = useState(false);
  const id = useSession((s) => s.budgetId);
  const budget = chosenBudget(ground.book.budgets, id);

  if (ground.book.accounts.length === 0)
    return (
      <Trouble
        tone="empty"
        title="A budget starts from the ledger"
        action={{ label: 'Take in a ledger file', run: () => router.push('/books') }}
      >
        This book has no accounts yet. Take in last year’s ledger first: a CSV or XLSX file of entries, or of
        accounts with months across.
      </Trouble>
    );
  if (starting || !budget)
    return (
      <StartBudget
        onDone={(started) => {
          if (started) setSession({ budgetId: started });
          setStarting(false);
        }}
        canCancel={budget !== null}
      />
    );
  return <BudgetWork key={budget.id} budget={budget} onStart={() => setStarting(true)} />;
}
