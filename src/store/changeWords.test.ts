import { minor } from '@/core/money';
import { openHistory, perform, type Change, type Command } from '@/core/model';
import { account, bookWith, budgetOf, byMonth, lastYear, line, of, periodIds } from '@/core/test/build';
import { CHANGE_WORDS, changeWords, placesOf } from './changeWords';

const accounts = [account('s', 'income', 'Sales'), account('r', 'expense', 'Rent')];
const ids = periodIds(2026);

describe('changes in words', () => {
  const book = bookWith(accounts, { budgets: [budgetOf([line('s', byMonth()), line('r', lastYear())])] });
  const changeOf = (command: Command): Change => {
    const step = perform(openHistory(book, []), command, 't');
    if (!step.ok) throw new Error(step.refusal.code);
    return step.history.journal[0]!;
  };
  const cells = (accounts: readonly string[]): Command => ({
    type: 'setCells',
    budget: 'b1',
    how: 'pasted',
    cells: accounts.map((a) => ({ ...of(a), period: ids[0]!, value: minor(5) })),
  });
  test('how months came to be is said where a command has several ways', () => {
    expect(changeWords(changeOf(cells(['s'])))).toBe('Pasted');
    expect(changeWords(changeOf({ type: 'renameBook', name: 'X' }))).toBe('Book renamed');
    expect(changeWords({ seq: 2, at: 't', type: 'undo', of: 1 })).toBe('Undone');
  });
  test.each<[string, Command, string]>([
    ['lines with their budget', cells(['s', 'r']), 'Sales · Budget; Rent · Budget'],
    [
      'lines whose method changed',
      {
        type: 'setMethods',
        budget: 'b1',
        lines: [
          { ...of('r'), method: lastYear() },
          { ...of('s'), method: lastYear() },
        ],
      },
      'Rent · Budget; Sales · Budget',
    ],
    ['an account', { type: 'editAccount', account: 'r', change: { keeper: 'Ines' } }, 'Rent'],
    ['a budget, as it was called', { type: 'renameBudget', budget: 'b1', name: 'Plan' }, 'Budget'],
    ['a budget that is gone', { type: 'deleteBudget', budget: 'b1' }, 'Budget'],
    [
      'a note’s account',
      {
        type: 'setVarianceNote',
        period: ids[0]!,
        account: 's',
        note: { text: 'x', against: null, parts: [], at: '' },
      },
      'Sales',
    ],
    ['a change of the whole book touches no place', { type: 'renameBook', name: 'X' }, ''],
  ])('%s', (_, command, expected) => expect(placesOf(changeOf(command))).toBe(expected));
  test('what stands in the place today is not what was changed', () => {
    const two = bookWith(accounts, {
      budgets: [
        budgetOf([line('s', lastYear())], 'b1', { name: 'Old' }),
        budgetOf([line('r', lastYear())], 'b2', { name: 'New' }),
      ],
    });
    const first = perform(openHistory(two, []), cells(['s']), 't');
    const second = first.ok && perform(first.history, { type: 'deleteBudget', budget: 'b1' }, 't');
    if (!second || !second.ok) throw new Error('refused');
    expect(second.history.journal.map((c) => placesOf(c))).toEqual(['Sales · Old', 'Old']);
  });
  test('a change of before says what it can without looking anything up', () => {
    const old = { ...changeOf(cells(['s'])), about: undefined } as unknown as Change;
    expect(placesOf(old)).toBe('');
  });
  test('many places are counted', () => {
    const many = Array.from({ length: 9 }, (_, i) => account(`a${i}`, 'expense', `Cost ${i}`));
    const wide = bookWith(many, { budgets: [budgetOf(many.map((a) => line(a.id, byMonth())))] });
    const step = perform(openHistory(wide, []), cells(many.map((a) => a.id)), 't');
    if (!step.ok) throw new Error(step.refusal.code);
    expect(placesOf(step.history.journal[0]!, false)).toBe('Cost 0; Cost 1; Cost 2; Cost 3 and 5 more');
  });
  test('an undo names no place of its own, and every word is its own', () => {
    expect(placesOf({ seq: 2, at: 't', type: 'undo', of: 1 })).toBe('');
    expect(new Set(Object.values(CHANGE_WORDS)).size).toBe(Object.keys(CHANGE_WORDS).length);
  });
});
