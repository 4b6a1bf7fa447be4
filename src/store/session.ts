import { create } from 'zustand';
import type { PeriodId, PeriodIndex, PeriodRange } from '@/core/calendar';
import type { AccountId, Layout, ScheduleKind } from '@/core/model';

/** What the strip says about the screen's selection and key figures; the screen writes, the strip shows. */
export type StripFact = { readonly label: string; readonly value: string; readonly after?: string };

/** Something that the palette offers on the screen at hand. */
export type PaletteItem = {
  readonly id: string;
  readonly name: string;
  /** What kind of thing it is: a tool, a line, a budget. */
  readonly of: string;
  readonly key?: string;
  readonly run: () => void;
};

export type BooksView =
  'ledger' | 'trial' | 'accounts' | 'segments' | 'sources' | 'feed' | 'calendar' | 'journal';
export const BOOKS_VIEWS: readonly BooksView[] = [
  'ledger',
  'trial',
  'accounts',
  'segments',
  'sources',
  'feed',
  'calendar',
  'journal',
];

export type CashPage = 'ahead' | 'items' | 'bank' | 'terms' | 'dated' | 'taxes' | 'rules' | 'kept';
export const CASH_PAGES: readonly CashPage[] = [
  'ahead',
  'items',
  'bank',
  'terms',
  'dated',
  'taxes',
  'rules',
  'kept',
];

export type BudgetView =
  'sheet' | 'drivers' | 'schedules' | 'handouts' | 'firstPass' | 'compare' | 'history' | 'report';

export type StatementPage = 'profit' | 'balance' | 'flow' | 'way' | 'capital' | 'ratios';
export const STATEMENT_PAGES: readonly StatementPage[] = [
  'profit',
  'balance',
  'flow',
  'way',
  'capital',
  'ratios',
];

export type Session = {
  /** Which statement is looked at, over which periods (null: the year at hand), and the cash flow in which form. */
  readonly statementPage: StatementPage;
  readonly statementRange: PeriodRange | null;
  readonly flowDirect: boolean;
  /** Periods that the ledger view shows, and the month that the variance screen looks at; null until chosen. */
  readonly ledgerRange: PeriodRange | null;
  /** The first of the months chosen on the variance ruler, where they are several: the last is the month. */
  readonly varianceFirst: PeriodIndex | null;
  readonly varianceMonth: PeriodIndex | null;
  /** The budget on the worksheet, and the one that actuals are compared with. */
  readonly budgetId: string | null;
  /** The plan that is looked at ahead in place of the one in force. */
  readonly planId: string | null;
  readonly comparedId: string | null;
  /** The layout that the variance screen shows; a change of it that cannot be kept, since the book is only read here. */
  readonly layoutId: string | null;
  /** The layout in which the budget stage reports its budget. */
  readonly budgetLayoutId: string | null;
  readonly layoutTrial: Layout | null;
  /** What is tried next, begun from where somebody stood. */
  readonly trying: TryFrom | null;
  /** The line that the variance screen begins with. */
  readonly varianceRow: string | null;
  /** What the budget stage shows of its budget. */
  readonly budgetView: BudgetView;
  /** Which schedule is looked at, and which of its rows. */
  readonly scheduleKind: ScheduleKind;
  readonly scheduleRow: string | null;
  /** What the cash stage shows, by which spans, and of which named forecast. */
  readonly cashPage: CashPage;
  readonly cashGrain: 'months' | 'weeks' | 'days';
  readonly cashForecast: string | null;
  /** The first month that is looked at; null for the first one ahead. */
  readonly cashMonth: PeriodIndex | null;
  /** The worksheet's panel says what a line's money does. */
  readonly moneyShown: boolean;
  /** What the books stage shows. */
  readonly booksView: BooksView;
  /** What the palette offers beside what it offers everywhere: the screen writes, the palette shows. */
  readonly palette: () => readonly PaletteItem[];
  /** What the person is asked for over the screen. */
  readonly asked: 'account' | 'name' | 'numbers' | null;
  readonly account: AccountId | null;
  /** A line that the worksheet is asked to go to; forgotten once it is there. */
  readonly soughtAccount: AccountId | null;
  readonly facts: readonly StripFact[];
  /** The hint on the demo book was closed. */
  readonly hintGone: boolean;
  /** A word to the person at the foot of the screen, read out by screen readers; gone with the next one. */
  readonly word: { readonly text: string; readonly tone: 'info' | 'trouble'; readonly act?: Act } | null;
};

const FRESH: Session = {
  statementPage: 'profit',
  statementRange: null,
  flowDirect: false,
  ledgerRange: null,
  varianceFirst: null,
  varianceMonth: null,
  budgetId: null,
  planId: null,
  comparedId: null,
  layoutId: null,
  budgetLayoutId: null,
  layoutTrial: null,
  trying: null,
  varianceRow: null,
  budgetView: 'sheet',
  scheduleKind: 'staff',
  scheduleRow: null,
  cashPage: 'ahead',
  cashGrain: 'months',
  cashForecast: null,
  cashMonth: null,
  moneyShown: false,
  booksView: 'ledger',
  palette: () => [],
  asked: null,
  account: null,
  soughtAccount: null,
  facts: [],
  hintGone: false,
  word: null,
};

/** What can be done otherwise than it was just done. */
export type Act = { readonly label: string; readonly run: () => void };

/** Where something is tried from: what the adjustment is of, and the month that it begins in. */
export type TryFrom = {
  readonly of:
    | { readonly line: AccountId }
    | { readonly row: string }
    | { readonly driver: string }
    | { readonly side: 'in' | 'out'; readonly counterparty: string }
    | { readonly dated: string }
    | { readonly terms: AccountId };
  readonly from: PeriodId | null;
};

/** What is selected and looked at; not part of the book and not saved with it. */
export const useSession = create<Session>(() => FRESH);

export const setSession = useSession.setState;

/** Forgets what was looked at, when another book opens. */
export const resetSession = (): void => setSession(FRESH);

/** Says something at the foot of the screen. */
export const say = (text: string, tone: 'info' | 'trouble' = 'info', act?: Act): void =>
  setSession({ word: { text, tone, ...(act ? { act } : {}) } });
