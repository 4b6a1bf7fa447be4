import fc from 'fast-check';
import { minor } from '@/core/money';
import { calendarFrom, fromDayNumber, yearRange } from '@/core/calendar';
import type { FileFacts } from '@/core/files';
import { readFile } from '@/core/files';
import { balancesOf, trialBalance } from '@/core/ledger';
import { isProfitAndLoss, type AccountKind } from '@/core/model';
import { matchAccounts, openDraft, proofOf, settle } from '.';
import { guessing } from '../test/build';
import { EMPTY, takeFacts, type Taken } from '../test/takeIn';

/*
 * Cumulative trial balances as a bookkeeper's program writes them: profit and loss since the year's start, the balance
 * sheet as it stands, the old year's result put into retained earnings with the first day of the new one. Whatever is
 * posted, at every month's end our debits, our credits and the file's totals are the same (debits equal credits: common
 * practice of double-entry bookkeeping).
 */
const NAMES = [
  'Bank',
  'Accounts receivable',
  'Loan',
  'Retained earnings',
  'Share capital',
  'Sales',
  'Wages',
  'Rent',
];
const KINDS: AccountKind[] = [
  'bank',
  'receivable',
  'loan',
  'equity',
  'equity',
  'income',
  'expense',
  'expense',
];
const RETAINED = 3;
type Entry = {
  readonly month: number;
  readonly debit: number;
  readonly credit: number;
  readonly amount: number;
};

/** What each account stands at after every month of two years, debits positive. */
function standings(entries: readonly Entry[], months: number): number[][] {
  const at = NAMES.map(() => 0);
  return Array.from({ length: months }, (_, m) => {
    if (m === 12)
      at.forEach((v, i) => {
        if (!isProfitAndLoss(KINDS[i]!)) return;
        at[RETAINED]! += v;
        at[i] = 0;
      });
    for (const e of entries)
      if (e.month === m) {
        at[e.debit]! += e.amount;
        at[e.credit]! -= e.amount;
      }
    return [...at];
  });
}
const label = (m: number) =>
  `${['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'][m % 12]} ${2024 + Math.floor(m / 12)}`;
const side = (v: number): string =>
  v > 0 ? `${(v / 100).toFixed(2)},` : v < 0 ? `,${(-v / 100).toFixed(2)}` : ',';

/** A file of these months, debit and credit under each; accounts at nothing throughout are left out, as programs do. */
function fileText(all: readonly number[][], from: number, to: number): string {
  const months = Array.from({ length: to - from }, (_, k) => from + k);
  const total = (m: number, sign: 1 | -1) =>
    (all[m]!.reduce((t, v) => t + Math.max(0, sign * v), 0) / 100).toFixed(2);
  return [
    `,${months.map((m) => `${label(m)},`).join(',')}`,
    `Account,${months.map(() => 'Debit,Credit').join(',')}`,
    ...NAMES.flatMap((name, i) =>
      months.every((m) => all[m]![i] === 0)
        ? []
        : [`${name},${months.map((m) => side(all[m]![i]!)).join(',')}`],
    ),
    `Total,${months.map((m) => `${total(m, 1)},${total(m, -1)}`).join(',')}`,
  ].join('\n');
}
async function facts(text: string): Promise<FileFacts> {
  const read = await readFile(new TextEncoder().encode(text));
  if (!read.ok) throw new Error(read.issue.code);
  return read.file;
}

/** Every month's end in the book against the standings. */
function ties({ book, blocks }: Taken, all: readonly number[][]): void {
  const calendar = calendarFrom(book.calendar);
  const balances = balancesOf(blocks, calendar);
  all.forEach((stand, m) => {
    const trial = trialBalance(book.accounts, balances, calendar, yearRange(calendar, 2024).first + m);
    expect([label(m), trial.debit, trial.unclosed]).toEqual([label(m), trial.credit, 0]);
    const ours = Object.fromEntries(trial.rows.map((r) => [r.account.name, r.debit - r.credit]));
    const theirs = Object.fromEntries(NAMES.flatMap((n, i) => (stand[i] ? [[n, stand[i]]] : [])));
    expect([label(m), ours]).toEqual([label(m), theirs]);
  });
}

const place = fc.nat(NAMES.length - 1);
const entries = fc
  .array(
    fc.record({
      month: fc.nat(17),
      debit: place,
      credit: place,
      amount: fc.integer({ min: 1, max: 9_000_00 }),
    }),
    { minLength: 4, maxLength: 40 },
  )
  // Some sale in every month of the first year, so that there is a profit to be moved; what is taken back may be more.
  .map((list): Entry[] => [
    ...list.filter((e) => e.debit !== e.credit),
    ...Array.from({ length: 18 }, (_, month) => ({ month, debit: 0, credit: 5, amount: 10_000_00 + month })),
  ]);

describe('cumulative trial balances over a year’s end', () => {
  test('all months in one file tie at every month’s end', async () => {
    await fc.assert(
      fc.asyncProperty(entries, async (list) => {
        const all = standings(list, 18);
        const taken = takeFacts(await facts(fileText(all, 0, 18)), EMPTY)!;
        expect([taken.refusal, taken.proof.ties, taken.proof.off, taken.proof.oneSided]).toEqual([
          null,
          true,
          0,
          false,
        ]);
        ties(taken, all);
      }),
      { numRuns: 25 },
    );
  });
  test('and one file a month, each on what the book has', async () => {
    await fc.assert(
      fc.asyncProperty(entries, fc.constantFrom(1, 3), async (list, step) => {
        const all = standings(list, 15);
        let into: Taken = EMPTY;
        for (let m = 0; m < 15; m += step) {
          const kept = { kept: [] };
          const taken = takeFacts(await facts(fileText(all, m, m + step)), into, kept);
          if (!taken) throw new Error('nothing');
          expect([m, taken.refusal, taken.proof.off, taken.proof.overlapping]).toEqual([m, null, 0, []]);
          into = taken;
        }
        ties(into, all);
      }),
      { numRuns: 5 },
    );
  });
});

test('a corrected kind is another reading: land taken for a cost is no cost of every year', async () => {
  const text = [
    ',Nov 2024,,Dec 2024,,Jan 2025,,Feb 2025,',
    'Account,Debit,Credit,Debit,Credit,Debit,Credit,Debit,Credit',
    'Bank,10.00,,30.00,,40.00,,55.00,',
    'Meadow,2100.00,,2100.00,,2100.00,,2100.00,',
    'Capital,,2000.00,,2000.00,,2130.00,,2130.00',
    'Sales,,110.00,,130.00,,10.00,,25.00',
  ].join('\n');
  const file = await facts(text);
  const calendar = { kind: 'months', firstMonth: 1 } as const;
  const { draft } = openDraft(file, 0, { ...guessing, calendar }, 'USD');
  const ground = {
    calendar,
    fingerprint: 'f'.repeat(64),
    sheet: null,
    sources: [],
    range: null,
    bases: null,
    stood: null,
  };
  const as = (kind: AccountKind) => {
    const choices = matchAccounts(draft, []).map((c, i) =>
      draft.accounts[i]!.name === 'Meadow' ? { ...c, kind } : c,
    );
    const settled = settle(draft, choices, calendar, null);
    const meadow = draft.accounts.findIndex((a) => a.name === 'Meadow');
    const rows = Array.from({ length: settled.count }, (_, i) => i).filter(
      (i) => settled.account[i] === meadow,
    );
    return {
      off: proofOf(draft, settled, choices, ground).off,
      total: rows.reduce((t, i) => t + settled.amount[i]!, 0),
      days: rows.filter((i) => settled.amount[i] !== 0).map((i) => fromDayNumber(settled.day[i]!)),
    };
  };
  expect(as('fixedAsset')).toEqual({ off: 0, total: minor(2100_00), days: ['2024-11-30'] });
  // As a cost it comes again with the new year, and the sides do not meet.
  expect(as('expense')).toEqual({ off: 1970_00, total: minor(4200_00), days: ['2024-11-30', '2025-01-31'] });
});
