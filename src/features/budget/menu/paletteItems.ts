import { setSession, type BudgetView, type PaletteItem } from '@/store/session';
import { TOOLS, type Tool } from '../edit/commands';
import { setSetup, type Setup } from '../sheet/setup';

const VIEWS: readonly (readonly [BudgetView, string])[] = [
  ['firstPass', 'First pass: go down the accounts by section'],
  ['drivers', 'Drivers sheet'],
  ['report', 'Budget report'],
  ['compare', 'Two budgets side by side'],
  ['history', 'History of this budget'],
];

/** What the worksheet offers the palette: its tools, its views, a new budget. */
export const paletteItems = (
  setup: Setup,
  does: {
    readonly onTool: (tool: Tool) => void;
    readonly onCopy: () => void;
    readonly onLook: () => void;
    readonly onNote: () => void;
    readonly onStart: () => void;
    readonly onFind: () => void;
  },
): PaletteItem[] => [
  ...TOOLS.map((t) => ({ id: t.id, name: t.name, of: 'selection', key: t.key, run: () => does.onTool(t) })),
  {
    id: 'copy',
    name: 'Copy from other months or a budget…',
    of: 'selection',
    key: 'Alt C',
    run: does.onCopy,
  },
  { id: 'look', name: 'Mark as looked at, or not', of: 'selection', key: 'Alt L', run: does.onLook },
  { id: 'note', name: 'Write a note', of: 'selection', key: 'Alt N', run: does.onNote },
  { id: 'find', name: 'Find and filter lines', of: 'sheet', key: 'Ctrl Shift F', run: does.onFind },
  {
    id: 'window',
    name: setup.wholeWindow ? 'Show the header again' : 'Give the sheet the whole window',
    of: 'sheet',
    key: 'Alt W',
    run: () => setSetup({ wholeWindow: !setup.wholeWindow }),
  },
  {
    id: 'costs',
    name: setup.costsFirst ? 'Income first' : 'Costs first, income last',
    of: 'sheet',
    run: () => setSetup({ costsFirst: !setup.costsFirst }),
  },
  ...VIEWS.map(([view, name]) => ({
    id: `view-${view}`,
    name,
    of: 'view',
    run: () => setSession({ budgetView: view }),
  })),
  { id: 'new', name: 'New budget', of: 'budget', run: does.onStart },
];
