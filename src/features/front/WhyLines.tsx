'use client';

import type { Account, VarianceNote } from '@/core/model';
import { whyOf } from '@/core/front';
import { minor } from '@/core/money';
import type { ReportRow, ReportTable } from '@/core/report';
import { Sense } from '@/components/report/Sense';
import type { MoneyFormat } from '@/store/format';
import classes from './Front.module.css';

/** So many lines are named; what the others come to stands in one. */
const MOST = 5;

/** Why the result is another than what it is compared with: the lines that moved it most, with what was said of them. */
export function WhyLines({
  table,
  accounts,
  notes,
  label,
  beside,
  money,
  onLine,
}: {
  readonly table: ReportTable;
  readonly accounts: readonly Account[];
  readonly notes: Readonly<Record<string, VarianceNote>>;
  /** The month that it is of, and what it is compared with. */
  readonly label: string;
  readonly beside: string;
  readonly money: MoneyFormat;
  readonly onLine: (row: ReportRow) => void;
}) {
  const why = whyOf(table, accounts, 'month', notes);
  if (why.lines.length === 0) return null;
  const rest = why.lines.slice(MOST).reduce((t, l) => t + l.effect, 0);
  return (
    <section aria-label="Why">
      <h2 className="label">
        {label}: what moved it beside {beside}
      </h2>
      <ul className={classes.moved}>
        {why.lines.slice(0, MOST).map(({ row, effect, note }) => (
          <li key={row.key}>
            <div>
              <button type="button" className={classes.link} onClick={() => onLine(row)}>
                {row.label}
              </button>
              {note?.text && <p className={classes.said}>{note.text}</p>}
            </div>
            <span>
              {money.signed(effect)} <Sense sense={effect > 0 ? 'F' : 'U'} />
            </span>
          </li>
        ))}
        {rest !== 0 && (
          <li className="faded">
            <span>{why.lines.length - MOST} more lines</span>
            <span>
              {money.signed(minor(rest))} <Sense sense={rest > 0 ? 'F' : 'U'} />
            </span>
          </li>
        )}
        <li data-sum>
          <span>
            {why.told === 0
              ? 'Nobody has said why yet'
              : why.untold === 0
                ? 'All of it is explained'
                : `${money.signed(why.told)} of it is explained, ${money.signed(why.untold)} is not`}
          </span>
          <span>
            {money.signed(why.effect)} {why.effect !== 0 && <Sense sense={why.effect > 0 ? 'F' : 'U'} />}
          </span>
        </li>
      </ul>
    </section>
  );
}
