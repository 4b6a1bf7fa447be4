'use client';

import { useMemo, useState } from 'react';
import { Button, Checkbox, Group, NativeSelect, TextInput } from '@mantine/core';
import { applying, createMemory, makeGround, type Ground, type NotApplied } from '@/core/ground';
import { cutText, LIMITS, RUNS, type Adjusts, type Budget, type Case } from '@/core/model';
import { assumedIn, isOfCompany } from '@/core/scenario';
import { steadyGround } from '@/store/questions';
import { Dialog } from '@/components/Dialog';
import { dispatch } from '@/store/bookStore';
import { decimalsOf, sizeText } from '@/store/caseWords';
import { wantName } from '@/store/person';
import { say, setSession } from '@/store/session';
import classes from './WhatIf.module.css';

const NEW = '';

const WHY_NOT: Readonly<Record<NotApplied, string>> = {
  noLine: 'that draft has no such line',
  bySchedule: 'a schedule makes the line that it names',
  severalLines: 'it says an amount, and several lines are what it names',
  noDriver: 'that draft has no such driver',
  noRow: 'that draft has no such row',
  nothing: 'what it names is no longer in the book',
  already: 'it is in that draft already',
};

/** Where an adjustment goes. */
function goesInto(what: Adjusts): string {
  if (isOfCompany(what)) return 'changes every plan';
  if (what.on.startsWith('terms')) return 'terms, from its months on';
  return RUNS.has(what.on) ? 'lines, which go on following' : 'written into its schedules';
}

/** Takes a case, or some of it, into a draft: one change, undone by one. */
export function ApplyDialog({
  ground,
  one,
  base,
  onClose,
}: {
  readonly ground: Ground;
  readonly one: Case;
  /** The plan that the case is looked at over. */
  readonly base: Budget | null;
  readonly onClose: () => void;
}) {
  const { book } = ground;
  const still = steadyGround(ground);
  const drafts = book.budgets.filter((b) => b.state === 'draft');
  const [into, setInto] = useState(
    () => (drafts.some((b) => b.id === base?.id) ? base!.id : base && NEW) ?? drafts[0]?.id ?? NEW,
  );
  const [name, setName] = useState(() => cutText(`${base?.name ?? 'Plan'}, ${one.name}`, LIMITS.budgetName));
  const [without, setWithout] = useState<ReadonlySet<string>>(new Set());
  const assumed = useMemo(() => assumedIn(book, one), [book, one]);
  const fresh = useMemo<Budget | null>(() => {
    if (into !== NEW || !base) return null;
    const revises = base.approved ? { budget: base.id, reason: cutText(one.name, LIMITS.reason) } : null;
    const lines = base.lines.map((l) => ({ ...l, looked: null }));
    return { ...base, id: `b${book.nextId}`, name, state: 'draft', approved: null, revises, lines };
  }, [into, base, book.nextId, name, one.name]);
  const draft = fresh ?? drafts.find((b) => b.id === into) ?? null;
  const change = useMemo(() => {
    if (!draft) return null;
    const own =
      fresh === null
        ? still
        : makeGround(
            { ...book, budgets: [...book.budgets, fresh] },
            new Map(ground.blocks.map((b) => [b.id, b])),
            createMemory(),
          );
    return applying(
      own,
      draft,
      assumed.filter((a) => !without.has(a.adjustment.id)),
    );
  }, [still, ground, book, draft, fresh, assumed, without]);
  const left = new Map(change?.left.map((l) => [l.adjustment, l.because]));
  const company = change?.applied.some((a) => isOfCompany(a.adjustment.what)) ?? false;
  const ok =
    draft !== null && change !== null && change.applied.length > 0 && (fresh === null || name.trim() !== '');
  const apply = () => {
    if (!ok) return;
    wantName();
    const { left: _, ...parts } = change;
    const refused = dispatch(
      {
        type: 'applyAdjustments',
        budget: draft.id,
        fresh: fresh && { ...fresh, name: name.trim() },
        ...parts,
      },
      undefined,
      one.name,
    );
    if (refused) return;
    setSession({ planId: draft.id });
    say(`“${one.name}” is in ${fresh ? name.trim() : draft.name} now. Ctrl+Z takes it back.`);
    onClose();
  };
  return (
    <Dialog opened onClose={onClose} size="lg" title={`Take “${one.name}” into a plan`}>
      <form
        onSubmit={(e) => {
          e.preventDefault();
          apply();
        }}
      >
        <div className={classes.fields}>
          <NativeSelect
            label="Into"
            value={into}
            data={[
              ...drafts.map((b) => ({ value: b.id, label: b.name })),
              ...(base ? [{ value: NEW, label: `A new draft, from ${base.name}` }] : []),
            ]}
            onChange={(e) => setInto(e.currentTarget.value)}
          />
          {into === NEW && (
            <TextInput
              label="Its name"
              maxLength={LIMITS.budgetName}
              value={name}
              onChange={(e) => setName(e.currentTarget.value)}
            />
          )}
        </div>
        <ul className={classes.taken}>
          {assumed.map(({ adjustment: a, size }) => {
            const because = left.get(a.id);
            return (
              <li key={a.id}>
                <Checkbox
                  checked={!without.has(a.id) && because === undefined}
                  disabled={because !== undefined && !without.has(a.id)}
                  label={`${a.name}, ${sizeText(a.what, size, book, decimalsOf(book, a.what))}`}
                  description={because ? `Not taken in: ${WHY_NOT[because]}.` : goesInto(a.what)}
                  onChange={(e) => {
                    const next = new Set(without);
                    if (e.currentTarget.checked) next.delete(a.id);
                    else next.add(a.id);
                    setWithout(next);
                  }}
                />
              </li>
            );
          })}
        </ul>
        {assumed.length === 0 && <p className="faded">Nothing has a size in {one.name}.</p>}
        <p className="faded">
          Closed months stay as they were planned. Who assumed what and why stays with it; in that plan it
          counts no second time.
          {company &&
            ' What changes every plan (the credit line, the floor, dated and open items) changes with it.'}
          {fresh &&
            base?.approved &&
            ` What was approved stays as it is: the draft is a copy that goes by its methods.`}
        </p>
        <Group justify="flex-end" mt="md">
          <Button variant="default" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" disabled={!ok}>
            Take it in
          </Button>
        </Group>
      </form>
    </Dialog>
  );
}
