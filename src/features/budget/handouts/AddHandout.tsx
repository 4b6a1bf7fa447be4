'use client';

import { useMemo, useState } from 'react';
import { Button, Checkbox, Group, NativeSelect, TextInput } from '@mantine/core';
import { handedLines, linesToHand, newHandout, payAccounts } from '@/core/handout';
import type { Ground } from '@/core/ground';
import { LIMITS, lineKey, segmentName, type Budget, type Handout, type Round } from '@/core/model';
import { dispatch } from '@/store/bookStore';
import { KIND_NAMES } from '@/store/kindNames';
import { say } from '@/store/session';
import { lineLabel } from './lineLabel';
import classes from './Handouts.module.css';

/** Whom lines are handed to, and which: by kind, group, segment, code or who looks after them, or one by one. */
export function AddHandout({
  ground,
  budget,
  round,
  handout,
  onDone,
}: {
  readonly ground: Ground;
  readonly budget: Budget;
  readonly round: Round;
  /** Null for a new one. */
  readonly handout: Handout | null;
  readonly onDone: (handout: string | null) => void;
}) {
  const { book } = ground;
  const axis = book.axes.find((a) => a.id === budget.axis) ?? null;
  const accounts = useMemo(() => new Map(book.accounts.map((a) => [a.id, a])), [book.accounts]);
  const [to, setTo] = useState(handout?.to ?? '');
  const [address, setAddress] = useState(handout?.address ?? '');
  const [by, setBy] = useState({ keeper: '', kind: '', group: '', segment: '', from: '', through: '' });
  const [withPay, setWithPay] = useState(false);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const lines = useMemo(
    () =>
      linesToHand(
        ground,
        budget,
        (a, line) =>
          (!by.keeper || a.keeper === by.keeper) &&
          (!by.kind || a.kind === by.kind) &&
          (!by.group || a.group === by.group) &&
          (!by.segment || (line.segment ?? '-') === by.segment) &&
          (!by.from || a.code >= by.from) &&
          (!by.through || a.code.slice(0, by.through.length) <= by.through),
        withPay,
      ),
    [ground, budget, by, withPay],
  );
  const pay = useMemo(() => payAccounts(budget, book.accounts), [budget, book.accounts]);
  const all = useMemo(() => linesToHand(ground, budget, () => true, true), [ground, budget]);
  const of = (pick: (id: string) => string) =>
    [...new Set(all.map((l) => pick(l.account)).filter(Boolean))].toSorted();
  const chosen = lines.filter((l) => !left.has(lineKey(l)));
  const choose = (key: keyof typeof by, label: string, data: readonly { value: string; label: string }[]) =>
    data.length > 0 && (
      <NativeSelect
        label={label}
        value={by[key]}
        data={[{ value: '', label: 'any' }, ...data]}
        onChange={(e) => {
          const { value } = e.currentTarget;
          setBy({ ...by, [key]: value });
          if (key === 'keeper' && to === '') setTo(value);
        }}
      />
    );
  const plain = (texts: readonly string[]) => texts.map((t) => ({ value: t, label: t }));
  const keep = () => {
    if (to.trim() === '') return say('Say who it is for.', 'trouble');
    if (!handout && chosen.length === 0) return say('Choose at least one line.', 'trouble');
    const [name, mail] = [to.trim(), address.trim()];
    const next = handout
      ? { ...handout, to: name, address: mail }
      : newHandout(`h${ground.book.nextId}`, name, mail, handedLines(ground, budget, round, chosen));
    const handouts = handout
      ? round.handouts.map((h) => (h.id === handout.id ? next : h))
      : [...round.handouts, next];
    if (!dispatch({ type: 'setRound', round: { ...round, handouts } })) onDone(next.id);
  };
  return (
    <form
      aria-label={handout ? 'Whom it is for' : 'Hand lines to someone'}
      className={classes.wide}
      onSubmit={(e) => {
        e.preventDefault();
        keep();
      }}
    >
      <Group gap={8} align="end" grow>
        <TextInput
          label="For"
          data-autofocus
          value={to}
          maxLength={LIMITS.person}
          onChange={(e) => setTo(e.currentTarget.value)}
        />
        <TextInput
          label="Mail address"
          value={address}
          maxLength={LIMITS.person}
          onChange={(e) => setAddress(e.currentTarget.value)}
        />
      </Group>
      {!handout && (
        <>
          <Group gap={8} align="end" mt={8}>
            {choose('keeper', 'Looked after by', plain(of((id) => accounts.get(id)?.keeper ?? '')))}
            {choose(
              'kind',
              'Kind',
              of((id) => accounts.get(id)?.kind ?? '').map((k) => ({
                value: k,
                label: KIND_NAMES[k as keyof typeof KIND_NAMES],
              })),
            )}
            {choose('group', 'Group', plain(of((id) => accounts.get(id)?.group ?? '')))}
            {axis &&
              choose(
                'segment',
                axis.name,
                budget.segments.map((s) => ({ value: s ?? '-', label: segmentName(axis, s) })),
              )}
            <TextInput
              label="Codes from"
              w={80}
              value={by.from}
              onChange={(e) => setBy({ ...by, from: e.currentTarget.value.trim() })}
            />
            <TextInput
              label="through"
              w={80}
              value={by.through}
              onChange={(e) => setBy({ ...by, through: e.currentTarget.value.trim() })}
            />
          </Group>
          <Group gap={12} mt={8} mb={4} justify="space-between">
            <span className="label">
              {chosen.length} {chosen.length === 1 ? 'line' : 'lines'}
            </span>
            {pay.size > 0 && (
              <Checkbox
                size="xs"
                label="With pay"
                checked={withPay}
                onChange={(e) => setWithPay(e.currentTarget.checked)}
              />
            )}
          </Group>
          <div className={classes.lines} role="group" aria-label="Lines" tabIndex={0}>
            {lines.slice(0, 1000).map((l) => {
              const a = accounts.get(l.account)!;
              const key = lineKey(l);
              return (
                <Checkbox
                  key={key}
                  size="xs"
                  py={7}
                  label={lineLabel(a, axis, l)}
                  checked={!left.has(key)}
                  onChange={(e) => {
                    const next = new Set(left);
                    if (e.currentTarget.checked) next.delete(key);
                    else next.add(key);
                    setLeft(next);
                  }}
                />
              );
            })}
            {lines.length === 0 && <p className="faded">No line is chosen by all of this.</p>}
          </div>
        </>
      )}
      <Group gap={8} mt={10}>
        <Button type="submit">{handout ? 'Keep' : 'Add'}</Button>
        <Button onClick={() => onDone(handout?.id ?? null)}>Cancel</Button>
      </Group>
    </form>
  );
}
