import { day, toDayNumber } from '@/core/calendar';
import { BlockBuilder } from '@/core/ledger';
import { listSince, type Listed } from './listSince';

const on = (text: string) => toDayNumber(day(text));
/** An entry of the receivable: day, amount, number, counterparty. */
type Entry = readonly [string, number, string, string];
function block(...rows: readonly Entry[]) {
  const builder = new BlockBuilder(rows.length);
  rows.forEach(([d, amount, reference, party], i) =>
    builder.add(on(d), 0, amount, i + 2, builder.text(party), builder.text(reference), builder.text('')),
  );
  return builder.build('l', ['rec']);
}
const listed = (
  id: string,
  counterparty: string,
  number: string,
  open: number,
  dated = '2026-09-01',
): Listed => ({
  id,
  counterparty,
  number,
  open: open as never,
  dated: on(dated),
});
const since = (items: readonly Listed[], ...rows: readonly Entry[]) => {
  const { items: left, since: added } = listSince(
    items,
    [block(...rows)],
    { merged: new Map(), keep: null },
    'rec',
    1,
    on('2026-09-30'),
    on('2026-10-31'),
  );
  return { left: Object.fromEntries(left), added: Object.fromEntries(added) };
};
test('what the entries since the day of the list paid is settled, by number, counterparty, or just the amount', () => {
  const items = [
    listed('a', 'Ann Ltd', 'INV-7', 100),
    listed('b', 'Ann Ltd', 'INV-8', 200, '2026-09-20'),
    listed('c', 'Bob', '9', 300),
    listed('d', 'Cem', '10', 455),
    listed('e', 'Dee', '11', -50),
  ];
  // By the number, however it is written, before the older one.
  expect(since(items, ['2026-10-05', -200, 'inv 8', '']).left).toEqual({
    a: 100,
    b: 0,
    c: 300,
    d: 455,
    e: -50,
  });
  // The oldest of the counterparty, in part and over to the next.
  expect(since(items, ['2026-10-05', -150, 'bank 1', 'ANN LTD.']).left).toMatchObject({ a: 0, b: 150 });
  // However the list is sorted, and whichever came before it in the list.
  const turned = [items[1]!, items[0]!];
  expect(since(turned, ['2026-10-05', -100, '', 'Ann Ltd']).left).toEqual({ a: 0, b: 200 });
  // Somebody whose name the list has not: the one of just this amount, and none where the amount is another.
  expect(since(items, ['2026-10-05', -455, 'x', 'C. Cem & Sons']).left).toMatchObject({ c: 300, d: 0 });
  expect(since(items, ['2026-10-05', -70, 'x', 'Counter sale']).left).toMatchObject({
    a: 100,
    b: 200,
    c: 300,
  });
});

test('what they invoiced is open beside it, less what was paid of it', () => {
  const told = since(
    [listed('a', 'Ann', '1', 100)],
    ['2026-10-02', 500, '2', 'Ann'],
    ['2026-10-20', -180, '2', 'Ann'],
    ['2026-10-25', 40, '3', 'Bob'],
  );
  expect(told).toEqual({ left: { a: 100 }, added: { 'l:0': 320, 'l:2': 40 } });
});

test('entries up to the day of the list, and after the closed day, change nothing; nor do totals that name nobody', () => {
  const told = since(
    [listed('a', 'Ann', '1', 100)],
    ['2026-09-30', -100, '1', 'Ann'],
    ['2026-09-30', 900, '2', 'Ann'],
    ['2026-10-31', -100, '', ''],
    ['2026-11-01', -100, '1', 'Ann'],
  );
  expect(told).toEqual({ left: { a: 100 }, added: {} });
  expect(since([listed('a', 'Ann', '1', 100)], ['2026-10-31', -100, '1', 'Ann']).left).toEqual({ a: 0 });
});
