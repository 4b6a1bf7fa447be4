import { minor } from '@/core/money';
import type { Draft, Unbalanced } from './draft';

/** Adds up each journal entry (rows of one reference on one day) and says which do not come to zero. */
export class BalanceWatch {
  private readonly groups: {
    sum: number;
    readonly row: number;
    lines: number;
    readonly reference: string;
    readonly day: number;
  }[] = [];
  /** The first group of a reference; its groups on other days by both. */
  private readonly byReference = new Map<string, number>();
  private readonly others = new Map<string, number>();
  private current = -1;
  private total = 0;

  see(reference: string, day: number, amount: number, row: number): void {
    this.total += amount;
    let group = this.groups[this.current];
    // Rows of one entry mostly stand together: the group is looked up only when it changes.
    if (!group || group.day !== day || group.reference !== reference) {
      this.current = this.groupOf(reference, day, row);
      group = this.groups[this.current]!;
    }
    group.sum += amount;
    group.lines++;
  }

  private groupOf(reference: string, day: number, row: number): number {
    const first = this.byReference.get(reference);
    if (first === undefined) {
      this.byReference.set(reference, this.groups.length);
      return this.groups.push({ sum: 0, row, lines: 0, reference, day }) - 1;
    }
    if (this.groups[first]!.day === day) return first;
    const key = `${day} ${reference}`;
    let other = this.others.get(key);
    if (other === undefined) {
      other = this.groups.push({ sum: 0, row, lines: 0, reference, day }) - 1;
      this.others.set(key, other);
    }
    return other;
  }

  verdict(): Pick<Draft, 'balance' | 'unbalanced' | 'unbalancedCount'> {
    const off = this.groups.filter((g) => g.sum !== 0);
    if (off.length === 0) return { balance: 'balanced', unbalanced: [], unbalancedCount: 0 };
    // When most entries miss their other half, the file holds one side only: that is no fault of single entries.
    if (this.total !== 0 && off.length > this.groups.length / 2 && this.groups.length > 1)
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
