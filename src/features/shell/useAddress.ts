import { useEffect, useRef } from 'react';
import { useRouter } from 'next/navigation';
import { keepPlace, placeOf, queryOf, readAddress } from '@/store/address';
import { groundNow } from '@/store/ground';
import { useSession } from '@/store/session';

/** Whether the front page has anything to say of the open book. */
const hasEntries = (): boolean => (groundNow()?.balances.entries ?? 0) > 0;

/**
 * Each view has its address: what the session shows stands in it, Back and Forward lead through it, and a book opens again
 * where it was left. `path` is the stage, `book` the open book or null.
 */
export function useAddress(path: string, book: string | null): void {
  const router = useRouter();
  const opened = useRef<string | null>(null);

  // A book that opens: by the address if it says anything, else where it was left.
  useEffect(() => {
    if (book === null || opened.current === book) return;
    const first = opened.current === null;
    opened.current = book;
    const { pathname, search } = window.location;
    const kept = placeOf(book);
    const home = pathname === '/';
    if (search !== '' && first && !home) readAddress(pathname, search);
    else if (home && hasEntries()) return;
    else if (kept !== null && (!first || home || pathname === '/books')) {
      const [at = '/books', query = ''] = kept.split('?');
      readAddress(at, query);
      if (at !== pathname) router.replace(kept);
    } else if (home && !hasEntries()) router.replace('/books');
  }, [book, router]);

  // Another view is another address, which Back leads out of.
  useEffect(() => {
    if (book === null) return;
    const write = () => {
      if (opened.current !== book || window.location.pathname !== path) return;
      const query = queryOf(path, useSession.getState());
      if (path !== '/') keepPlace(book, `${path}${query}`);
      if (query === window.location.search) return;
      window.history.pushState(window.history.state, '', `${path}${query}`);
    };
    // A stage that was just come to has its view in its address without a step of its own.
    const query = queryOf(path, useSession.getState());
    if (window.location.pathname === path && opened.current === book) {
      if (query !== window.location.search)
        window.history.replaceState(window.history.state, '', `${path}${query}`);
      if (path !== '/') keepPlace(book, `${path}${query}`);
    }
    return useSession.subscribe(write);
  }, [path, book]);

  useEffect(() => {
    const onBack = () => {
      const { pathname, search } = window.location;
      readAddress(pathname, search);
    };
    window.addEventListener('popstate', onBack);
    return () => window.removeEventListener('popstate', onBack);
  }, []);
}
