import type { Change, Command } from '@/core/model';

type Doing = Extract<Change, { readonly patches: unknown }>;

/** What each kind of change is called, wherever changes are listed. */
export const CHANGE_WORDS: Record<Change['type'], string> = {
  renameBook: 'Book renamed',
  setSettings: 'Settings changed',
  takeIn: 'Ledger file taken in',
  removeSource: 'Source taken away',
  editAccount: 'Account changed',
  addAccount: 'Account added',
  moveAccount: 'Account moved',
  mergeAccounts: 'Accounts merged',
  setClosedThrough: 'Closed months changed',
  setCalendar: 'Fiscal calendar changed',
  setAxis: 'Segments changed',
  removeAxis: 'Segments taken away',
  setFeed: 'Ledger feed changed',
  addBudget: 'Budget added',
  renameBudget: 'Budget renamed',
  deleteBudget: 'Budget deleted',
  approveBudget: 'Budget approved',
  putInForce: 'Budget put in force',
  setCells: 'Months entered',
  restoreCells: 'Months restored',
  setMethods: 'Method of lines changed',
  clearLines: 'Lines made blank',
  setLineNote: 'Note on a line',
  setCellNote: 'Note on a month',
  setLooked: 'Lines marked as looked at',
  setDriver: 'Driver changed',
  setDriverValues: 'Driver’s months typed',
  removeDriver: 'Driver taken away',
  putScheduleRows: 'Rows of schedules changed',
  removeScheduleRows: 'Rows of schedules taken away',
  setOwnRatio: 'Own ratio changed',
  removeOwnRatio: 'Own ratio taken away',
  setContra: 'What a balance stands against changed',
  setWeights: 'Weights changed',
  removeWeights: 'Weights taken away',
  setWorkWeek: 'Working days changed',
  setVarianceNote: 'Note on a variance',
  setMessage: 'Message of a report',
  setFlag: 'Flags changed',
  setOutlookWay: 'Outlook of a line changed',
  setQuantities: 'Counted quantities changed',
  setFlowClass: 'Place on the cash-flow statement changed',
  setCostBehavior: 'Fixed and variable costs changed',
  setRound: 'Handouts changed',
  removeRound: 'Round of handouts taken away',
  sendHandouts: 'Handed out',
  takeReturn: 'Return taken in',
  dropReturn: 'Return left out',
  mergeReturn: 'Merged',
  setCovenant: 'Covenant changed',
  removeCovenant: 'Covenant taken away',
  putLayouts: 'Layout changed',
  removeLayout: 'Layout taken away',
  moveLayout: 'Layout moved',
  setTerms: 'Terms changed',
  addAdjustment: 'Adjustment added',
  setAdjustment: 'Adjustment changed',
  removeAdjustments: 'Adjustments taken away',
  moveAdjustment: 'Adjustment moved',
  addCases: 'Cases added',
  renameCase: 'Case renamed',
  removeCase: 'Case taken away',
  setSizes: 'Sizes in cases changed',
  takeCases: 'Cases taken in from a file',
  applyAdjustments: 'Adjustments applied',
  takeOutAdjustments: 'Adjustments taken out',
  setCash: 'Cash settings changed',
  addTax: 'Tax added',
  setTax: 'Tax changed',
  removeTax: 'Tax taken away',
  addForecast: 'Cash forecast named',
  setForecast: 'Sources of a cash forecast changed',
  removeForecast: 'Named cash forecast taken away',
  setDatedItem: 'Dated item changed',
  removeDatedItem: 'Dated item taken away',
  takeOpenItems: 'Open items taken in',
  removeOpenList: 'List of open items taken back',
  setBankBalance: 'Balance of a bank',
  setBankFloor: 'Floor of a bank',
  takeBankStatement: 'Bank statement taken in',
  removeBankStatement: 'Bank statement taken back',
  sayMovements: 'What moved at the bank told apart',
  setItemChanges: 'Open items moved or held',
  keepForecast: 'Cash forecast kept',
  removeKeptForecast: 'Kept cash forecast removed',
  undo: 'Undone',
  redo: 'Done again',
};

const HOW_WORDS: Record<Extract<Command, { type: 'setCells' }>['how'], string> = {
  typed: 'Typed',
  filled: 'Filled',
  pasted: 'Pasted',
  cleared: 'Made blank',
  spread: 'A total spread',
  raised: 'Raised or lowered',
  rounded: 'Rounded',
  copied: 'Copied from elsewhere',
  turned: 'Sign turned',
};

/** What a change was, in a few words. */
export function changeWords(change: Change): string {
  const how =
    'how' in change && change.how && change.how in HOW_WORDS
      ? HOW_WORDS[change.how as keyof typeof HOW_WORDS]
      : CHANGE_WORDS[change.type];
  return 'said' in change && change.said ? `${how} “${change.said}”` : how;
}

const MOST = 4;

/** Names of the sources that an older change took in or away: all that can be told of it without looking anything up. */
const filesOf = ({ patches, inverse }: Doing): string[] =>
  [...patches, ...inverse].flatMap(({ value }: { readonly value?: unknown }) => {
    const name = (value as { readonly fileName?: unknown } | null | undefined)?.fileName;
    return typeof name === 'string' ? [name] : [];
  });

/**
 * What a change touched, as it was called then: lines, drivers, budgets, accounts, files. Nothing is looked up in today's
 * book, where another thing may stand in its place.
 */
export function placesOf(change: Change, withBudget = true): string {
  if (!('patches' in change)) return '';
  const names = change.about
    ? change.about.places.map(({ name, budget }) =>
        [name, withBudget ? budget?.name : ''].filter(Boolean).join(' · '),
      )
    : [...new Set(filesOf(change))];
  const shown = names.slice(0, MOST);
  const more = names.length - shown.length + (change.about?.more ?? 0);
  return `${shown.join('; ')}${more > 0 ? ` and ${more} more` : ''}`;
}
