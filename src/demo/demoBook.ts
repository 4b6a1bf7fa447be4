import { minor, percent, unitOf, type Minor } from '@/core/money';
import { yearRange, type PeriodId } from '@/core/calendar';
import { fingerprint, readFile } from '@/core/files';
import { acceptDraft, headsOf, matchAccounts, openDraft, proofOf, settle } from '@/core/intake';
import { bookFile } from '@/core/exchange/bookJson';
import { approvedCash, cashOf, guessesOf, keptFrom, makeGround } from '@/core/ground';
import { balancesOf, type LedgerBlock } from '@/core/ledger';
import {
  blankLine,
  LIMITS,
  newBook,
  openHistory,
  perform,
  type Book,
  type Budget,
  type Driver,
  type History,
  type Line,
  type Method,
  type RoundUnit,
} from '@/core/model';
import {
  asLastYear,
  calendarOf,
  createReckoner,
  draftBudget,
  factsFor,
  fingerprintText,
  frozenLines,
  startLines,
} from '@/core/plan';
import { DEMO_ID } from './demoFile';
import { demoAdjustments, demoCases } from './cases';
import { demoCash, demoTerms } from './cash';
import { demoFiles } from './files';
import { demoHandouts } from './handouts';
import { demoSchedules, scheduleAccounts } from './schedules';

const NAME = 'Pellow Creek Boatyard Co-op';
const APPROVED_AT = '2026-06-12T15:00:00.000Z';

/** The demo book as the text of a book file: what the app opens on a first visit. */
export async function demoBookFile(): Promise<string> {
  const { history, blocks } = await demoBook(DEMO_ID);
  return bookFile({ book: history.book, blocks, journal: history.journal });
}

/** The demo book, made as a person would make it: three files through intake, a budget started, gone over, approved. */
export async function demoBook(
  id: string,
): Promise<{ readonly history: History; readonly blocks: LedgerBlock[] }> {
  let history = openHistory(newBook({ id, name: NAME, currency: 'USD', locale: 'en-US', firstMonth: 7 }), []);
  const blocks: LedgerBlock[] = [];
  const run = (command: Parameters<typeof perform>[1], at: string) => {
    const step = perform(history, command, at);
    if (!step.ok) throw new Error(`Demo book: ${step.refusal.code}`);
    history = step.history;
  };

  const files = demoFiles();
  const [fy25, fy26, fy27] = [files[0]!, files[1]!, files[2]!];
  for (const [file, at, closed] of [
    [fy25, '2026-05-04T09:00:00.000Z', '2025-12'],
    [fy26, '2026-06-08T09:00:00.000Z', '2026-12'],
  ] as const) {
    const taken = await takeIn(history.book, file, at, `${id}-${blocks.length}`, closed as PeriodId);
    blocks.push(taken.block);
    run(taken.command, at);
  }

  const budget = fy27Budget(history.book, blocks);
  run({ type: 'addBudget', budget }, '2026-06-09T10:00:00.000Z');
  for (const command of demoTerms(history.book, budget.id)) run(command, '2026-06-09T11:00:00.000Z');
  const ground = () => makeGround(history.book, new Map(blocks.map((b) => [b.id, b])));
  const { calendar, facts } = groundFor(history.book, blocks);
  const planned = history.book.budgets[0]!;
  const lines = frozenLines(createReckoner()(planned, facts));
  const print = await fingerprint(new TextEncoder().encode(fingerprintText(planned, lines)));
  run(
    {
      type: 'approveBudget',
      budget: budget.id,
      approved: {
        at: APPROVED_AT,
        by: 'The board',
        fingerprint: print,
        lines,
        cash: approvedCash(ground(), planned),
      },
    },
    APPROVED_AT,
  );

  const approved = history.book.budgets[0]!;
  const ahead = keptFrom(cashOf(ground(), approved)!, LIMITS.keptDays);
  const keptAt = '2026-07-09T09:00:00.000Z';
  run(
    {
      type: 'keepForecast',
      kept: { id: 'k1', name: 'For the summer meeting', at: keptAt, by: 'Treasurer', ...ahead },
    },
    keptAt,
  );

  const at = '2026-11-06T08:30:00.000Z';
  const taken = await takeIn(
    history.book,
    fy27,
    at,
    `${id}-${blocks.length}`,
    calendar.period(yearRange(calendar, 2027).first + 3).id,
  );
  blocks.push(taken.block);
  run(taken.command, at);

  const byCode = new Map(history.book.accounts.map((a) => [a.code, a.id]));
  const revision: Budget = {
    ...budget,
    terms: approved.terms,
    schedules: approved.schedules,
    id: `b${history.book.nextId}`,
    name: 'FY27 autumn revision',
    revises: { budget: budget.id, reason: 'New power tariff since July' },
    drivers: memberDrivers(budget.first),
    lines: approved.lines.map((l) => {
      if (l.account === byCode.get('6200'))
        return line(
          l.account,
          asLastYear(percent('42'), 10),
          'New tariff since July; the approved budget did not know of it.',
        );
      return l.account === byCode.get('4400')
        ? line(l.account, { kind: 'driver', factors: ['d1', 'd2'], round: 0 })
        : l;
    }),
  };
  run({ type: 'addBudget', budget: revision }, '2026-11-09T09:10:00.000Z');
  run(
    {
      type: 'setQuantities',
      quantities: [
        {
          name: 'Members',
          unit: 'members',
          decimals: 0,
          values: { '2027-01': 251, '2027-02': 252, '2027-03': 249, '2027-04': 248 },
          over: 'last',
        },
        { name: 'Dues a member', unit: '$ a year', decimals: 2, values: {}, over: 'none' },
      ],
    },
    '2026-11-09T09:15:00.000Z',
  );
  run(
    {
      type: 'setVarianceNote',
      period: '2027-04' as PeriodId,
      account: byCode.get('4100')!,
      note: {
        text: 'Two hull refits slipped to November while the hoist was inspected. Both are signed; nothing is lost.',
        against: budget.id,
        parts: [
          {
            kind: 'timing',
            amount: minor(-675_000),
            back: [{ period: '2027-05' as PeriodId, amount: minor(675_000) }],
          },
        ],
        at: '2026-11-09T09:20:00.000Z',
      },
    },
    '2026-11-09T09:20:00.000Z',
  );
  for (const command of demoCash(history.book, blocks)) run(command, '2026-11-09T09:40:00.000Z');
  for (const command of scheduleAccounts(history.book)) run(command, '2026-11-09T10:05:00.000Z');
  for (const command of demoSchedules(ground(), revision.id)) run(command, '2026-11-09T10:10:00.000Z');
  for (const command of demoHandouts(ground(), revision.id)) run(command, '2026-11-18T16:10:00.000Z');
  // The treasurer looks ahead by what is known now; the closed months keep what was approved.
  const now = ground();
  const guessed = guessesOf(
    now,
    now.book.budgets.find((b) => b.id === revision.id)!,
  );
  run({ type: 'putInForce', budget: revision.id, guessed }, '2026-11-19T09:00:00.000Z');
  run(demoCases, '2026-11-19T10:00:00.000Z');
  for (const command of demoAdjustments(history.book)) run(command, '2026-11-19T10:05:00.000Z');
  return { history, blocks };
}

async function takeIn(
  book: Book,
  file: { name: string; text: string },
  takenAt: string,
  blockId: string,
  closedThrough: PeriodId,
) {
  const bytes = new TextEncoder().encode(file.text);
  const read = await readFile(bytes);
  if (!read.ok) throw new Error(`Demo file: ${read.issue.code}`);
  const { draft } = openDraft(
    read.file,
    0,
    {
      numbers: { decimal: '.', group: ',' },
      dates: 'mdy',
      calendar: book.calendar,
      year: 2027,
      fileName: file.name,
      kept: [],
    },
    book.currency,
  );
  const choices = matchAccounts(draft, book.accounts);
  const print = await fingerprint(bytes);
  const settled = settle(draft, choices, book.calendar, null);
  const proof = proofOf(draft, settled, choices, {
    calendar: book.calendar,
    fingerprint: print,
    sheet: null,
    sources: book.sources,
    range: null,
    bases: null,
    stood: null,
  });
  const accepted = acceptDraft(book, {
    draft,
    choices,
    settled,
    format: read.file.format,
    heads: headsOf(read.file, draft.mapping),
    controls: proof.controls.length,
    oneSided: proof.oneSided,
    untied: null,
    cursor: null,
    fileName: file.name,
    fingerprint: print,
    sheet: null,
    takenAt,
    blockId,
    replaces: [],
    closedThrough,
  });
  if (!accepted || !proof.ties) throw new Error(`Demo file does not tie: ${file.name}`);
  return accepted;
}

function groundFor(book: Book, blocks: readonly LedgerBlock[]) {
  const calendar = calendarOf(book);
  const range = yearRange(calendar, 2027);
  const periods = Array.from({ length: 12 }, (_, i) => calendar.period(range.first + i));
  const balances = balancesOf(blocks, calendar);
  const facts = factsFor({
    calendar,
    periods,
    accounts: book.accounts,
    bank: book.cash.bank,
    balances,
    ofSegment: () => balances,
    closedThrough: range.first - 1,
    unit: unitOf(book.currency),
    weights: book.weights,
    workWeek: book.workWeek,
    others: new Map(),
  });
  return { calendar, periods, facts };
}

const line = (account: string, method: Method, note = '', overrides: Line['overrides'] = {}): Line => ({
  ...blankLine({ account, segment: null }),
  method,
  overrides,
  note: note ? { text: note, by: 'Treasurer', at: '2026-06-09T10:00:00.000Z' } : null,
});

/** What membership dues follow in the revision: members counted in July, and what each pays. */
const memberDrivers = (july: PeriodId): Driver[] => [
  {
    id: 'd1',
    name: 'Members',
    unit: 'members',
    decimals: 0,
    opening: 241,
    series: { kind: 'typed', values: { [july]: 247 } },
    note: 'Counted on 1 July.',
  },
  {
    id: 'd2',
    name: 'Dues a member',
    unit: '$ a year',
    decimals: 2,
    opening: 4160,
    series: {
      kind: 'step',
      start: 4200,
      first: july,
      every: 12,
      change: { of: 'amount', amount: 0 },
    },
    note: '',
  },
];

const yearly = (annual: Minor | null) => annual && { per: 'year' as const, amounts: [annual] };
const pattern = (annual: Minor | null, uplift: string): Method => ({
  kind: 'pattern',
  amounts: yearly(annual),
  like: null,
  years: [1],
  uplift: percent(uplift),
  round: 100,
});
const even = (annual: Minor | null, uplift: string, round: RoundUnit): Method => ({
  kind: 'phased',
  amounts: yearly(annual),
  by: { by: 'even' },
  uplift: percent(uplift),
  round,
});
const share = (account: string, of100: string): Method => ({
  kind: 'share',
  of: { of: 'account', account },
  percent: percent(of100),
  lag: 0,
  round: 0,
});

/** The budget for FY27: last year and 3 percent, then the lines that the treasurer went over by hand. */
function fy27Budget(book: Book, blocks: readonly LedgerBlock[]): Budget {
  const { periods, facts } = groundFor(book, blocks);
  const id = new Map(book.accounts.map((a) => [a.code, a.id]));
  const cents = (units: number) => minor(units * 100);
  const month = (n: number) => periods[n]!.id;
  const lines = startLines(
    { from: 'sameMonth', other: null, uplift: percent('3'), upliftByKind: {}, round: 10, rest: null },
    book.accounts,
    facts,
  );
  const set = (code: string, method: Method, note = '', overrides: Line['overrides'] = {}) => {
    const at = lines.findIndex((l) => l.account === id.get(code));
    lines[at] = line(id.get(code)!, method, note, overrides);
  };
  set('4010', asLastYear(percent('4'), 10), 'Fee list agreed by members in May: four percent.');
  set('4015', asLastYear(percent('4'), 10));
  set('4020', pattern(cents(63_500), '0'));
  set(
    '4100',
    pattern(cents(373_900), '0'),
    'Two refits moved from May to March; hoist out of service the last two weeks of June.',
    {
      [month(8)]: cents(52_000),
      [month(10)]: cents(36_000),
    },
  );
  set('4300', pattern(null, '6'));
  set(
    '4900',
    { kind: 'byMonth', amounts: { [month(2)]: cents(12_000), [month(8)]: cents(12_000) } },
    'Two payments confirmed by the fund.',
  );
  set('5010', share(id.get('4100')!, '30'));
  set('5020', share(id.get('4200')!, '93'));
  set(
    '6110',
    { kind: 'byMonth', amounts: { [month(6)]: cents(32_800) } },
    'Renewal quoted in May; one lump in January.',
  );
  set('6120', even(cents(52_800), '0', 0));
  set('6310', even(null, '5', 1));
  set('6200', asLastYear(percent('2'), 10));
  set('8010', asLastYear());
  return draftBudget({
    id: `b${book.nextId}`,
    name: 'FY27 budget',
    first: periods[0]!.id,
    length: 12,
    lines,
  });
}
