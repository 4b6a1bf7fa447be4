'use client';

import { useEffect, useMemo, useState, type ReactNode } from 'react';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { ActionIcon, useComputedColorScheme, useMantineColorScheme } from '@mantine/core';
import {
  IconArrowBackUp,
  IconArrowForwardUp,
  IconDecimal,
  IconHelp,
  IconMoon,
  IconSun,
} from '@tabler/icons-react';
import { Guard } from '@/components/Guard';
import { PanelButton } from '@/components/Opens';
import { Trouble } from '@/components/Trouble';
import { Framed } from '@/components/Framed';
import { LocaleContext, UnitContext } from '@/components/unit';
import { unitWords } from '@/store/format';
import { hasTyped, inDialog, isTyping, noticeFocus } from '@/components/typing';
import {
  addDemoBook,
  boot,
  drawn,
  flush,
  hasUnsaved,
  redoLast,
  undoLast,
  useBookStore,
} from '@/store/bookStore';
import { say, useSession } from '@/store/session';
import { BookMenu } from './BookMenu';
import { ScreenStopped } from './ScreenStopped';
import { Notices } from './Notices';
import { useAddress } from './useAddress';
import { Strip } from './Strip';
import classes from './Shell.module.css';

/* What most visits never see is loaded when it is wanted. */
const KeyHelp = dynamic(() => import('./KeyHelp').then((m) => m.KeyHelp));
const loadPalette = () => import('./ShellPalette').then((m) => m.ShellPalette);
const ShellPalette = dynamic(loadPalette);
const Asked = dynamic(() => import('./Asked').then((m) => m.Asked));
const Numbers = dynamic(() => import('./Numbers').then((m) => m.Numbers));
const HeldBook = dynamic(() => import('./HeldBook').then((m) => m.HeldBook));

const STAGES = [
  { href: '/books', name: 'Books' },
  { href: '/budget', name: 'Budget' },
  { href: '/cash', name: 'Cash' },
  { href: '/statements', name: 'Statements' },
  { href: '/whatif', name: 'What-if' },
  { href: '/variance', name: 'Variance' },
] as const;

/** The frame around every screen: header with the stages, what has to be said, the screen, the strip. */
export function Shell({ children }: { readonly children: ReactNode }) {
  const path = usePathname();
  const phase = useBookStore((s) => s.phase);
  const failure = useBookStore((s) => s.failure);
  const bookId = useBookStore((s) => s.history?.book.id);
  const fed = useBookStore((s) => s.history?.book.feed !== null);
  const history = useBookStore((s) => s.history);
  const red = useBookStore((s) => s.history?.book.settings.red === true);
  const unit = useBookStore((s) => (s.history ? unitWords(s.history.book) : ''));
  const locale = useBookStore((s) => s.history?.book.locale ?? 'en-GB');
  const company = useBookStore((s) => s.history?.book.name ?? '');
  useAddress(path, phase === 'ready' ? (bookId ?? null) : null);
  const asked = useSession((s) => s.asked !== null);
  const [help, setHelp] = useState(false);
  const [palette, setPalette] = useState(false);
  // Another state of the book, or another stage, may be drawn where this one was not.
  const mendedBy = useMemo(() => ({ path, history }), [path, history]);

  useEffect(() => void boot(), []);

  // The palette takes keys the moment it is asked for: it is loaded with the first touch, and not with the first screen.
  useEffect(() => {
    const load = () => void loadPalette();
    window.addEventListener('pointerdown', load, { once: true });
    window.addEventListener('keydown', load, { once: true });
    return () => {
      window.removeEventListener('pointerdown', load);
      window.removeEventListener('keydown', load);
    };
  }, []);

  // Two frames on, the screen that was asked for has been drawn, or has said why not.
  useEffect(() => {
    if (phase !== 'ready') return;
    let frame = requestAnimationFrame(() => (frame = requestAnimationFrame(drawn)));
    return () => cancelAnimationFrame(frame);
  }, [phase, bookId]);

  // Only a book that is connected to a feed loads what pulls it.
  useEffect(() => {
    if (!bookId || !fed) return;
    let stop: (() => void) | null = null;
    let gone = false;
    void import('@/store/feed').then(async ({ keepPulling, loadPulls }) => {
      await loadPulls(bookId);
      if (!gone) stop = keepPulling();
    });
    return () => {
      gone = true;
      stop?.();
    };
  }, [bookId, fed]);

  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const ctrl = (e.ctrlKey || e.metaKey) && !e.altKey;
      if (e.key === '?' && !ctrl && !isTyping(e.target)) return setHelp(true);
      if (ctrl && e.key.toLowerCase() === 'k' && !inDialog(e.target)) {
        e.preventDefault();
        return setPalette(true);
      }
      // Wherever the hand is, but while something is typed into a field, whose own undo it is then.
      if (!ctrl || e.key.toLowerCase() !== 'z' || hasTyped(e.target)) return;
      e.preventDefault();
      if (e.shiftKey) redoLast();
      else undoLast();
    };
    // A tab that is hidden may be killed without another word: write now.
    const onHide = () => void flush();
    const onLeave = (e: BeforeUnloadEvent) => {
      if (hasUnsaved()) e.preventDefault();
    };
    // What fails outside of drawing would otherwise fail without a word.
    const onError = (e: ErrorEvent) =>
      say(`Something went wrong: ${e.message}. The book is as it was.`, 'trouble');
    const onRejection = (e: PromiseRejectionEvent) =>
      say(
        `Something went wrong: ${e.reason instanceof Error ? e.reason.message : String(e.reason)}.`,
        'trouble',
      );
    window.addEventListener('error', onError);
    window.addEventListener('unhandledrejection', onRejection);
    const onFocus = (e: FocusEvent) => noticeFocus(e.target);
    window.addEventListener('focusin', onFocus);
    window.addEventListener('keydown', onKey);
    window.addEventListener('pagehide', onHide);
    document.addEventListener('visibilitychange', onHide);
    window.addEventListener('beforeunload', onLeave);
    return () => {
      window.removeEventListener('error', onError);
      window.removeEventListener('unhandledrejection', onRejection);
      window.removeEventListener('focusin', onFocus);
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('pagehide', onHide);
      document.removeEventListener('visibilitychange', onHide);
      window.removeEventListener('beforeunload', onLeave);
    };
  }, []);

  return (
    <div className={classes.frame} data-red={red || undefined}>
      <header className={classes.header}>
        <Link href="/" className={classes.mark} aria-current={path === '/' ? 'page' : undefined}>
          Tellan
        </Link>
        <BookMenu />
        <div className={classes.tools}>
          <UndoButtons />
          <NumbersButton />
          <SchemeButton />
          <ActionIcon
            variant="transparent"
            c="inherit"
            aria-label="Keyboard help"
            onClick={() => setHelp(true)}
          >
            <IconHelp size={18} />
          </ActionIcon>
        </div>
        <nav className={classes.stages} aria-label="Stages">
          {STAGES.map(({ href, name }) => (
            <Link
              key={href}
              href={href}
              className={classes.stage}
              aria-current={path.startsWith(href) ? 'page' : undefined}
            >
              {name}
            </Link>
          ))}
        </nav>
      </header>
      <Guard mendedBy={history} instead={() => <div />}>
        <Notices />
      </Guard>
      <main className={classes.main}>
        {phase === 'loading' && <Opening />}
        {phase === 'failed' && (
          <Trouble
            title="The books could not be opened"
            action={{ label: 'Start with the demo book', run: () => void addDemoBook() }}
          >
            {failure === 'noWholeBook'
              ? 'What is kept in this browser does not hold a whole book. Nothing was deleted: a saved .tellan.json file can be opened from the menu at the top.'
              : `This browser refused its storage: ${failure}. A private window, or a setting that blocks site data, does this. Allow site data for this address and load the page again.`}
          </Trouble>
        )}
        {phase === 'held' && <HeldBook />}
        {phase === 'ready' && bookId && (
          <div key={bookId} className={classes.screen}>
            <Guard
              mendedBy={mendedBy}
              instead={(error, again) => <ScreenStopped error={error} again={again} />}
            >
              <UnitContext value={unit}>
                <Framed message="" of={company}>
                  <LocaleContext value={locale}>{children}</LocaleContext>
                </Framed>
              </UnitContext>
            </Guard>
          </div>
        )}
      </main>
      <Guard mendedBy={history} instead={() => <footer className={classes.strip}>The foot stopped</footer>}>
        <Strip />
      </Guard>
      {help && <KeyHelp opened onClose={() => setHelp(false)} />}
      {palette && bookId && <ShellPalette onHelp={() => setHelp(true)} onClose={() => setPalette(false)} />}
      {asked && <Asked />}
    </div>
  );
}

function Opening() {
  return (
    <div className={classes.opening} role="status">
      <span className="title">Opening the book…</span>
    </div>
  );
}

function UndoButtons() {
  const canUndo = useBookStore((s) => (s.history?.done.length ?? 0) > 0 && !s.readOnly);
  const canRedo = useBookStore((s) => (s.history?.undone.length ?? 0) > 0 && !s.readOnly);
  return (
    <>
      <ActionIcon
        variant="transparent"
        c="inherit"
        aria-label="Undo"
        title="Undo (Ctrl+Z)"
        disabled={!canUndo}
        className={classes.tool}
        onClick={undoLast}
      >
        <IconArrowBackUp size={18} />
      </ActionIcon>
      <ActionIcon
        variant="transparent"
        c="inherit"
        aria-label="Redo"
        title="Redo (Ctrl+Shift+Z)"
        disabled={!canRedo}
        className={classes.tool}
        onClick={redoLast}
      >
        <IconArrowForwardUp size={18} />
      </ActionIcon>
    </>
  );
}

function NumbersButton() {
  const open = useBookStore((s) => s.history !== null);
  return (
    open && (
      <PanelButton
        width={250}
        button={
          <ActionIcon
            variant="transparent"
            c="inherit"
            aria-label="How figures are written"
            title="How figures are written"
            className={classes.tool}
          >
            <IconDecimal size={18} />
          </ActionIcon>
        }
      >
        <Numbers />
      </PanelButton>
    )
  );
}

function SchemeButton() {
  const { setColorScheme } = useMantineColorScheme();
  const scheme = useComputedColorScheme('light', { getInitialValueInEffect: true });
  const dark = scheme === 'dark';
  return (
    <ActionIcon
      variant="transparent"
      c="inherit"
      aria-label={dark ? 'Light colors' : 'Dark colors'}
      onClick={() => setColorScheme(dark ? 'light' : 'dark')}
    >
      {dark ? <IconSun size={17} /> : <IconMoon size={17} />}
    </ActionIcon>
  );
}
