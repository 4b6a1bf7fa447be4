import type { Minor } from '@/core/money';
import { cellOf, type ReportRow, type ReportTable } from '@/core/report';
import type { MoneyFormat } from '@/store/format';
import type { Figure } from './VariancePanel';
import classes from './Variance.module.css';

/** The lines that ask for a note this month, and which have one. */
export function FlaggedList({
  table,
  money,
  onFigure,
}: {
  readonly table: ReportTable;
  readonly money: MoneyFormat;
  readonly onFigure: (figure: Figure) => void;
}) {
  const rows = table.rows.filter((r) => r.flagged);
  const at = (r: ReportRow, key: string) => cellOf(table, r, key);
  if (rows.length === 0) return <p className="faded">No line is flagged this month.</p>;
  return (
    <section>
      <div className="label">Flagged lines</div>
      <ul className={classes.flagged}>
        {rows.map((r) => (
          <li key={r.key}>
            <button
              type="button"
              className={classes.nameButton}
              onClick={() => onFigure({ account: r.account!, span: 'month' })}
            >
              {r.label}
            </button>
            <span>
              {money.signed(at(r, 'monthDiff') as Minor)} {at(r, 'monthSense')}
              {at(r, 'note') === '' ? '' : ' ✓'}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
