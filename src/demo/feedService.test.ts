import { feedItems, feedOpenSchema } from '@/core/intake';
import { account } from '@/core/test/build';
import { minor } from '@/core/money';
import { FeedService } from './feedService';
import { demoLedger, STOOD_OPEN } from './ledger';

const open = (closing = 0) => {
  const service = new FeedService();
  for (let n = 0; n < closing; n++) service.closeMonth();
  return feedOpenSchema.parse(service.open());
};
const cents = (text: string) => Math.round(Number(text) * 100);

test('what the feed says is unpaid is what the ledger’s receivables and payables stand at, month after month', () => {
  for (const closing of [0, 3, 12]) {
    const { through, items } = open(closing);
    for (const [code, sign, stood] of [
      ['1200', 1, STOOD_OPEN.receivable],
      ['2010', -1, -STOOD_OPEN.payable],
    ] as const) {
      const stands = demoLedger(40)
        .filter((r) => r.code === code && r.day <= through)
        .reduce((t, r) => t + r.debit - r.credit, 0);
      const unpaid = items.filter((i) => i.kind === 'invoice' && i.account === code);
      expect(unpaid.reduce((t, i) => t + cents(i.open), 0)).toBe(sign * (stood + stands));
      expect(unpaid.length).toBeGreaterThan(0);
    }
  }
});
test('orders and a planned sale stand in it from the day they were agreed until they are invoiced', () => {
  const numbers = (closing: number) =>
    open(closing)
      .items.filter((i) => i.kind !== 'invoice')
      .map((i) => i.number);
  expect(numbers(0)).toEqual(['SO-118', 'SO-121', 'PO-77', 'Old workboat']);
  expect(numbers(2)).toEqual(['SO-121', 'SO-124', 'PO-80', 'Old workboat']);
});

describe('items of the feed', () => {
  const book = { currency: 'USD', accounts: [account('a1', 'receivable', 'Receivable', '1200')] };
  const item = {
    side: 'in' as const,
    kind: 'invoice' as const,
    number: '17',
    counterparty: 'Ann',
    dated: '2026-10-01',
    due: '2026-10-31',
    amount: '120.50',
    open: '20.5',
    account: '1200',
  };
  const taken = (change: Partial<typeof item>) =>
    feedItems({ through: '2026-10-31', items: [{ ...item, ...change }] }, 'Feed', book);
  test('become items of the book, in its minor units, with its accounts', () => {
    expect(taken({}).items).toEqual([
      { ...item, amount: minor(12_050), open: minor(2_050), account: 'a1', from: 'Feed' },
    ]);
    expect(taken({ account: '' }).items[0]!.account).toBeNull();
    expect(taken({ open: '0' })).toEqual({ items: [], setAside: [] });
  });
  test.each([
    ['an account that the book has not', { account: '1300' }, 'noSuchAccount'],
    ['a day that is none', { dated: '2026-02-30' }, 'noDay'],
    ['due before it is dated', { due: '2026-09-30' }, 'noDay'],
    ['more open than it came to', { open: '121' }, 'noAmount'],
    ['a fraction of a cent', { open: '1.005' }, 'noAmount'],
  ])('%s sets it aside, and says why', (_n, change, because) => {
    expect(taken(change)).toEqual({ items: [], setAside: [{ number: 'Ann 17', because }] });
  });
});
