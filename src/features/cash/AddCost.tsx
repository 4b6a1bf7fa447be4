import { Button } from '@mantine/core';
import { newAccount, type Account } from '@/core/model';
import { accountFor, isStandIn } from '@/core/schedule';
import { dispatch, useBookStore } from '@/store/bookStore';
import { say } from '@/store/session';

const NEW = {
  badDebt: { name: 'Bad debts', kind: 'expense' },
  interest: { name: 'Interest on the credit line', kind: 'otherExpense' },
} as const;

/** Where the book has no account that bears a cost which money ahead makes: a click adds one, which is found by its name. */
export function AddCost({
  accounts,
  bears,
}: {
  readonly accounts: readonly Account[];
  readonly bears: keyof typeof NEW;
}) {
  const nextId = useBookStore((s) => s.history?.book.nextId);
  const readOnly = useBookStore((s) => s.readOnly);
  if (nextId === undefined || !isStandIn(accountFor(accounts, bears))) return null;
  const { name, kind } = NEW[bears];
  return (
    <Button
      disabled={readOnly}
      onClick={() => {
        if (dispatch({ type: 'addAccount', account: newAccount(`a${nextId}`, '', name, kind) })) return;
        say(`${name} is a line of the plan from now on, made by what money ahead brings.`);
      }}
    >
      Add the account “{name}”
    </Button>
  );
}
