'use client';

import { NativeSelect } from '@mantine/core';
import { isProfitAndLoss, type AccountKind, type Book, type Ref } from '@/core/model';
import { kindWords } from '@/components/formula/kindWords';
import { Field } from './parts';

const text = (ref: Ref): string =>
  ref.of === 'account'
    ? `a:${ref.account}`
    : ref.of === 'group'
      ? `g:${ref.kind}:${ref.group}`
      : `k:${ref.kind}`;

function refOf(value: string): Ref {
  const [tag, a, ...rest] = value.split(':');
  if (tag === 'a') return { of: 'account', account: a! };
  const kind = a as AccountKind;
  return tag === 'k' ? { of: 'kind', kind } : { of: 'group', kind, group: rest.join(':') };
}

/** A choice of what to follow: all of a kind, a group, or an account; with `own`, the line itself. */
export function RefField({
  label,
  value,
  own,
  book,
  self,
  disabled,
  onChange,
}: {
  readonly label: string;
  readonly value: Ref | null;
  readonly own?: string;
  readonly book: Book;
  readonly self: string;
  readonly disabled: boolean;
  readonly onChange: (ref: Ref | null) => void;
}) {
  const accounts = book.accounts.filter((a) => a.id !== self);
  const kinds = [...new Set(accounts.map((a) => a.kind))];
  const groups = new Map(
    accounts.filter((a) => a.group).map((a) => [`g:${a.kind}:${a.group}`, `Total ${a.group}`]),
  );
  const inOrder = [...accounts].sort(
    (a, b) => Number(isProfitAndLoss(b.kind)) - Number(isProfitAndLoss(a.kind)),
  );
  return (
    <Field label={label} wide>
      <NativeSelect
        value={value === null ? '' : text(value)}
        disabled={disabled}
        onChange={(e) => onChange(e.currentTarget.value === '' ? null : refOf(e.currentTarget.value))}
      >
        {own !== undefined && <option value="">{own}</option>}
        <optgroup label="Totals">
          {kinds.map((k) => (
            <option key={k} value={`k:${k}`}>
              Total {kindWords(k)}
            </option>
          ))}
          {[...groups].map(([v, l]) => (
            <option key={v} value={v}>
              {l}
            </option>
          ))}
        </optgroup>
        <optgroup label="Accounts">
          {inOrder.map((a) => (
            <option key={a.id} value={`a:${a.id}`}>
              {`${a.code} ${a.name}`.trim()}
            </option>
          ))}
        </optgroup>
      </NativeSelect>
    </Field>
  );
}
