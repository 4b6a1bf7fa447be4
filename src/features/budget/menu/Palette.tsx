'use client';

import { useMemo } from 'react';
import type { Ground } from '@/core/ground';
import { setSession, type BudgetView } from '@/store/session';
import { TOOLS, type Tool } from '../edit/commands';
import { PalettePanel, type PaletteItem } from './PalettePanel';
import { setSetup, useSetup } from '../sheet/setup';

const VIEWS: readonly (readonly [BudgetView, string])[] = [
  ['firstPass', 'First pass: go down the accounts by section'],
  ['drivers', 'Drivers sheet'],
  ['report', 'Budget report'],
  ['compare', 'Two budgets side by side'],
  ['history', 'History of this budget'],
];

/** The worksheet's palette: its tools, its lines, its views and the book's budgets. */
export function Palette({
  ground,
  onTool,
  onCopy,
  onLook,
  onNote,
  onStart,
  onLine,
  onFind,
  onClose,
}: {
  readonly ground: Ground;
  readonly onTool: (tool: Tool) => void;
  readonly onCopy: () => void;
  readonly onLook: () => void;
  readonly onNote: () => void;
  readonly onStart: () => void;
  readonly onLine: (account: string) => void;
  readonly onFind: () => void;
  readonly onClose: () => void;
}) {
  const setup = useSetup();
  const { book } = ground;
  const items = useMemo<PaletteItem[]>(
    () => [
      ...TOOLS.map((t) => ({ id: t.id, name: t.name, of: 'selection', key: t.key, run: () => onTool(t) })),
      { id: 'copy', name: 'Copy from other months or a budget…', of: 'selection', key: 'c', run: onCopy },
      { id: 'look', name: 'Mark as looked at, or not', of: 'selection', key: 'l', run: onLook },
      { id: 'note', name: 'Write a note', of: 'selection', key: 'n', run: onNote },
      { id: 'find', name: 'Find and filter lines', of: 'sheet', key: '/', run: onFind },
      {
        id: 'window',
        name: setup.wholeWindow ? 'Show the header again' : 'Give the sheet the whole window',
        of: 'sheet',
        key: 'w',
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
      { id: 'new', name: 'New budget', of: 'budget', run: onStart },
      ...book.budgets.map((b) => ({
        id: `budget-${b.id}`,
        name: b.name,
        of: `budget, ${b.state}`,
        run: () => setSession({ budgetId: b.id }),
      })),
      ...book.accounts.map((a) => ({
        id: `line-${a.id}`,
        name: `${a.code} ${a.name}`.trim(),
        of: 'line',
        run: () => onLine(a.id),
      })),
    ],
    [book, setup, onTool, onCopy, onLook, onNote, onStart, onLine, onFind],
  );
  return <PalettePanel items={items} onClose={onClose} />;
}
