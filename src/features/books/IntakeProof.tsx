'use client';

import { Button } from '@mantine/core';
import { toDayNumber } from '@/core/calendar';
import { columnLetters } from '@/core/files';
import type { Proof } from '@/core/intake';
import { add, minor, subtract } from '@/core/money';
import type { Ground } from '@/core/ground';
import { countText, moneyFormat, type MoneyFormat } from '@/store/format';
import { setChoice, type OpenIntake } from '@/store/intake';
import { IntakeColumns } from './IntakeColumns';
import { bookProfit, silentAccounts } from './intakeCompare';
import { KIND_NAMES } from '@/store/kindNames';
import { ISSUES, LEFT_OUT } from './intakeWords';
import { count } from './words';
import classes from './Books.module.css';

type Props = {
  readonly ground: Ground;
  readonly now: OpenIntake;
  readonly proof: Proof;
};

/** The proof that what arrived is what was sent: rows, debits and credits, the file's own totals, month by month. */
export function IntakeProof(props: Props) {
  const { proof } = props;
  return (
    <section className={classes.step} aria-label="Proof">
      <h2>
        Proof
        <small className={proof.ties ? classes.good : classes.bad}>
          {proof.ties ? '✓ everything ties' : '✗ not everything ties'}
        </small>
      </h2>
      <div className={classes.proof}>
        <Rows {...props} />
        <Totals {...props} />
        <Months {...props} />
        <IntakeColumns {...props} />
        <Gaps {...props} />
        <Missing {...props} />
        <Issues {...props} />
      </div>
    </section>
  );
}

function Rows({ now: { draft } }: Props) {
  return (
    <div className={classes.fact}>
      <div className="label">Rows</div>
      <table>
        <tbody>
          <tr>
            <td>used</td>
            <td className={classes.num}>{countText(draft.rows.used)}</td>
          </tr>
          {draft.rows.leftOut.map((l) => (
            <tr key={l.reason}>
              <td>
                left out: {LEFT_OUT[l.reason]}
                <span className="faded">
                  {' '}
                  (row {l.examples.slice(0, 6).join(', ')}
                  {l.count > Math.min(6, l.examples.length) ? ' …' : ''})
                </span>
              </td>
              <td className={classes.num}>{countText(l.count)}</td>
            </tr>
          ))}
          <tr data-sum>
            <td>read</td>
            <td className={classes.num}>{countText(draft.rows.read)}</td>
          </tr>
        </tbody>
      </table>
    </div>
  );
}

function Totals({ ground, now: { draft }, proof }: Props) {
  const money = moneyFormat(ground.book);
  // Beside the file's own totals stand its own columns: a negative debit is still a debit there.
  const whole = draft.mapping.shape === 'balances';
  const debit = draft.columns?.debit ?? (whole ? add(proof.debit, proof.openings.debit) : proof.debit);
  const credit = draft.columns?.credit ?? (whole ? add(proof.credit, proof.openings.credit) : proof.credit);
  const off = subtract(debit, credit);
  const mismatched = proof.controls.filter((c) => c.mismatches.length > 0);
  const months = draft.mapping.shape === 'months';
  return (
    <div className={classes.fact}>
      <div className="label">{months ? 'The file’s own totals' : 'Debits and credits'}</div>
      <table>
        <tbody>
          {!months && (
            <>
              <tr>
                <td>debits</td>
                <td className={classes.num}>{money.exact(debit)}</td>
              </tr>
              <tr>
                <td>credits</td>
                <td className={classes.num}>{money.exact(credit)}</td>
              </tr>
              <tr data-sum>
                <td className={off === 0 ? classes.good : proof.oneSided ? undefined : classes.bad}>
                  {off === 0 ? '✓ equal' : proof.oneSided ? 'one side only' : 'they do not meet by'}
                </td>
                <td className={classes.num}>{money.exact(off)}</td>
              </tr>
            </>
          )}
          {(months || proof.controls.length > 0) && (
            <tr data-sum>
              <td colSpan={2} className={mismatched.length === 0 ? classes.good : classes.bad}>
                {proof.controls.length === 0
                  ? 'The file states no totals to check against'
                  : `${mismatched.length === 0 ? '✓ ' : ''}${proof.controlsTied} of ${count(proof.controls.length, 'total')} in the file equal ours`}
              </td>
            </tr>
          )}
          <Aside label="opening balances, set aside" part={proof.openings} money={money} />
          <Aside label="year-end closing entries, set aside" part={proof.closings} money={money} />
        </tbody>
      </table>
      {proof.faults.includes('unbalanced') && draft.unbalancedCount === 0 && (
        <p className={classes.trouble}>
          With the kinds of accounts chosen below, debits and credits differ by {money.exact(proof.off)}.
        </p>
      )}
      {proof.openingsOff.slice(0, 6).map((o) => (
        <p key={o.account ?? 'sum'} className={classes.trouble}>
          {o.account === null
            ? `Debits and credits of the opening balances differ by ${money.exact(o.theirs)}: one of them is missing, changed or on the wrong side.`
            : `${draft.accounts[o.account]!.name} begins with ${money.exact(o.theirs)} in the file, where the book stands at ${money.exact(o.ours)}.`}
        </p>
      ))}
      {proof.openingsOff.length > 6 && (
        <p className={classes.bad}>and {proof.openingsOff.length - 6} more opening balances.</p>
      )}
      {proof.oneSided && (
        <p className="faded">
          {draft.balance === 'oneSided'
            ? 'The file holds one side of each entry only, so debits and credits cannot meet.'
            : 'The balances tie by themselves; what the book has of the months before holds one side only, so what is new cannot meet either.'}
        </p>
      )}
      {proof.lumpFrom !== null && (
        <p className={classes.doubt}>
          The first balance is of a later month than {ground.calendar.period(proof.lumpFrom).label}, and the
          book has nothing before it: all months since then stand in it together.
        </p>
      )}
      {proof.hint && (
        <p className={classes.doubt}>
          {proof.hint.accounts.map((a) => draft.accounts[a.account]!.name).join(' and ')}, taken as{' '}
          {KIND_NAMES[proof.hint.accounts[0]!.kind].toLowerCase()}, would make{' '}
          {count(proof.hint.ties, 'total')} agree.{' '}
          <Button
            size="compact-xs"
            onClick={() => {
              for (const { account, kind } of proof.hint!.accounts) setChoice(account, { kind, why: 'name' });
            }}
          >
            Take {proof.hint.accounts.length === 1 ? 'it' : 'them'} so
          </Button>
        </p>
      )}
      {draft.unbalanced.slice(0, 8).map((u) => (
        <p key={`${u.row}-${u.reference}`} className={classes.trouble}>
          {draft.mapping.shape === 'balances'
            ? `Trial balance of ${u.reference}`
            : `Entry ${u.reference || '(no reference)'}, from row ${u.row}`}
          : debits and credits differ by {money.exact(u.difference)} over {count(u.lines, 'row')}.
        </p>
      ))}
      {draft.unbalancedCount > 8 && (
        <p className={classes.bad}>and {draft.unbalancedCount - 8} more entries that do not balance.</p>
      )}
      {mismatched.slice(0, 8).map((c, i) => (
        <p key={i} className={classes.trouble}>
          {c.row > 0 ? `Row ${c.row}, ` : 'The file’s '}“{c.label}”
          {c.mismatches[0]!.day ? `, ${c.mismatches[0]!.day.slice(0, 7)}` : ''}: the file says{' '}
          {money.exact(c.mismatches[0]!.theirs)}, ours is {money.exact(c.mismatches[0]!.ours)}
          {c.mismatches.length > 1 ? ` (and ${c.mismatches.length - 1} more months)` : ''}.
        </p>
      ))}
    </div>
  );
}

function Aside({
  label,
  part,
  money,
}: {
  readonly label: string;
  readonly part: Proof['openings'];
  readonly money: MoneyFormat;
}) {
  if (part.count === 0) return null;
  const off = subtract(part.debit, part.credit);
  return (
    <tr>
      <td>
        {count(part.count, 'row')} of {label}
      </td>
      <td className={classes.num}>
        {off === 0 ? money.exact(part.debit) : `${money.exact(off)} on one side`}
      </td>
    </tr>
  );
}

function Months({ ground, now: { draft }, proof }: Props) {
  const money = moneyFormat(ground.book);
  const shown = proof.months.slice(-24);
  const book = shown.map((m) => bookProfit(ground, m.period));
  const compared = book.some((b) => b !== null);
  return (
    <div className={classes.fact}>
      <div className="label">By month{compared ? ', beside what the book has' : ''}</div>
      <table>
        <thead>
          <tr>
            <th />
            <th className={classes.num}>{draft.mapping.shape === 'entries' ? 'entries' : 'amounts'}</th>
            <th className={classes.num}>debits</th>
            <th className={classes.num}>credits</th>
            <th className={classes.num}>profit</th>
            {compared && <th className={classes.num}>in the book</th>}
            {compared && <th className={classes.num}>differs</th>}
          </tr>
        </thead>
        <tbody>
          {shown.map((m, i) => {
            const has = book[i] ?? null;
            return (
              <tr key={m.period}>
                <td>{ground.calendar.period(m.period).label}</td>
                <td className={classes.num}>{countText(m.entries)}</td>
                <td className={classes.num}>{money.text(m.debit)}</td>
                <td className={classes.num}>{money.text(m.credit)}</td>
                <td className={classes.num}>{money.text(m.profit)}</td>
                {compared && <td className={classes.num}>{has === null ? 'nothing' : money.text(has)}</td>}
                {compared && (
                  <td className={classes.num}>{has === null ? '' : money.text(minor(m.profit - has))}</td>
                )}
              </tr>
            );
          })}
        </tbody>
      </table>
      {proof.months.length > 24 && <p className="faded">The last 24 of {proof.months.length} months.</p>}
    </div>
  );
}

/** Months that the file says nothing of, that stand twice, or that lie between the book and the file. */
function Gaps({ ground: { calendar }, proof }: Props) {
  const names = (of: readonly number[]) =>
    of.length > 6
      ? `${calendar.period(of[0]!).label} to ${calendar.period(of.at(-1)!).label}`
      : of.map((p) => calendar.period(p).label).join(', ');
  const { missing, gap, twice } = proof;
  if (missing.length + gap.length + twice.length === 0) return null;
  return (
    <div className={classes.fact}>
      <div className="label">Months</div>
      {twice.length > 0 && (
        <p className={classes.trouble}>
          {twice.map((d) => calendar.period(calendar.indexOfDay(toDayNumber(d))).label).join(', ')}{' '}
          {twice.length === 1 ? 'stands' : 'stand'} twice in the file, and would be added together. Say above
          which of the columns is left out.
        </p>
      )}
      {missing.length > 0 && <p className={classes.doubt}>The file says nothing of {names(missing)}.</p>}
      {gap.length > 0 && (
        <p className={classes.doubt}>
          Between the book’s last month and the file’s first, {names(gap)} would stay empty.
        </p>
      )}
    </div>
  );
}

/** Accounts that only one side knows. */
function Missing({ ground, now, proof }: Props) {
  const silent = silentAccounts(ground, proof, now.choices);
  const fresh = now.choices.filter((c) => c.existing === null).length;
  if (ground.balances.entries === 0 || (silent.length === 0 && fresh === 0)) return null;
  return (
    <div className={classes.fact}>
      <div className="label">Accounts on one side only</div>
      {fresh > 0 && (
        <p className={classes.line}>
          {count(fresh, 'account')} of the file the book does not have: see above.
        </p>
      )}
      {silent.length > 0 && (
        <p className={classes.line}>
          {count(silent.length, 'account')} active in the book in the last twelve months and not in the file:{' '}
          {silent
            .slice(0, 8)
            .map((a) => [a.code, a.name].filter(Boolean).join(' '))
            .join(', ')}
          {silent.length > 8 ? ` and ${silent.length - 8} more` : ''}.
        </p>
      )}
    </div>
  );
}

function Issues({ now: { draft } }: Props) {
  if (draft.issueCount === 0) return null;
  return (
    <div className={classes.fact} role="alert">
      <div className="label">What cannot be read</div>
      <table>
        <tbody>
          {draft.issues.slice(0, 12).map((issue, i) => (
            <tr key={i}>
              <td className={classes.bad}>
                {issue.sheet ? `${issue.sheet}, ` : ''}row {issue.row}, column {columnLetters(issue.column)}:{' '}
                {issue.value ? `“${issue.value}” ` : ''}
                {ISSUES[issue.code]}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {draft.issueCount > 12 && <p className={classes.bad}>and {countText(draft.issueCount - 12)} more.</p>}
    </div>
  );
}
