'use client';

import type { ReactNode } from 'react';
import { Button, NativeSelect } from '@mantine/core';
import { percent } from '@/core/money';
import { day } from '@/core/calendar';
import { accountFor } from '@/core/schedule';
import type { Account, DayRule, MovedTo, TermsKind, TermsOf, TermsRule } from '@/core/model';
import { NumberInput, PercentInput } from './MoneyInput';
import { AccountChoice } from './AccountChoice';
import { DayInput } from './DayInput';
import { DueFields } from './DueFields';
import { TERMS_HELP, TERMS_NAMES } from './termsWords';

type Field<T> = { readonly value: T; readonly readOnly: boolean; readonly onValue: (value: T) => void };

const END = { of: 'monthDay', day: 31 } as const;
const MONTH: TermsOf<'onAccount'>['shares'] = [{ percent: percent('100'), due: { of: 'days', days: 30 } }];

/** What each kind begins as when it is chosen. */
const FRESH: { readonly [K in TermsKind]: TermsOf<K> } = {
  atOnce: { kind: 'atOnce', on: END, moved: 'stays' },
  onAccount: {
    kind: 'onAccount',
    invoiced: END,
    shares: MONTH,
    moved: 'stays',
    badDebt: null,
    through: null,
  },
  daysOutstanding: { kind: 'daysOutstanding', days: 30, over: 1, through: null },
  fromStock: {
    kind: 'fromStock',
    target: { of: 'days', days: 30 },
    bought: { of: 'monthDay', day: 15 },
    shares: MONTH,
    moved: 'stays',
    inventory: null,
    through: null,
  },
  inAdvance: { kind: 'inAdvance', first: day('2026-01-01'), every: 12, moved: 'stays', through: null },
  withoutMoney: { kind: 'withoutMoney', against: null },
  payroll: {
    kind: 'payroll',
    on: { of: 'own' },
    net: percent('80'),
    rest: { of: 'months', months: 1, day: 15 },
    moved: 'previous',
    through: null,
  },
};

/** Where what is never paid goes unless someone says so. */
function lossName(accounts: readonly Account[]): string {
  const id = accountFor(accounts, 'badDebt');
  const name = accounts.find((a) => a.id === id)?.name;
  return name ? `${name}, by its name` : 'no account, so in no plan';
}

/** The fields of a rule of terms; every change is done at once and can be undone. */
export function TermsEditor({
  rule,
  accounts,
  readOnly,
  losses = null,
  onRule,
}: {
  readonly rule: TermsRule;
  readonly accounts: readonly Account[];
  readonly readOnly: boolean;
  /** What helps where nobody said which account bears what is never paid. */
  readonly losses?: ReactNode;
  readonly onRule: (rule: TermsRule) => void;
}) {
  const set = <R extends TermsRule>(now: R, change: Partial<R>) => onRule({ ...now, ...change });
  const account = (
    label: string,
    value: string | null,
    keep: (a: Account) => boolean,
    onValue: (id: string | null) => void,
    none = 'the usual one',
  ) => (
    <AccountChoice
      label={label}
      none={none}
      accounts={accounts.filter(keep)}
      value={value}
      readOnly={readOnly}
      onValue={onValue}
    />
  );
  return (
    <div style={{ display: 'grid', gap: 8 }}>
      <NativeSelect
        label="How its money goes"
        disabled={readOnly}
        value={rule.kind}
        data={Object.entries(TERMS_NAMES).map(([value, label]) => ({ value, label }))}
        onChange={(e) => onRule(FRESH[e.currentTarget.value as TermsKind])}
      />
      <div className="faded" style={{ fontSize: 12 }}>
        {TERMS_HELP[rule.kind]}
      </div>
      {rule.kind === 'atOnce' && (
        <DayFields label="Paid" value={rule.on} readOnly={readOnly} onValue={(on) => set(rule, { on })} />
      )}
      {rule.kind === 'onAccount' && (
        <>
          <DayFields
            label="Invoiced"
            value={rule.invoiced}
            readOnly={readOnly}
            onValue={(invoiced) => set(rule, { invoiced })}
          />
          <Shares value={rule.shares} readOnly={readOnly} onValue={(shares) => set(rule, { shares })} />
          {account(
            'What is never paid goes to',
            rule.badDebt,
            (a) => a.kind === 'expense' || a.kind === 'otherExpense' || a.kind === 'otherAsset',
            (badDebt) => set(rule, { badDebt }),
            lossName(accounts),
          )}
          {rule.badDebt === null && losses}
        </>
      )}
      {rule.kind === 'daysOutstanding' && (
        <>
          <NumberInput
            size="xs"
            label="Days"
            disabled={readOnly}
            least={0}
            most={1000}
            value={rule.days}
            onCommit={(days) => set(rule, { days })}
          />
          <NativeSelect
            label="Of"
            disabled={readOnly}
            value={String(rule.over)}
            data={[
              { value: '1', label: 'the month’s amount' },
              { value: '3', label: 'the last three months' },
            ]}
            onChange={(e) => set(rule, { over: Number(e.currentTarget.value) as 1 | 3 })}
          />
        </>
      )}
      {rule.kind === 'fromStock' && (
        <>
          {rule.target.of === 'days' ? (
            <NumberInput
              size="xs"
              label="Days of cost in stock"
              disabled={readOnly}
              least={0}
              most={1000}
              value={rule.target.days}
              onCommit={(days) => set(rule, { target: { of: 'days', days } })}
            />
          ) : (
            <PercentInput
              size="xs"
              label="Share of next month’s cost"
              disabled={readOnly}
              value={rule.target.percent}
              onCommit={(p) => set(rule, { target: { of: 'share', percent: p } })}
            />
          )}
          <NativeSelect
            label="Stock is said in"
            disabled={readOnly}
            value={rule.target.of}
            data={[
              { value: 'days', label: 'days of cost' },
              { value: 'share', label: 'a share of next month' },
            ]}
            onChange={(e) =>
              set(rule, {
                target:
                  e.currentTarget.value === 'days'
                    ? { of: 'days', days: 30 }
                    : { of: 'share', percent: percent('20') },
              })
            }
          />
          <DayFields
            label="Bought"
            value={rule.bought}
            readOnly={readOnly}
            onValue={(bought) => set(rule, { bought })}
          />
          <Shares value={rule.shares} readOnly={readOnly} onValue={(shares) => set(rule, { shares })} />
          {account(
            'Stock account',
            rule.inventory,
            (a) => a.kind === 'inventory',
            (inventory) => set(rule, { inventory }),
          )}
        </>
      )}
      {rule.kind === 'inAdvance' && (
        <>
          <DayInput
            label="One payment is on"
            disabled={readOnly}
            value={rule.first}
            onCommit={(first) => first && set(rule, { first })}
          />
          <NumberInput
            size="xs"
            label="For so many months"
            disabled={readOnly}
            least={1}
            most={120}
            value={rule.every}
            onCommit={(every) => set(rule, { every })}
          />
        </>
      )}
      {rule.kind === 'withoutMoney' &&
        account(
          'Against',
          rule.against,
          (a) => !['income', 'bank'].includes(a.kind),
          (against) => set(rule, { against }),
        )}
      {rule.kind === 'payroll' && (
        <>
          <DayFields
            label="Paydays"
            value={rule.on}
            readOnly={readOnly}
            onValue={(on) => set(rule, { on })}
          />
          <PercentInput
            size="xs"
            label="Paid out on the payday"
            disabled={readOnly}
            value={rule.net}
            onCommit={(net) => Number(net) >= 0 && Number(net) <= 100 && set(rule, { net })}
          />
          <DueFields
            label="What is withheld is due"
            value={rule.rest}
            readOnly={readOnly}
            onValue={(rest) => set(rule, { rest })}
          />
        </>
      )}
      {'moved' in rule && (
        <NativeSelect
          label="On a day that is no working day"
          disabled={readOnly}
          value={rule.moved}
          data={[
            { value: 'stays', label: 'it stays' },
            { value: 'next', label: 'the next working day' },
            { value: 'previous', label: 'the one before' },
          ]}
          onChange={(e) => onRule({ ...rule, moved: e.currentTarget.value as MovedTo })}
        />
      )}
    </div>
  );
}

/** The days on which something falls. */
function DayFields({ label, value, readOnly, onValue }: Field<DayRule> & { readonly label: string }) {
  const choice =
    value.of === 'monthDay' ? (value.day === 31 ? 'end' : 'day') : value.of === 'days' ? 'weeks' : value.of;
  const fresh: Record<string, DayRule> = {
    end: END,
    day: { of: 'monthDay', day: 15 },
    spread: { of: 'spread' },
    own: { of: 'own' },
    weeks: { of: 'days', on: { of: 'weeks', every: 2, from: day('2026-01-02') } },
  };
  const weeks = value.of === 'days' && value.on.of === 'weeks' ? value.on : null;
  return (
    <>
      <NativeSelect
        label={label}
        disabled={readOnly}
        value={choice}
        data={[
          { value: 'end', label: 'at the month’s end' },
          { value: 'day', label: 'on a day of the month' },
          { value: 'spread', label: 'over the working days' },
          { value: 'weeks', label: 'every so many weeks' },
          { value: 'own', label: 'on the line’s own days' },
        ]}
        onChange={(e) => onValue(fresh[e.currentTarget.value]!)}
      />
      {choice === 'day' && value.of === 'monthDay' && (
        <NumberInput
          size="xs"
          label="Day"
          disabled={readOnly}
          least={1}
          most={31}
          value={value.day}
          onCommit={(n) => onValue({ of: 'monthDay', day: n })}
        />
      )}
      {weeks && (
        <>
          <NumberInput
            size="xs"
            label="Weeks between"
            disabled={readOnly}
            least={1}
            most={52}
            value={weeks.every}
            onCommit={(every) => onValue({ of: 'days', on: { ...weeks, every } })}
          />
          <DayInput
            label="One of the days"
            disabled={readOnly}
            value={weeks.from}
            onCommit={(from) => from && onValue({ of: 'days', on: { ...weeks, from } })}
          />
        </>
      )}
    </>
  );
}

/** Shares of what is invoiced, and when each is paid; what they leave of 100 is never paid. */
function Shares({ value, readOnly, onValue }: Field<TermsOf<'onAccount'>['shares']>) {
  const sum = Math.round(value.reduce((t, s) => t + Number(s.percent), 0) * 1e6) / 1e6;
  const left = Math.round((100 - sum) * 1e6) / 1e6;
  return (
    <div>
      {value.map((s, k) => (
        <div key={k} style={{ display: 'flex', alignItems: 'center', gap: 4, marginBottom: 4 }}>
          <PercentInput
            size="xs"
            w={62}
            aria-label={`Share ${k + 1}`}
            disabled={readOnly}
            value={s.percent}
            onCommit={(p) => {
              const others = sum - Number(s.percent);
              if (Number(p) > 0 && others + Number(p) <= 100)
                onValue(value.map((x, i) => (i === k ? { ...x, percent: p } : x)));
            }}
          />
          <DueFields
            quiet
            label={`Share ${k + 1} paid`}
            value={s.due}
            readOnly={readOnly}
            onValue={(due) => onValue(value.map((x, i) => (i === k ? { ...x, due } : x)))}
          />
          {value.length > 1 && (
            <Button
              disabled={readOnly}
              aria-label={`Take share ${k + 1} away`}
              onClick={() => onValue(value.filter((_, i) => i !== k))}
            >
              ×
            </Button>
          )}
        </div>
      ))}
      <div className="faded" style={{ fontSize: 12 }}>
        {left === 0 ? 'All of it is paid.' : `${left}% is never paid.`}
      </div>
      <Button
        mt={4}
        disabled={readOnly || left <= 0 || value.length >= 12}
        onClick={() => onValue([...value, { percent: percent(String(left)), due: { of: 'days', days: 60 } }])}
      >
        Add a share
      </Button>
    </div>
  );
}
