import { budgetOf, bookWith, periodIds } from '../test/build';
import { applyCommand, supersededBy, type Axis, type Budget } from '.';

const axis: Axis = {
  id: 'x1',
  name: 'Site',
  columns: [],
  byAccount: {},
  values: ['v1', 'v2'].map((id) => ({ id, name: id, from: [] })),
};
const approval = { at: 't', by: '', fingerprint: '', cash: null, lines: [] };
const inForce = (change: Partial<Budget> = {}): Budget => ({
  ...budgetOf([], 'old', change),
  state: 'approved',
  approved: approval,
});

describe('approving supersedes what it replaces, and nothing else', () => {
  const bySite = { axis: 'x1', segments: ['v1', 'v2'] };
  test.each<[string, Partial<Budget>, Partial<Budget>, boolean]>([
    ['the same months, statements and segments', {}, {}, true],
    ['the same segments in another order', bySite, { axis: 'x1', segments: ['v2', 'v1'] }, true],
    ['a segment beside the company', {}, bySite, false],
    ['fewer segments', bySite, { axis: 'x1', segments: ['v1'] }, false],
    ['another segment', { axis: 'x1', segments: ['v1'] }, { axis: 'x1', segments: ['v2'] }, false],
    ['other statements', {}, { covers: 'both' }, false],
    ['as many months of another year', {}, { first: periodIds(2027)[0]! }, false],
    ['fewer months from the same', {}, { length: 6 }, false],
  ])('%s', (_, old, fresh, replaced) => {
    const book = bookWith([], { axes: [axis], budgets: [inForce(old), budgetOf([], 'new', fresh)] });
    expect(supersededBy(book, book.budgets[1]!).map((b) => b.id)).toEqual(replaced ? ['old'] : []);
    const applied = applyCommand(book, { type: 'approveBudget', budget: 'new', approved: approval });
    if (!applied.ok) throw new Error(applied.refusal.code);
    expect(applied.book.budgets.map((b) => b.state)).toEqual([
      replaced ? 'superseded' : 'approved',
      'approved',
    ]);
  });
});
