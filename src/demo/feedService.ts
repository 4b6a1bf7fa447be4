import { day, monthCalendar } from '@/core/calendar';
import { minor, plainDecimal } from '@/core/money';
import type { FeedCompany, FeedEntry, FeedOpen, FeedPage } from '@/core/intake';
import { DEMO_ACCOUNTS } from './accounts';
import { demoLedger, type DemoRow } from './ledger';
import { openAt } from './openItems';

/** How the simulated service misbehaves, to see that nothing is lost or doubled. */
export type FeedBehavior = {
  /** So many answers to come fail with a server error. */
  readonly failNext: number;
  /** So many pages to come break off in the middle. */
  readonly halfNext: number;
  /** Every page begins with entries of the page before. */
  readonly repeat: boolean;
  /** Every answer takes so long. */
  readonly delayMs: number;
};

export class FeedDown extends Error {}

const WELL: FeedBehavior = { failNext: 0, halfNext: 0, repeat: false, delayMs: 0 };
const PAGE = 250;
/** Months the service can reach: three years and four months from July 2024. */
const MONTHS = 40;
const FIRST_CLOSED = 28;

/**
 * A small accounting service, simulated: the demo company's ledger as numbered entries, closed month by month. It
 * lives as long as the server does. Its answers are documented in docs/feed.md.
 */
export class FeedService {
  private closed = FIRST_CLOSED;
  private behavior: FeedBehavior = WELL;
  private all: FeedEntry[] | null = null;
  private openItems: FeedOpen | null = null;
  private ledger: readonly DemoRow[] | null = null;

  get settings(): FeedBehavior & { readonly closedMonths: number } {
    return { ...this.behavior, closedMonths: this.closed };
  }

  setBehavior(change: Partial<FeedBehavior>): void {
    this.behavior = { ...this.behavior, ...change };
  }

  /** As it was when the server started. */
  reset(): void {
    this.closed = FIRST_CLOSED;
    this.behavior = WELL;
  }

  /** Closes one more month; false when the simulation ends. */
  closeMonth(): boolean {
    if (this.closed >= MONTHS) return false;
    this.closed++;
    return true;
  }

  company(): FeedCompany {
    this.mayFail();
    const entries = this.entries();
    return {
      company: 'Pellow Creek Boatyard Co-op',
      currency: 'USD',
      closedThrough: lastDayOf(this.closed),
      last: entries.length,
      accounts: Object.entries(DEMO_ACCOUNTS).map(([code, name]) => ({ code, name, type: '' })),
    };
  }

  /** Number of the last entry up to a day: where to begin when the book has the rest already. */
  cursorAfter(day: string): number {
    this.mayFail();
    const entries = this.entries();
    const next = entries.findIndex((e) => e.date > day);
    return next < 0 ? entries.length : next;
  }

  page(since: number): FeedPage {
    this.mayFail();
    const all = this.entries();
    const from = this.behavior.repeat ? Math.max(0, since - 20) : since;
    const entries = all.slice(from, since + PAGE);
    const debits = entries.reduce(
      (t, e) => t + e.lines.reduce((s, l) => s + Math.round(Number(l.debit ?? 0) * 100), 0),
      0,
    );
    const page = {
      since,
      count: entries.length,
      debits: plainDecimal(minor(debits), 'USD'),
      last: all.length,
    };
    if (this.behavior.halfNext > 0) {
      this.setBehavior({ halfNext: this.behavior.halfNext - 1 });
      return { ...page, entries: entries.slice(0, entries.length >> 1) };
    }
    return { ...page, entries };
  }

  /** What is unpaid, ordered and to be sold at the last closed day. */
  open(): FeedOpen {
    this.mayFail();
    const through = lastDayOf(this.closed);
    if (this.openItems?.through !== through) this.openItems = openAt(this.rows(), day(through));
    return this.openItems;
  }

  private rows(): readonly DemoRow[] {
    return (this.ledger ??= demoLedger(MONTHS));
  }

  private mayFail(): void {
    if (this.behavior.failNext <= 0) return;
    this.setBehavior({ failNext: this.behavior.failNext - 1 });
    throw new FeedDown('The simulated service is down');
  }

  /** Entries of the closed months, in the order in which they were made. */
  private entries(): FeedEntry[] {
    this.all ??= numbered(this.rows());
    const end = lastDayOf(this.closed);
    return this.all.slice(0, this.all.findLastIndex((e) => e.date <= end) + 1);
  }
}

function numbered(rows: readonly DemoRow[]): FeedEntry[] {
  const byJournal = new Map<string, FeedEntry>();
  const money = (cents: number) => (cents === 0 ? null : plainDecimal(minor(cents), 'USD'));
  for (const r of rows) {
    let entry = byJournal.get(r.journal);
    if (!entry) {
      entry = {
        seq: byJournal.size + 1,
        date: r.day,
        reference: r.journal,
        memo: r.memo,
        counterparty: r.party,
        lines: [],
      };
      byJournal.set(r.journal, entry);
    }
    entry.lines.push({
      account: r.code,
      debit: money(r.debit),
      credit: money(r.credit),
      segments: { Site: r.site, Activity: r.activity },
    });
  }
  return [...byJournal.values()];
}

/** Last day of the n-th month from July 2024. */
const lastDayOf = (months: number): string => {
  const calendar = monthCalendar(7);
  return calendar.period(calendar.firstOfYear(2025) + months - 1).end;
};
