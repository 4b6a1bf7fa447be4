import { parseBookFile } from '@/core/exchange';
import { cashOf, makeGround } from '@/core/ground';
import { keptByClosing } from '@/core/ground/closing';
import { applyCommand, newAccount, type Book } from '@/core/model';
import type { LedgerBlock } from '@/core/ledger';
import { sourceOf } from '@/core/test/build';
import { blockOfMonth, firstEnd, told } from '@/core/test/year';
import { demoBookFile } from './demoBook';

/* The law of `ground/law.test.ts` on a company with all that there is: items, guesses, schedules, taxes, a credit line. */

const MONTHS = 8;

test('months of the demo company, closed one by one as they were planned, change no later day, over the year’s end too', async () => {
  const read = parseBookFile(await demoBookFile());
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  // The credit line has no accounts of the book yet: what it draws in a closed month would be nobody's.
  const line = { account: 'cl', interest: 'ci' };
  let book: Book = {
    ...read.book,
    accounts: [
      ...read.book.accounts,
      newAccount(line.account, '2600', 'Credit line', 'loan'),
      newAccount(line.interest, '8030', 'Interest on the credit line', 'otherExpense'),
    ],
    cash: { ...read.book.cash, creditLine: { ...read.book.cash.creditLine!, ...line } },
  };
  let blocks: ReadonlyMap<string, LedgerBlock> = new Map(read.blocks.map((b) => [b.id, b]));
  let before = cashOf(makeGround(book, blocks), null, 'all')!;
  for (let n = 1; n <= MONTHS; n++) {
    const end = firstEnd(before);
    const ground = makeGround(book, blocks);
    const period = ground.calendar.period(ground.calendar.indexOfDay(end)).id;
    const block = blockOfMonth(before, end, `m${n}`, true);
    blocks = new Map([...blocks, [block.id, block]]);
    const done = applyCommand(
      {
        ...book,
        sources: [
          ...book.sources,
          sourceOf({ id: `m${n}`, block: block.id, fingerprint: String(n).padStart(64, '0') }),
        ],
      },
      { type: 'setClosedThrough', period, ...keptByClosing(ground, period) },
    );
    if (!done.ok) throw new Error(done.refusal.code);
    book = done.book;
    const after = cashOf(makeGround(book, blocks), null, 'all')!;
    const last = Math.min(
      before.forecast.start + before.forecast.closing.length,
      after.forecast.start + after.forecast.closing.length,
    );
    expect({ closed: period, ...told(after, end + 1, last) }).toEqual({
      closed: period,
      ...told(before, end + 1, last),
    });
    before = after;
  }
});
