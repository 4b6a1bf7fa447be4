'use client';

import dynamic from 'next/dynamic';
import { Guard } from '@/components/Guard';
import { PanelButton } from '@/components/Opens';
import { useBookStore } from '@/store/bookStore';
import { useChecks } from '@/store/ground';
import { useSession } from '@/store/session';
import classes from './Shell.module.css';

/** Loaded when it is opened: most of it is words. */
const CheckList = dynamic(() => import('./CheckList').then((m) => m.CheckList));

/** The foot of every screen: what is selected, the key figures, the checks, and whether all is saved. */
export function Strip() {
  const facts = useSession((s) => s.facts);
  const word = useSession((s) => s.word);
  const open = useBookStore((s) => s.history !== null && s.phase === 'ready');
  const history = useBookStore((s) => s.history);
  return (
    <footer className={classes.strip}>
      <span className={classes.facts}>
        {facts.map((f) => (
          <span key={f.label}>
            {f.label} <b>{f.value}</b>
            {f.after ? ` ${f.after}` : ''}
          </span>
        ))}
      </span>
      <span
        role="status"
        aria-live="polite"
        className={classes.word}
        data-tone={word?.tone}
        title={word?.text}
      >
        {word?.text}
      </span>
      {word?.act && (
        <button type="button" className={classes.act} onClick={word.act.run}>
          {word.act.label}
        </button>
      )}
      <span className={classes.right}>
        {open && (
          <Guard mendedBy={history} instead={(e) => <NotChecked why={e.message} />}>
            <Checks />
          </Guard>
        )}
        <Saved />
      </span>
    </footer>
  );
}

const NotChecked = ({ why }: { readonly why: string }) => (
  <span style={{ color: '#f0a79f' }} title={why}>
    ✗ The checks stopped
  </span>
);

function Checks() {
  const checks = useChecks();
  const broken = checks.filter((c) => !c.holds && !c.notice);
  const notices = checks.filter((c) => !c.holds && c.notice);
  const rules = checks.length - notices.length;
  // What is ahead is ahead by one plan, the same on every screen.
  const ahead = [
    ['floorKept', 'floor broken'],
    ['bankFloor', 'floor of a bank broken'],
    ['covenantKept', 'covenant broken'],
    ['covenantKnown', 'covenant not known'],
  ].flatMap(([code, words]) => (notices.some((c) => c.code === code) ? [words] : []));
  const plan = checks.find((c) => c.plan)?.plan;
  const aheadWords = ahead.length > 0 ? `${ahead.join(', ')}${plan ? ` by ${plan}` : ''}` : undefined;
  if (checks.length === 0) return <span>Nothing to check yet</span>;
  return (
    <PanelButton
      position="top-end"
      width={420}
      trapFocus={false}
      button={
        <button
          type="button"
          className={classes.checks}
          data-broken={broken.length > 0 || undefined}
          title={aheadWords}
        >
          {broken.length === 0
            ? `✓ ${rules} of ${rules} checks hold`
            : `✗ ${broken.length} of ${rules} checks fail`}
          {aheadWords && <span className={classes.ahead}> · {aheadWords}</span>}
        </button>
      }
    >
      <CheckList checks={[...broken, ...notices, ...checks.filter((c) => c.holds)]} />
    </PanelButton>
  );
}

function Saved() {
  const save = useBookStore((s) => s.save);
  const locale = useBookStore((s) => s.history?.book.locale ?? null);
  if (locale === null) return null;
  switch (save.state) {
    case 'saved':
      return (
        <span data-testid="saved">
          Saved{' '}
          {new Date(save.at).toLocaleTimeString(locale, {
            hour: '2-digit',
            minute: '2-digit',
            hour12: false,
          })}
        </span>
      );
    case 'saving':
      return <span>{save.slow ? 'Not saved yet…' : 'Saving…'}</span>;
    case 'failed':
    case 'lost':
      return <span style={{ color: '#f0a79f' }}>Not saved</span>;
  }
}
