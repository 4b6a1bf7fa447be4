import { readSetting, writeSetting } from '@/platform/settings';
import {
  BOOKS_VIEWS,
  CASH_PAGES,
  STATEMENT_PAGES,
  setSession,
  type BooksView,
  type BudgetView,
  type CashPage,
  type StatementPage,
  type useSession,
} from './session';

type Session = ReturnType<typeof useSession.getState>;
const BUDGET_VIEWS: readonly BudgetView[] = [
  'sheet',
  'drivers',
  'schedules',
  'handouts',
  'firstPass',
  'compare',
  'history',
  'report',
];

/** What of a stage stands in its address, as its view of the session says. */
export function queryOf(path: string, s: Session): string {
  const query = new URLSearchParams();
  const put = (key: string, value: string | null, plain: string | null = null) => {
    if (value !== null && value !== plain) query.set(key, value);
  };
  if (path.startsWith('/books')) put('view', s.booksView, 'ledger');
  else if (path.startsWith('/budget')) {
    put('budget', s.budgetId);
    put('view', s.budgetView, 'sheet');
  } else if (path.startsWith('/cash')) {
    put('view', s.cashPage, 'ahead');
    put('by', s.cashGrain, 'months');
    put('forecast', s.cashForecast);
    put('plan', s.planId);
  } else if (path.startsWith('/statements')) {
    put('view', s.statementPage, 'profit');
    put('form', s.flowDirect ? 'direct' : null);
    put('plan', s.planId);
  } else if (path.startsWith('/whatif')) put('plan', s.planId);
  else if (path.startsWith('/variance')) {
    put('month', s.varianceMonth === null ? null : String(s.varianceMonth));
    put('against', s.comparedId);
    put('layout', s.layoutId);
  }
  const text = query.toString();
  return text === '' ? '' : `?${text}`;
}

/** What an address says of the session; anything that is none of its views says nothing. */
export function sessionOf(path: string, search: string): Partial<Session> {
  const query = new URLSearchParams(search);
  const view = query.get('view');
  if (path.startsWith('/books'))
    return { booksView: BOOKS_VIEWS.includes(view as BooksView) ? (view as BooksView) : 'ledger' };
  if (path.startsWith('/budget'))
    return {
      budgetView: BUDGET_VIEWS.includes(view as BudgetView) ? (view as BudgetView) : 'sheet',
      ...(query.has('budget') ? { budgetId: query.get('budget') } : {}),
    };
  if (path.startsWith('/cash')) {
    const by = query.get('by');
    return {
      cashPage: CASH_PAGES.includes(view as CashPage) ? (view as CashPage) : 'ahead',
      cashGrain: by === 'weeks' || by === 'days' ? by : 'months',
      cashForecast: query.get('forecast'),
      ...(query.has('plan') ? { planId: query.get('plan') } : {}),
    };
  }
  if (path.startsWith('/statements'))
    return {
      statementPage: STATEMENT_PAGES.includes(view as StatementPage) ? (view as StatementPage) : 'profit',
      flowDirect: query.get('form') === 'direct',
      ...(query.has('plan') ? { planId: query.get('plan') } : {}),
    };
  if (path.startsWith('/whatif')) return query.has('plan') ? { planId: query.get('plan') } : {};
  if (path.startsWith('/variance')) {
    const month = query.get('month');
    return {
      varianceMonth: month !== null && /^-?\d{1,7}$/.test(month) ? Number(month) : null,
      comparedId: query.get('against'),
      layoutId: query.get('layout'),
    };
  }
  return {};
}

/** The session as an address has it. */
export const readAddress = (path: string, search: string): void => setSession(sessionOf(path, search));

const keyOf = (book: string) => `tellan.at.${book}`;

/** Where a book was left, so that it opens there again; a stage's address with its view, or null. */
export function placeOf(book: string): string | null {
  const at = readSetting(keyOf(book));
  return at !== null && /^\/(books|budget|cash|statements|whatif|variance)(\?|$)/.test(at) ? at : null;
}
export const keepPlace = (book: string, address: string): void => writeSetting(keyOf(book), address);
