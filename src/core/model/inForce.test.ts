import { monthCalendar, type PeriodId } from '@/core/calendar';
import {
  account,
  bookWith,
  budgetOf,
  byMonth,
  didAll,
  line,
  periodIds,
  refusalOf,
  siteAxis,
} from '@/core/test/build';
import { BOOK_VERSION, openBook, putInForceAt, rules, type Book, type Budget, type Command } from '.';

const calendar = monthCalendar(1);
const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);
const accounts = [account('s', 'income')];
const plan = (id: string, change: Partial<Budget> = {}) => budgetOf([line('s', byMonth())], id, change);
const approved = (at = '2026-01-01T09:00:00.000Z') => ({
  at,
  by: '',
  fingerprint: '',
  cash: null,
  lines: [],
});
const add = (budget: Budget): Command => ({ type: 'addBudget', budget });
const approve = (budget: string, takesOver?: true): Command => ({
  type: 'approveBudget',
  budget,
  approved: approved(),
  ...(takesOver ? { takesOver } : {}),
});
const close = (period: number): Command => ({ type: 'setClosedThrough', period: ids[period]! });
/** Who rules each month of 2026, by its first letter and number. */
const rulers = (book: Book) =>
  ids.map((_, i) => putInForceAt(book, calendar, first + i)[0]?.id ?? '-').join(' ');
const times = (n: number, id: string) => Array.from({ length: n }, () => id);

describe('which plan is in force', () => {
  test('the first plan of a month is; a second draft is not, until someone puts it in force', () => {
    const book = didAll(bookWith(accounts), add(plan('b1')), add(plan('b2')));
    expect(rulers(book)).toBe(times(12, 'b1').join(' '));
    expect(rulers(didAll(book, { type: 'putInForce', budget: 'b2' }))).toBe(times(12, 'b2').join(' '));
  });

  test('a closed month keeps the budget that ruled it; a revision rules from its first open month', () => {
    const revision = plan('b2', { revises: { budget: 'b1', reason: 'x' } });
    const book = didAll(
      bookWith(accounts),
      add(plan('b1')),
      approve('b1'),
      close(3),
      add(revision),
      approve('b2'),
    );
    expect(rulers(book)).toBe([...times(4, 'b1'), ...times(8, 'b2')].join(' '));
    // Opened again and closed again, it is still what ruled it.
    expect(rulers(didAll(book, close(1), close(5)))).toBe(rulers(book));
  });

  test('an outlook of the rest of a year, approved, leaves the months before it alone', () => {
    const rest = plan('b2', { first: ids[4]!, length: 8, revises: { budget: 'b1', reason: 'x' } });
    const book = didAll(
      bookWith(accounts),
      add(plan('b1')),
      approve('b1'),
      close(5),
      add(rest),
      approve('b2'),
    );
    expect(rulers(book)).toBe([...times(6, 'b1'), ...times(6, 'b2')].join(' '));
  });

  test('another approved budget takes over only when it is said', () => {
    const other = plan('b2', { length: 9 });
    const book = didAll(bookWith(accounts), add(plan('b1')), approve('b1'), add(other));
    expect(rulers(didAll(book, approve('b2')))).toBe(times(12, 'b1').join(' '));
    expect(rulers(didAll(book, approve('b2', true)))).toBe([...times(9, 'b2'), ...times(3, 'b1')].join(' '));
  });

  test('a draft that is in force and then approved keeps the months that were closed under it', () => {
    const book = didAll(
      bookWith(accounts),
      add(plan('b1')),
      approve('b1'),
      close(1),
      add(plan('b2')),
      { type: 'putInForce', budget: 'b2' },
      close(4),
      approve('b2'),
    );
    expect(rulers(book)).toBe([...times(2, 'b1'), ...times(10, 'b2')].join(' '));
  });

  test('one whose months are all closed under another is refused, in words of its own', () => {
    const book = didAll(bookWith(accounts), add(plan('b1')), close(11), add(plan('b2')));
    expect(refusalOf(book, { type: 'putInForce', budget: 'b2' })).toBe('nothingToRule');
    expect(rulers(didAll(book, approve('b2')))).toBe(times(12, 'b1').join(' '));
  });

  test('statements and places that do not meet stand beside each other', () => {
    const axes = [siteAxis()];
    const of = (id: string, change: Partial<Budget>) => plan(id, change);
    const book = didAll(
      bookWith(accounts, { axes }),
      add(of('b1', { axis: 'x', segments: ['n'], covers: 'profitAndLoss', lines: [] })),
      add(of('b2', { axis: 'x', segments: [null], covers: 'profitAndLoss' })),
      add(of('b3', { covers: 'balanceSheet' })),
    );
    const at = (id: string) =>
      rules(
        book,
        calendar,
        book.budgets.find((b) => b.id === id)!,
        first,
      );
    expect(['b1', 'b2', 'b3'].map(at)).toEqual([true, true, true]);
    // One of the whole company is a rival of both places.
    const whole = didAll(book, add(plan('b4', { covers: 'both' })));
    expect(whole.inForce.map((f) => f.budget)).toEqual(['b1', 'b2', 'b3']);
  });

  test('a budget that is deleted is in force nowhere', () => {
    const book = didAll(bookWith(accounts), add(plan('b1')), { type: 'deleteBudget', budget: 'b1' });
    expect(book.inForce).toEqual([]);
  });
});

test('in a book of version 9 what was approved last took over in the month in which it was; drafts are where nothing is', () => {
  const state = { state: 'approved' as const };
  const budgets = [
    plan('b1', { state: 'superseded', approved: approved('2025-12-10T09:00:00.000Z') }),
    plan('b2', { ...state, approved: approved('2026-05-20T09:00:00.000Z') }),
    plan('b3'),
    plan('b4', { first: '2027-01' as PeriodId }),
  ];
  const { inForce: _, ...book } = bookWith(accounts, { budgets });
  const { runOffEnds: _ends, ...cash } = book.cash;
  const opened = openBook(JSON.parse(JSON.stringify({ ...book, version: 9, cash })));
  if (!opened.ok) throw new Error(JSON.stringify(opened.issue));
  expect(opened.book.version).toBe(BOOK_VERSION);
  expect(opened.setAside.filter((s) => s.part === 'inForce')).toEqual([]);
  expect(opened.book.inForce).toEqual([
    { budget: 'b4', from: '2027-01' },
    { budget: 'b1', from: '2026-01' },
    { budget: 'b2', from: '2026-05' },
  ]);
});
