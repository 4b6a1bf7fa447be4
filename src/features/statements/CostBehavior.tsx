'use client';

import { Button, Group, TextInput } from '@mantine/core';
import type { Ground } from '@/core/ground';
import { variableShareOf } from '@/core/statements';
import { dispatch, useBookStore } from '@/store/bookStore';
import { say } from '@/store/session';
import classes from './Statements.module.css';

/** Which costs rise with sales, and by how much of them: what break-even sales and overheads are reckoned by. */
export function CostBehavior({ ground: { book } }: { readonly ground: Ground }) {
  const readOnly = useBookStore((s) => s.readOnly);
  const costs = book.accounts.filter((a) => a.active && variableShareOf(a, {}) !== null);
  const set = (accounts: readonly string[], variable: number | null) =>
    dispatch({ type: 'setCostBehavior', accounts, variable });
  return (
    <section>
      <Group justify="space-between">
        <span className="label" id="cost-behavior">
          Fixed and variable costs
        </span>
        {!readOnly && Object.keys(book.variableShares).length > 0 && (
          <Button size="compact-xs" onClick={() => set(Object.keys(book.variableShares), null)}>
            All by their kind
          </Button>
        )}
      </Group>
      <p className="faded" style={{ fontSize: 12, margin: '4px 0' }}>
        The share of each that rises with sales, in percent: 0 is fixed, 100 variable, between them mixed.
      </p>
      <div
        role="group"
        aria-labelledby="cost-behavior"
        tabIndex={0}
        style={{ maxHeight: 220, overflow: 'auto' }}
      >
        {costs.map((a) => {
          const share = variableShareOf(a, book.variableShares)!;
          return (
            <div key={a.id} className={classes.pair} style={{ alignItems: 'center' }}>
              <span>
                {a.code} {a.name}
              </span>
              <TextInput
                key={share}
                aria-label={`Variable share of ${a.name}, percent`}
                size="xs"
                w={58}
                defaultValue={String(share)}
                disabled={readOnly}
                styles={{ input: { textAlign: 'right' } }}
                onKeyDown={(e) => {
                  if (e.key === 'Enter') e.currentTarget.blur();
                }}
                onBlur={(e) => {
                  const text = e.currentTarget.value.replace('%', '').trim();
                  const value = Number(text);
                  if (text === String(share)) return;
                  if (text === '') return void set([a.id], null);
                  if (!/^\d{1,3}$/.test(text) || value > 100) {
                    e.currentTarget.value = String(share);
                    say('A share is a whole percent from 0 to 100.', 'trouble');
                  } else set([a.id], value);
                }}
              />
            </div>
          );
        })}
      </div>
    </section>
  );
}
