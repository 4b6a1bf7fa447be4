import type { Flow } from '@/core/cash';
import { minor, plus, type Minor } from '@/core/money';
import { cellOf, type ReportTable } from '@/core/report';

/* What the banks hold beside what was planned, and by whose money they are apart. */

export type BankBeside = {
  readonly held: Minor;
  readonly planned: Minor;
  /** How much more is held than planned. */
  readonly apart: Minor;
  /** What the span began with was another figure than planned; the rest of what they are apart is in the flows. */
  readonly opening: Minor;
  /** How much more came of each (less went, where it goes), what moved the banks most first. */
  readonly flows: readonly { readonly flow: Flow; readonly label: string; readonly apart: Minor }[];
};

/** What a report of cash by source tells in its year to date; null where it knows nothing of one side. */
export function bankBeside(table: ReportTable): BankBeside | null {
  const at = (key: string, column: string) => {
    const row = table.rows.find((r) => r.key === key);
    return row ? (cellOf(table, row, column) as Minor | null) : null;
  };
  const held = at('cash-closing', 'toDateActual');
  const planned = at('cash-closing', 'toDateBudget');
  if (held === null || planned === null) return null;
  const flows = table.rows
    .flatMap(({ key, label, kind }) => {
      const apart = kind === 'line' ? at(key, 'toDateDiff') : null;
      const isFlow = key.startsWith('cash-') && key !== 'cash-opening' && key !== 'cash-closing';
      return isFlow && apart ? [{ flow: key.slice('cash-'.length) as Flow, label, apart }] : [];
    })
    .sort((a, b) => Math.abs(b.apart) - Math.abs(a.apart));
  const apart = minor(held - planned);
  return {
    held,
    planned,
    apart,
    opening: minor(flows.reduce<number>((t, f) => plus(t, -f.apart), apart)),
    flows,
  };
}
