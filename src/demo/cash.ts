import { minor, percent } from '@/core/money';
import { day } from '@/core/calendar';
import type { LedgerBlock } from '@/core/ledger';
import type { Book, Command, Terms, TermsRule } from '@/core/model';
import { LATE_REFIT } from './ledger';
import { hoistLoan } from './schedules';

const BIWEEKLY = { of: 'weeks', every: 2, from: day('2024-07-05') } as const;

/** What the treasurer says of money in June 2026, before the budget is approved: terms, the tax, the loan. */
export function demoTerms(book: Book, budget: string): Command[] {
  const byCode = new Map(book.accounts.map((a) => [a.code, a.id]));
  const id = (code: string) => byCode.get(code)!;
  // Sales tax of the counter, returned by the quarter and due on the 20th of the month after: the next id of the book.
  const salesTax = `t${book.nextId}`;
  const terms = (code: string, rule: TermsRule, tax: Terms['tax'] = null): Terms => ({
    of: { of: 'account', account: id(code) },
    parts: [{ percent: percent('100'), rule }],
    bank: null,
    tax,
  });
  const wages: TermsRule = {
    kind: 'payroll',
    on: { of: 'days', on: BIWEEKLY },
    net: percent('86'),
    rest: { of: 'days', days: 3 },
    moved: 'stays',
    through: id('2100'),
  };
  const counter: TermsRule = { kind: 'atOnce', on: { of: 'spread' }, moved: 'stays' };
  return [
    {
      type: 'setCash',
      change: {
        bank: id('1010'),
      },
    },
    {
      type: 'addTax',
      tax: {
        name: 'Sales tax',
        payable: id('2200'),
        owed: 'collected',
        on: 'invoice',
        every: 3,
        ends: 12,
        due: { of: 'months', months: 1, day: 20 },
        exceptions: [],
      },
    },
    {
      type: 'setTerms',
      budget,
      without: [],
      terms: [
        ...['6010', '6020', '6030'].map((code) => terms(code, wages)),
        terms('6040', { kind: 'atOnce', on: { of: 'days', on: BIWEEKLY }, moved: 'stays' }),
        ...['4200', '4210'].map((code) => terms(code, counter, { scheme: salesTax, rate: percent('6') })),
        terms('5020', {
          kind: 'fromStock',
          target: { of: 'days', days: 45 },
          bought: { of: 'monthDay', day: 12 },
          shares: [{ percent: percent('100'), due: { of: 'days', days: 30 } }],
          moved: 'next',
          inventory: id('1300'),
          through: null,
        }),
        terms('6120', { kind: 'atOnce', on: { of: 'monthDay', day: 1 }, moved: 'next' }),
      ],
    },
    {
      type: 'putScheduleRows',
      budget,
      rows: [hoistLoan(book)],
      lines: [{ account: id('8010'), segment: null, method: { kind: 'schedule', beside: {} } }],
    },
  ];
}

/** What is added in November 2026: the floor, the credit line, the rebuild's second payment, a customer who pays late. */
export function demoCash(book: Book, blocks: readonly LedgerBlock[]): Command[] {
  const byCode = new Map(book.accounts.map((a) => [a.code, a.id]));
  return [
    {
      type: 'setCash',
      change: {
        floor: minor(3_000_000),
        creditLine: {
          account: null,
          interest: null,
          limit: minor(500_000),
          rate: percent('8.5'),
          step: minor(100_000),
        },
      },
    },
    {
      type: 'setDatedItem',
      item: {
        id: 'i2',
        name: 'Slipway rebuild, second payment',
        direction: 'out',
        amount: minor(5_500_000),
        first: day('2026-12-15'),
        repeat: null,
        against: byCode.get('1510')!,
        bank: null,
        group: 'other',
      },
    },
    {
      type: 'setItemChanges',
      changes: [
        {
          key: lateRefit(blocks),
          change: {
            day: day('2027-02-26'),
            state: 'counted',
            reason: 'Pays when the boat is back in the water',
            by: 'Treasurer',
            at: '2026-11-09T09:40:00.000Z',
          },
        },
      ],
    },
  ];
}

/** The key of the refit invoice that is paid late: its entry on the receivable. */
function lateRefit(blocks: readonly LedgerBlock[]): string {
  for (const block of blocks) {
    const place = block.amount.lastIndexOf(LATE_REFIT);
    if (place >= 0) return `ledger ${block.id}:${place}`;
  }
  throw new Error('The demo ledger has no late refit');
}
