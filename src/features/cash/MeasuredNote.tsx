import { useMemo } from 'react';
import type { Flow } from '@/core/cash';
import { trialOfTerms, type CashView, type Ground } from '@/core/ground';
import { minor } from '@/core/money';
import stage from '@/components/Stage.module.css';
import { moneyFormat } from '@/store/format';
import classes from './Cash.module.css';

/** How fast money came and went, as the ledger tells. */
export function MeasuredNote({ view }: { readonly view: CashView }) {
  const { measured } = view;
  const lines = [
    ['Customers pay', measured.in],
    ['Suppliers are paid', measured.out],
  ] as const;
  return (
    <>
      <h2>Measured in the ledger</h2>
      <p className="faded" style={{ fontSize: 12.5 }}>
        Payments matched to invoices: by reference, else the oldest first.
      </p>
      {lines.map(([name, shares]) => (
        <section key={name}>
          <div className="label">{name}</div>
          {shares.length === 0 ? (
            <p className="faded">The ledger does not tell.</p>
          ) : (
            shares.map((s) => (
              <div key={s.days} className={stage.pair}>
                <span>after {s.days} days</span>
                <span>{s.percent}%</span>
              </div>
            ))
          )}
        </section>
      ))}
    </>
  );
}

const FLOWS = [
  ['customers', 'From customers', 1],
  ['suppliers', 'To suppliers', -1],
  ['payroll', 'Payroll', -1],
  ['taxes', 'Taxes', -1],
] as const satisfies readonly (readonly [Flow, string, 1 | -1])[];

/** What the terms would have given for the months that are closed, beside what the banks did. */
export function TrialNote({ ground, view }: { readonly ground: Ground; readonly view: CashView }) {
  const trial = useMemo(() => trialOfTerms(ground, view), [ground, view]);
  const money = moneyFormat(ground.book);
  if (!trial) return null;
  return (
    <section aria-label="Terms tried">
      <h2>Tried on the last {trial.ranges.length} closed months</h2>
      <p className="faded" style={{ fontSize: 12.5 }}>
        What these terms make of the months’ own amounts, beside what the banks did. What differs is the
        terms’.
      </p>
      <table className={classes.table}>
        <thead>
          <tr>
            <th>Month</th>
            <th className={classes.figure}>By the terms</th>
            <th className={classes.figure}>Happened</th>
          </tr>
        </thead>
        {FLOWS.map(([flow, name, sign]) => {
          const [by, did] = [trial.expected[flow], trial.happened[flow]];
          if ([...by, ...did].every((v) => v === 0)) return null;
          const total = (all: readonly number[]) => minor(sign * all.reduce((a, b) => a + b, 0));
          return (
            <tbody key={flow}>
              <tr>
                <td>
                  <b>{name}</b>
                </td>
                <td className={classes.figure}>
                  <b>{money.text(total(by))}</b>
                </td>
                <td className={classes.figure}>
                  <b>{money.text(total(did))}</b>
                </td>
              </tr>
              {trial.ranges.map((r, i) => (
                <tr key={r.to}>
                  <td>{ground.calendar.period(ground.calendar.indexOfDay(r.to)).label}</td>
                  <td className={classes.figure}>{money.text(minor(sign * by[i]!))}</td>
                  <td className={classes.figure}>{money.text(minor(sign * did[i]!))}</td>
                </tr>
              ))}
            </tbody>
          );
        })}
      </table>
    </section>
  );
}
