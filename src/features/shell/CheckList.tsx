'use client';

import type { Check, CheckCode } from '@/core/checks';
import type { RatioId } from '@/core/model';
import { RATIO_NAMES } from '@/store/ratioNames';
import classes from './Shell.module.css';

const CHECK_WORDS: Record<CheckCode, (subject: string) => string> = {
  untied: (s) => `${s} was accepted although it does not tie`,
  tieOut: (s) => `All entries taken in from ${s} are here`,
  debitsCredits: (s) => `Debits equal credits in ${s}`,
  openings: (s) => `Opening balances of ${s} are what they must be`,
  balances: () => 'Balances by account and month add up to the entries',
  monthsToYears: (s) => `${s}: months add up to years`,
  subtotals: (s) => `${s}: subtotals add up to net profit`,
  lineAccounts: (s) => (s ? `${s}: every line has an account` : 'Every entry has an account'),
  cashOpening: () => 'Cash begins with what the banks hold in the ledger',
  cashPostings: () => 'Cash by day is what its postings add up to',
  cashBalanced: () => 'Every posting ahead has its other side',
  itemsOver: (list) => `${list} has no more open than the ledger’s accounts stand at`,
  listOfDay: (list) => `${list} is a list of the closed day`,
  bankTies: (bank) => `${bank}: what the bank held comes to the ledger, its uncleared entries and what moved`,
  bankKnown: (bank) => `${bank}: what moved is known of every day since the closed one`,
  bankFloor: (subject) => `${subject.split('\t')[0]} keeps its own floor of ${subject.split('\t')[1]}`,
  bankUsed: (bank) => `${bank}: the balance typed says what the bank ahead begins with`,
  plannedCame: () => 'What was planned for closed months is in the ledger, or someone said what became of it',
  profitOne: () => 'The profit ahead of the plan’s outlook is the profit of the statements',
  madeInPlan: () => 'What is never paid, and the interest of the credit line, are lines of the plan',
  debtsPaid: () => 'Everything that is owed is paid by something ahead',
  itemsTie: () => 'Open items are what the ledger’s receivables and payables stand at',
  flowTies: () => 'Profit leads to the bank in every period of the statements',
  sheetBalances: () => 'The balance sheet balances',
  covenantKnown: (s) => `The ratio of ${covenantName(s)} is known`,
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
  openings: (off) => openingWords(off.split('\t')),
  balances: (amount) => `they differ by ${amount}`,
  monthsToYears: (amount) => `they differ by ${amount}`,
  subtotals: (months) => `they do not in ${months} ${months === '1' ? 'month' : 'months'}`,
  lineAccounts: (ids) => `the book has no account for ${ids}`,
  cashOpening: (amount) => `they differ by ${amount}`,
  cashPostings: (amount) => `they differ by ${amount}`,
  cashBalanced: (amount) => `${amount} is left over`,
  itemsOver: (amount) => `${amount} more`,
  listOfDay: (day) => `it is of ${day}: what was invoiced and paid since comes from the ledger’s entries`,
  bankTies: (off) => `it is off by ${off} (Cash, At the bank)`,
  bankKnown: (days) => `nothing is known of ${days}: what was planned then counts as come`,
  bankFloor: (when) => `it is broken, ${when} at the lowest (Cash, Bank and floor)`,
  bankUsed: (day) => `it is of ${day}: not after the closed day, or beyond the months ahead`,
  plannedCame: (names) => `it waits by name in Cash, Open items: ${names}`,
  profitOne: (detail) => `they differ first in ${detail}`,
  madeInPlan: (accounts) =>
    `lines with amounts of their own, or no account, leave it against what was written off: ${accounts}`,
  debtsPaid: (accounts) => `nothing ahead ever pays ${accounts}`,
  itemsTie: (amounts) => `${amounts} stand without items`,
  flowTies: (where) => `it does not in ${where}`,
  sheetBalances: (by) => `it is off by ${by}, which stands in a line of its own`,
  covenantKnown: (when) => `it is not first in ${when}, so nobody can say whether the covenant is kept`,
  covenantKept: (when) => `it is broken first in ${when}`,
  schedulesTie: (detail) => `they differ first on ${detail}`,
  schedulesMade: (detail) => `the line says something else: ${detail}`,
  floorKept: (when) => `it is broken, ${when} at the lowest`,
};
/** One opening that is off, and how many more are; without a name the sum of all. */
const openingWords = ([name, theirs, ours, more]: string[]): string =>
  name === ''
    ? `their debits and credits differ by ${theirs}`
    : `${name} begins with ${theirs}, where the ledger stands at ${ours}${more === '0' ? '' : ` (and ${more} more)`}`;

/** Who asks and of which ratio, as a person says it. */
const covenantName = (subject: string): string => {
  const [who, ratio = ''] = subject.split('\t');
  return `${who} on ${RATIO_NAMES[ratio as RatioId]?.toLowerCase() ?? ratio}`;
};
const UNTIED_WORDS: Readonly<Record<string, string>> = {
  nothing: 'there was nothing in it',
  unreadable: 'some of it could not be read',
  unbalanced: 'its debits and credits do not meet',
  openings: 'its opening balances were not what they must be',
  controls: 'its own totals are not ours',
};

/** Every check with its state, and what is wrong with those that do not hold. */
export const CheckList = ({ checks }: { readonly checks: readonly Check[] }) => (
  <ul className={classes.checkList} tabIndex={0} aria-label="Checks">
    {checks.map((c, i) => (
      <CheckItem key={i} check={c} />
    ))}
  </ul>
);

function CheckItem({ check }: { readonly check: Check }) {
  return (
    <li style={{ color: check.holds || check.notice ? undefined : 'var(--bad)' }}>
      <span aria-hidden>{check.holds ? '✓' : check.notice ? '!' : '✗'}</span>
      <span>
        {CHECK_WORDS[check.code](check.subject)}
        {check.holds ? '' : `: ${CHECK_TROUBLE[check.code](check.detail)}`}
        {check.plan && <span className="faded"> · by {check.plan}</span>}
      </span>
    </li>
  );
}
