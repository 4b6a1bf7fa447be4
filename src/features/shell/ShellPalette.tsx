'use client';

import { useMemo } from 'react';
import { useRouter } from 'next/navigation';
import { PalettePanel } from '@/components/PalettePanel';
import { useGround } from '@/store/ground';
import { BOOKS_VIEWS, setSession, useSession, type BooksView, type PaletteItem } from '@/store/session';

export const BOOKS_VIEW_NAMES: Record<BooksView, string> = {
  ledger: 'Ledger',
  trial: 'Trial balance',
  accounts: 'Accounts',
  segments: 'Segments',
  sources: 'Sources',
  feed: 'Feed',
  calendar: 'Calendar',
  journal: 'Journal',
};

/** What can be done or found anywhere, with what the screen at hand offers before it. */
export function ShellPalette({
  onHelp,
  onClose,
}: {
  readonly onHelp: () => void;
  readonly onClose: () => void;
}) {
  const ground = useGround();
  const router = useRouter();
  const own = useSession((s) => s.palette);
  const items = useMemo<PaletteItem[]>(() => {
    if (!ground) return [];
    const { book } = ground;
    return [
      ...own(),
      { id: 'addAccount', name: 'Add an account…', of: 'book', run: () => setSession({ asked: 'account' }) },
      { id: 'statements', name: 'Statements', of: 'stage', run: () => router.push('/statements') },
      { id: 'whatif', name: 'What-if', of: 'stage', run: () => router.push('/whatif') },
      { id: 'variance', name: 'Variance', of: 'stage', run: () => router.push('/variance') },
      ...BOOKS_VIEWS.map((view): PaletteItem => ({
        id: `books-${view}`,
        name: BOOKS_VIEW_NAMES[view],
        of: 'books',
        run: () => {
          setSession({ booksView: view });
          router.push('/books');
        },
      })),
      ...book.budgets.map((b): PaletteItem => ({
        id: `budget-${b.id}`,
        name: b.name,
        of: `budget, ${b.state}`,
        run: () => {
          setSession({ budgetId: b.id, budgetView: 'sheet' });
          router.push('/budget');
        },
      })),
      ...book.accounts.map((a): PaletteItem => ({
        id: `line-${a.id}`,
        name: `${a.code} ${a.name}`.trim(),
        of: 'line of the budget',
        run: () => {
          setSession({ soughtAccount: a.id, budgetView: 'sheet' });
          router.push('/budget');
        },
      })),
      { id: 'name', name: 'Your name…', of: 'this browser', run: () => setSession({ asked: 'name' }) },
      { id: 'keys', name: 'Keys', of: 'help', key: '?', run: onHelp },
    ];
  }, [ground, own, router, onHelp]);
  return <PalettePanel items={items} onClose={onClose} />;
}
