type Old = Record<string, unknown>;

const list = (value: unknown): Old[] => (Array.isArray(value) ? (value as Old[]) : []);
const entries = (value: unknown): [string, Old][] =>
  typeof value === 'object' && value !== null ? (Object.entries(value) as [string, Old][]) : [];

/**
 * Version 3: the lines of a budget are a list by account and segment; more methods, drivers, weights and the working
 * week; notes with author and time; what was approved, by whom and with which fingerprint.
 */
export function toVersion3(old: Old): Old {
  return {
    ...old,
    version: 3,
    weights: [],
    workWeek: { weekdays: [1, 2, 3, 4, 5], holidays: [] },
    budgets: list(old.budgets).map((b) => ({
      ...b,
      covers: 'profitAndLoss',
      axis: null,
      segments: [null],
      drivers: [],
      revises: null,
      lines: entries(b.lines).map(([, line]) => ({
        ...line,
        segment: null,
        method: methodOf(line.method as Old),
        note: line.note ? { text: line.note, by: '', at: '' } : null,
        cellNotes: {},
        looked: null,
      })),
      approved: b.approved ? approvedOf(b.approved as Old) : null,
    })),
  };
}

function methodOf(method: Old): Old {
  const { kind, uplift, round } = method ?? {};
  const whole = (annual: unknown) => ({ per: 'year', amounts: [annual] });
  switch (kind) {
    case 'lastYear':
      return { kind, from: { of: 'actuals', years: 1 }, add: 0, skip: {}, uplift, round };
    case 'even': {
      const basis = method.basis as Old;
      if (basis.of === 'average' || basis.of === 'lastMonth') {
        const over = basis.of === 'average' ? { of: 'all' } : { of: 'last', months: 1 };
        return { kind: 'runRate', over, add: 0, uplift, round };
      }
      const amounts = basis.of === 'amount' ? whole(basis.annual) : null;
      return { kind: 'phased', amounts, by: { by: 'even' }, uplift, round };
    }
    case 'pattern': {
      const amounts = method.annual === null ? null : whole(method.annual);
      return { kind, amounts, like: null, years: [1], uplift, round };
    }
    case 'share':
      return { kind, of: { of: 'account', account: method.of }, percent: method.percent, lag: 0, round: 0 };
    default:
      return method;
  }
}

const approvedOf = (approved: Old): Old => ({
  at: approved.at,
  by: '',
  // Approved before fingerprints were taken: there is none to compare with.
  fingerprint: '',
  lines: entries(approved.amounts).map(([account, amounts]) => ({
    account,
    segment: null,
    amounts,
    wholes: [],
  })),
});
