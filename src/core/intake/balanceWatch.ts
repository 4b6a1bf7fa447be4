import { minor } from '@/core/money';
import type { Draft, Unbalanced } from './draft';

type Group = {
  sum: number;
  readonly row: number;
  lines: number;
  readonly reference: string;
  readonly day: number;
};

/** Adds up each journal entry (rows of one reference on one day) and says which do not come to zero. */
export class BalanceWatch {
  /** Entries of which some rows stood apart: what is open of each, by reference and day. */
  private readonly open = new Map<string, Group>();
  private run: Group = { sum: 0, row: 0, lines: 0, reference: '', day: NaN };
  /** Runs of rows of one entry. */
  private runs = 0;
  private total = 0;

  see(reference: string, day: number, amount: number, row: number): void {
    this.total += amount;
    const { run } = this;
    if (run.day === day && run.reference === reference) {
      run.sum += amount;
      run.lines++;
    } else {
      this.close();
      this.run = { sum: amount, row, lines: 1, reference, day };
    }
  }

  /** Rows of one entry mostly stand together: only a run that does not come to zero is looked up. */
  private close(): void {
    const { run } = this;
    if (run.lines === 0) return;
    this.runs++;
    if (run.sum === 0) return;
    const key = `${run.day} ${run.reference}`;
    const group = this.open.get(key);
    if (!group) this.open.set(key, run);
    else {
      group.sum += run.sum;
      group.lines += run.lines;
    }
  }

  verdict(): Pick<Draft, 'balance' | 'unbalanced' | 'unbalancedCount'> {
    this.close();
    const off = [...this.open.values()].filter((g) => g.sum !== 0).sort((a, b) => a.row - b.row);
    if (off.length === 0) return { balance: 'balanced', unbalanced: [], unbalancedCount: 0 };
    // When most entries miss their other half, the file holds one side only: that is no fault of single entries.
    if (this.total !== 0 && off.length > this.runs / 2 && this.runs > 1)
      return { balance: 'oneSided', unbalanced: [], unbalancedCount: 0 };
    const unbalanced: Unbalanced[] = off.slice(0, 200).map((g) => ({
      reference: g.reference,
      row: g.row,
      difference: minor(g.sum),
      lines: g.lines,
    }));
    return { balance: 'unbalanced', unbalanced, unbalancedCount: off.length };
  }
}
