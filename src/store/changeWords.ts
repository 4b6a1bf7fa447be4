import type { Book, Change, Command } from '@/core/model';

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
  setWeights: 'Weights changed',
  removeWeights: 'Weights taken away',
  setWorkWeek: 'Working days changed',
  setVarianceNote: 'Note on a variance',
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
export const changeWords = (change: Change): string =>
  'how' in change && change.how && change.how in HOW_WORDS
    ? HOW_WORDS[change.how as keyof typeof HOW_WORDS]
    : CHANGE_WORDS[change.type];

/** What a change put at a path, or took from it. */
function valueAt({ patches, inverse }: Doing, path: readonly unknown[]): object {
  const all = [...patches, ...inverse] as readonly {
    readonly path: readonly unknown[];
    readonly value?: unknown;
  }[];
  const found = all.find((p) => p.path === path || p.path.join('/') === path.join('/'))?.value;
  return typeof found === 'object' && found !== null ? found : {};
}

/** Names of the sources within a patch's value. */
function fileNames(value: unknown): string[] {
  if (Array.isArray(value)) return [];
  const name = (value as { readonly fileName?: unknown } | null | undefined)?.fileName;
  return typeof name === 'string' ? [name] : [];
}

const MOST = 4;

/** Accounts' names, made once for all changes that are told of one book. */
const names = new WeakMap<Book['accounts'], ReadonlyMap<string, string>>();
function namesOf(accounts: Book['accounts']): ReadonlyMap<string, string> {
  let table = names.get(accounts);
  if (!table) names.set(accounts, (table = new Map(accounts.map((a) => [a.id, a.name]))));
  return table;
}

/**
 * What a change touched, off its patches: lines, drivers, budgets, accounts, files. Places in the book's lists are told
 * by what stands there now, which is right for lines: they are added at the end and never taken out of a budget.
 */
export function placesOf(change: Change, book: Book, withBudget = true): string {
  if (!('patches' in change)) return '';
  const nameOf = namesOf(book.accounts);
  const places = new Set<string>();
  for (const { path } of change.patches) {
    const [root, at, part, item] = path;
    if (root === 'budgets' && typeof at === 'number') {
      const budget = book.budgets[at];
      const place = typeof item === 'number' && change.version === book.version ? item : -1;
      const line = part === 'lines' ? nameOf.get(budget?.lines[place]?.account ?? '') : undefined;
      const driver = part === 'drivers' ? budget?.drivers[place]?.name : undefined;
      places.add([line ?? driver, withBudget ? budget?.name : ''].filter(Boolean).join(' · '));
    } else if (root === 'accounts' && typeof at === 'number' && path.length > 2)
      places.add(book.accounts[at]?.name ?? '');
    else if (root === 'varianceNotes')
      // The first note of a month comes with the month itself.
      for (const id of part === undefined ? Object.keys(valueAt(change, path)) : [part])
        places.add(nameOf.get(String(id)) ?? '');
  }
  for (const { value } of [...change.patches, ...change.inverse] as readonly { readonly value?: unknown }[])
    for (const name of fileNames(value)) places.add(name);
  const list = [...places].filter(Boolean);
  return list.length > MOST
    ? `${list.slice(0, MOST).join('; ')} and ${list.length - MOST} more`
    : list.join('; ');
}
