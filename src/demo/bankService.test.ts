import { day, fromDayNumber } from '@/core/calendar';
import { readCamtStatements, type Claim } from '@/core/cash';
import { parseBookFile } from '@/core/exchange';
import { readStatements } from '@/core/files';
import { cashOf, makeGround } from '@/core/ground';
import { applyCommand, type Book } from '@/core/model';
import { BankService } from './bankService';
import { demoBookFile } from './demoBook';

/** The demo book with what its simulated bank says of the nine days after its closed month. */
async function withBank(to: string) {
  const read = parseBookFile(await demoBookFile());
  if (!read.ok) throw new Error(read.issue.code);
  const service = new BankService();
  let { book } = read;
  const blocks = new Map(read.blocks.map((b) => [b.id, b]));
  const before = cashOf(makeGround(book, blocks), null, 'all')!;
  for (const { number } of service.accounts()) {
    const xml = service.statement(number, fromDayNumber(before.input.start), day(to))!;
    const file = await readStatements(new TextEncoder().encode(xml));
    if (!file.ok) throw new Error(file.issue.code);
    const [{ account, issues, ...told }] = readCamtStatements(file.statements, book.currency) as [
      ReturnType<typeof readCamtStatements>[number],
    ];
    expect([account, issues]).toEqual([number, []]);
    const done = applyCommand(book, {
      type: 'takeBankStatement',
      number,
      statement: {
        ...told,
        account: book.accounts.find((a) => a.kind === 'bank' && number.endsWith(a.code))!.id,
        from: 'bank',
        by: '',
        at: 't',
      },
    });
    if (!done.ok) throw new Error(done.refusal.code);
    book = done.book as Book;
  }
  return { before, view: cashOf(makeGround(book, blocks), null, 'all')!, book };
}

test('of nine days at the demo’s bank all that was due is told, and nothing is left over at the start', async () => {
  const { view, before } = await withBank('2026-11-09');
  const today = view.today!;
  expect(fromDayNumber(today.day)).toBe('2026-11-09');
  expect([...today.off.values()]).toEqual([
    { atStart: 0, atEnd: 0 },
    { atStart: 0, atEnd: 0 },
  ]);
  expect(today.matching.uncleared.size).toBeGreaterThan(0);
  const of = (party: string): string[] =>
    today.matching.claims
      .filter((c: Claim) => c.movement.counterparty === party)
      .map((c) => (c.of === 'event' ? c.event.part.source : c.of));
  // The loan of this month, and not an entry of last month's that looks alike.
  expect(of('First Estuary Bank')).toEqual(expect.arrayContaining(['loans']));
  // Pay of all staff is one payment.
  expect(new Set(of('Payroll'))).toEqual(new Set(['payroll']));
  expect(of('Payroll').length).toBeGreaterThan(3);
  expect(new Set(of('Tax office'))).toEqual(new Set(['payroll']));
  expect(new Set(of('Jessamy Boats').concat(of('Anders Holt')))).toEqual(new Set(['openInvoices']));
  expect(today.waiting.filter((w) => ['payroll', 'loans'].includes(w.event.part.source))).toEqual([]);
  // What lies a while ahead does not move.
  const ahead = (v: typeof view) => v.forecast.closing.at(-1)! - v.forecast.closing[120]!;
  expect(Math.abs(ahead(view) - ahead(before))).toBeLessThan(100_000);
});
