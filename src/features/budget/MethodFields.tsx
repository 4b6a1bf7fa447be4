'use client';

import { NativeSelect } from '@mantine/core';
import type { Minor } from '@/core/money';
import {
  isProfitAndLoss,
  type AccountId,
  type Book,
  type EvenBasis,
  type Method,
  type RoundUnit,
} from '@/core/model';
import { MoneyInput, PercentInput } from '@/components/MoneyInput';
import classes from './Budget.module.css';

const ROUNDS: readonly { readonly value: string; readonly label: string }[] = [
  { value: '0', label: 'Exact' },
  { value: '1', label: '1' },
  { value: '10', label: '10' },
  { value: '100', label: '100' },
  { value: '1000', label: '1,000' },
];

const BASES: readonly { readonly value: EvenBasis['of']; readonly label: string }[] = [
  { value: 'amount', label: 'an amount' },
  { value: 'lastYear', label: 'last year’s total' },
  { value: 'average', label: 'the average month' },
  { value: 'lastMonth', label: 'the last month' },
];

/** The inputs of a method. Each change is one undo step. */
export function MethodFields({
  method,
  book,
  self,
  lines,
  lastYearTotal,
  readOnly,
  onMethod,
}: {
  readonly method: Method;
  readonly book: Book;
  readonly self: AccountId;
  readonly lines: readonly AccountId[];
  readonly lastYearTotal: Minor;
  readonly readOnly: boolean;
  readonly onMethod: (method: Method) => void;
}) {
  const money = { currency: book.currency, locale: book.locale, disabled: readOnly };
  const field = (label: string, input: React.ReactNode) => (
    <label className={classes.field} key={label}>
      <span>{label}</span>
      {input}
    </label>
  );
  const liftAndRound = (m: Extract<Method, { uplift: unknown; round: unknown }>) => [
    field(
      'Uplift',
      <PercentInput value={m.uplift} disabled={readOnly} onCommit={(uplift) => onMethod({ ...m, uplift })} />,
    ),
    field(
      'Round months to',
      <NativeSelect
        value={String(m.round)}
        disabled={readOnly}
        data={ROUNDS as { value: string; label: string }[]}
        onChange={(e) => onMethod({ ...m, round: Number(e.currentTarget.value) as RoundUnit })}
      />,
    ),
  ];
  switch (method.kind) {
    case 'byMonth':
      return null;
    case 'lastYear':
      return <>{liftAndRound(method)}</>;
    case 'even':
      return (
        <>
          {field(
            'Made from',
            <NativeSelect
              value={method.basis.of}
              disabled={readOnly}
              data={BASES as { value: string; label: string }[]}
              onChange={(e) => {
                const of = e.currentTarget.value as EvenBasis['of'];
                onMethod({ ...method, basis: of === 'amount' ? { of, annual: lastYearTotal } : { of } });
              }}
            />,
          )}
          {method.basis.of === 'amount' &&
            field(
              'Annual amount',
              <MoneyInput
                {...money}
                value={method.basis.annual}
                onCommit={(annual) =>
                  annual !== null && onMethod({ ...method, basis: { of: 'amount', annual } })
                }
              />,
            )}
          {liftAndRound(method)}
        </>
      );
    case 'pattern':
      return (
        <>
          {field(
            'Annual amount',
            <MoneyInput
              {...money}
              value={method.annual}
              placeholder="last year’s"
              onCommit={(annual) => onMethod({ ...method, annual })}
            />,
          )}
          {liftAndRound(method)}
        </>
      );
    case 'share':
      return (
        <>
          {field(
            'Of the line',
            <NativeSelect
              value={method.of}
              disabled={readOnly}
              data={book.accounts
                .filter((a) => a.id !== self && isProfitAndLoss(a.kind) && lines.includes(a.id))
                .map((a) => ({ value: a.id, label: `${a.code} ${a.name}`.trim() }))}
              onChange={(e) => onMethod({ ...method, of: e.currentTarget.value })}
            />,
          )}
          {field(
            'Percentage',
            <PercentInput
              value={method.percent}
              disabled={readOnly}
              onCommit={(percent) => onMethod({ ...method, percent })}
            />,
          )}
        </>
      );
  }
}
