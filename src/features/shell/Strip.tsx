'use client';

import type { Check, CheckCode } from '@/core/checks';
import { Guard } from '@/components/Guard';
import { PanelButton } from '@/components/Opens';
import { useBookStore } from '@/store/bookStore';
import { useChecks } from '@/store/ground';
import { useSession } from '@/store/session';
import { RATIO_NAMES } from '@/store/ratioNames';
import type { RatioId } from '@/core/model';
import classes from './Shell.module.css';

const CHECK_WORDS: Record<CheckCode, (subject: string) => string> = {
  untied: (s) => `${s} was accepted although it does not tie`,
  tieOut: (s) => `All entries taken in from ${s} are here`,
  debitsCredits: (s) => `Debits equal credits in ${s}`,
  balances: () => 'Balances by account and month add up to the entries',
  monthsToYears: (s) => `${s}: months add up to years`,
  subtotals: (s) => `${s}: subtotals add up to net profit`,
  lineAccounts: (s) => (s ? `${s}: every line has an account` : 'Every entry has an account'),
  cashOpening: () => 'Cash begins with what the banks hold in the ledger',
  cashPostings: () => 'Cash by day is what its postings add up to',
  cashBalanced: () => 'Every posting ahead has its other side',
  itemsTie: () => 'Open items are what the ledger’s receivables and payables stand at',
  flowTies: () => 'Profit leads to the bank in every period of the statements',
  sheetBalances: () => 'The balance sheet balances',
  covenantKept: (s) => `Covenant of ${covenantName(s)} is kept`,
  schedulesTie: (s) => `${s}: schedules begin where the ledger stands`,
  schedulesMade: (s) => `${s}: lines are what their schedules make`,
  floorKept: (floor) => `The bank keeps its floor of ${floor}`,
};

/** What is wrong with a check that does not hold, as one person would tell another. */
const CHECK_TROUBLE: Record<CheckCode, (detail: string) => string> = {
  untied: (faults) =>
    faults
      .split(', ')
      .map((f) => UNTIED_WORDS[f] ?? f)
      .join('; '),
  tieOut: (counted) => `only ${counted} are`,
  debitsCredits: (amount) => `they differ by ${amount}`,
  balances: (amount) => `they differ by ${amount}`,
  monthsToYears: (amount) => `they differ by ${amount}`,
  subtotals: (months) => `they do not in ${months} ${months === '1' ? 'month' : 'months'}`,
  lineAccounts: (ids) => `the book has no account for ${ids}`,
  cashOpening: (amount) => `they differ by ${amount}`,
  cashPostings: (amount) => `they differ by ${amount}`,
  cashBalanced: (amount) => `${amount} is left over`,
  itemsTie: (amounts) => `${amounts} stand without items`,
  flowTies: (where) => `it does not in ${where}`,
  sheetBalances: (by) => `it is off by ${by}, which stands in a line of its own`,
  covenantKept: (when) => `it is broken first in ${when}`,
  schedulesTie: (detail) => `they differ first on ${detail}`,
  schedulesMade: (detail) => `the line says something else: ${detail}`,
  floorKept: (when) => `it is broken, ${when} at the lowest`,
};
/** "Bank current" as a person says it. */
const covenantName = (subject: string): string => {
  const at = subject.lastIndexOf(' ');
  const ratio = RATIO_NAMES[subject.slice(at + 1) as RatioId] ?? subject.slice(at + 1);
  return `${subject.slice(0, at)} on ${ratio.toLowerCase()}`;
};
const UNTIED_WORDS: Readonly<Record<string, string>> = {
  nothing: 'there was nothing in it',
  unreadable: 'some of it could not be read',
  unbalanced: 'its debits and credits do not meet',
  controls: 'its own totals are not ours',
};

/** The foot of every screen: what is selected, the key figures, the checks, and whether all is saved. */
export function Strip() {
  const facts = useSession((s) => s.facts);
  const word = useSession((s) => s.word);
  const open = useBookStore((s) => s.history !== null && s.phase === 'ready');
  const history = useBookStore((s) => s.history);
  return (
    <footer className={classes.strip}>
      {facts.map((f) => (
        <span key={f.label}>
          {f.label} <b>{f.value}</b>
          {f.after ? ` ${f.after}` : ''}
        </span>
      ))}
      <span
        role="status"
        aria-live="polite"
        className={classes.word}
        data-tone={word?.tone}
        title={word?.text}
      >
        {word?.text}
      </span>
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
  if (checks.length === 0) return <span>Nothing to check yet</span>;
  return (
    <PanelButton
      position="top-end"
      width={420}
      trapFocus={false}
      button={
        <button type="button" className={classes.checks} data-broken={broken.length > 0 || undefined}>
          {broken.length === 0
            ? `✓ ${rules} of ${rules} checks hold`
            : `✗ ${broken.length} of ${rules} checks fail`}
          {notices.some((c) => c.code === 'floorKept') ? ' · floor broken' : ''}
          {notices.some((c) => c.code === 'covenantKept') ? ' · covenant broken' : ''}
        </button>
      }
    >
      <ul className={classes.checkList} tabIndex={0} aria-label="Checks">
        {[...broken, ...notices, ...checks.filter((c) => c.holds)].map((c, i) => (
          <CheckItem key={i} check={c} />
        ))}
      </ul>
    </PanelButton>
  );
}

function CheckItem({ check }: { readonly check: Check }) {
  return (
    <li style={{ color: check.holds || check.notice ? undefined : 'var(--bad)' }}>
      <span aria-hidden>{check.holds ? '✓' : check.notice ? '!' : '✗'}</span>
      <span>
        {CHECK_WORDS[check.code](check.subject)}
        {check.holds ? '' : `: ${CHECK_TROUBLE[check.code](check.detail)}`}
      </span>
    </li>
  );
}

function Saved() {
  const save = useBookStore((s) => s.save);
  const open = useBookStore((s) => s.history !== null);
  if (!open) return null;
  switch (save.state) {
    case 'saved':
      return (
        <span data-testid="saved">
          Saved{' '}
          {new Date(save.at).toLocaleTimeString('en-US', {
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
