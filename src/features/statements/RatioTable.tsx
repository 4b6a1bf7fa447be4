import type { ReactNode } from 'react';
import type { Period } from '@/core/calendar';
import classes from './Statements.module.css';

/** Ratios, or what they are made of, by period: a row each. */
export const RatioTable = ({
  label,
  head = 'Ratio',
  periods,
  children,
}: {
  readonly label: string;
  readonly head?: string;
  readonly periods: readonly Period[];
  readonly children: ReactNode;
}) => (
  <div style={{ overflow: 'auto' }} tabIndex={0} role="region" aria-label={label}>
    <table className={classes.table}>
      <thead>
        <tr>
          <th>{head}</th>
          {periods.map((p) => (
            <th key={p.index}>{p.short}</th>
          ))}
        </tr>
      </thead>
      <tbody>{children}</tbody>
    </table>
  </div>
);
