import type { Entry } from '@/core/ledger';
import { negate, type Minor } from '@/core/money';
import classes from './EntriesList.module.css';

const SHOWN = 300;

/** The ledger entries that an amount is made of, in the account's natural sign, with their total and whether it ties. */
export function EntriesList({
  entries,
  natural,
  total,
  exact,
  dayText,
}: {
  readonly entries: readonly Entry[];
  /** −1 turns debit-positive amounts to the natural sign of the account. */
  readonly natural: 1 | -1;
  readonly total: Minor | null;
  readonly exact: (amount: Minor | null) => string;
  readonly dayText: (day: string) => string;
}) {
  const sum = entries.reduce<number>((t, e) => t + natural * e.amount, 0);
  const ties = sum === (total ?? 0);
  if (entries.length === 0) return <p className="faded">The ledger has no entry here.</p>;
  return (
    <table className={classes.table}>
      <tbody>
        {entries.slice(0, SHOWN).map((e) => (
          <tr key={`${e.block}-${e.row}`} title={`Row ${e.row} of the file`}>
            <td className={classes.day}>{dayText(e.day)}</td>
            <td className={classes.what}>
              {e.memo || e.counterparty || e.reference || 'Whole month'}
              <span className={classes.who}>
                {[e.memo ? e.counterparty : '', e.reference].filter(Boolean).join(' · ') || `row ${e.row}`}
              </span>
            </td>
            <td className={classes.amount}>{exact(natural === 1 ? e.amount : negate(e.amount))}</td>
          </tr>
        ))}
      </tbody>
      <tfoot>
        {entries.length > SHOWN && (
          <tr>
            <td colSpan={3} className="faded">
              and {entries.length - SHOWN} more
            </td>
          </tr>
        )}
        <tr>
          <td colSpan={2} data-ties={ties}>
            {ties ? 'Total ties to the ledger ✓' : `Total is off by ${exact((sum - (total ?? 0)) as Minor)}`}
          </td>
          <td className={classes.amount}>{exact(sum as Minor)}</td>
        </tr>
      </tfoot>
    </table>
  );
}
