'use client';

import { columnLetters } from '@/core/files';
import type { Draft, Proof } from '@/core/intake';
import { subtract } from '@/core/money';
import type { Ground } from '@/store/derived';
import { moneyFormat } from '@/store/format';
import { count, ISSUES, LEFT_OUT } from './words';
import classes from './Books.module.css';

/** The proof that what arrived is what was sent: rows, debits and credits, the file's own totals, month by month. */
export function IntakeProof({
  ground,
  draft,
  proof,
}: {
  readonly ground: Ground;
  readonly draft: Draft;
  readonly proof: Proof;
}) {
  const money = moneyFormat(ground.book);
  const { calendar } = ground;
  const off = subtract(proof.debit, proof.credit);
  const mismatched = proof.controls.filter((c) => c.mismatches.length > 0);
  return (
    <section className={classes.step}>
      <h2>
        Proof
        <small className={proof.ties ? classes.good : classes.bad}>
          {proof.ties ? '✓ everything ties' : '✗ not everything ties'}
        </small>
      </h2>
      <div className={classes.proof}>
        <div className={classes.fact}>
          <div className="label">Rows</div>
          <table>
            <tbody>
              <tr>
                <td>used</td>
                <td className={classes.num}>{draft.rows.used.toLocaleString('en-US')}</td>
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
                  <td className={classes.num}>{l.count.toLocaleString('en-US')}</td>
                </tr>
              ))}
              <tr data-sum>
                <td>read</td>
                <td className={classes.num}>{draft.rows.read.toLocaleString('en-US')}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <div className={classes.fact}>
          <div className="label">
            {draft.mapping.shape === 'entries' ? 'Debits and credits' : 'The file’s own totals'}
          </div>
          <table>
            <tbody>
              {draft.mapping.shape === 'entries' ? (
                <>
                  <tr>
                    <td>debits</td>
                    <td className={classes.num}>{money.exact(proof.debit)}</td>
                  </tr>
                  <tr>
                    <td>credits</td>
                    <td className={classes.num}>{money.exact(proof.credit)}</td>
                  </tr>
                  <tr data-sum>
                    <td className={off === 0 ? classes.good : classes.bad}>
                      {off === 0 ? '✓ equal' : 'difference'}
                    </td>
                    <td className={classes.num}>{money.exact(off)}</td>
                  </tr>
                </>
              ) : (
                <tr data-sum>
                  <td className={mismatched.length === 0 ? classes.good : classes.bad}>
                    {proof.controls.length === 0
                      ? 'The file states no totals to check against'
                      : `${mismatched.length === 0 ? '✓ ' : ''}${proof.controlsTied} of ${count(proof.controls.length, 'total')} in the file equal ours`}
                  </td>
                </tr>
              )}
            </tbody>
          </table>
          {draft.balance === 'oneSided' && (
            <p className="faded">
              The file holds one side of each entry only, so debits and credits cannot meet.
            </p>
          )}
          {draft.unbalanced.slice(0, 8).map((u) => (
            <p key={u.row} className={classes.bad} style={{ margin: '4px 0' }}>
              Entry {u.reference || '(no reference)'}, from row {u.row}: debits and credits differ by{' '}
              {money.exact(u.difference)} over {count(u.lines, 'row')}.
            </p>
          ))}
          {draft.unbalancedCount > 8 && (
            <p className={classes.bad}>and {draft.unbalancedCount - 8} more entries that do not balance.</p>
          )}
          {mismatched.slice(0, 8).map((c) => (
            <p key={c.row} className={classes.bad} style={{ margin: '4px 0' }}>
              Row {c.row}, “{c.label}”{c.mismatches[0]!.day ? `, ${c.mismatches[0]!.day.slice(0, 7)}` : ''}:
              the file says {money.exact(c.mismatches[0]!.theirs)}, ours is{' '}
              {money.exact(c.mismatches[0]!.ours)}
              {c.mismatches.length > 1 ? ` (and ${c.mismatches.length - 1} more months)` : ''}.
            </p>
          ))}
        </div>
        <div className={classes.fact}>
          <div className="label">By month</div>
          <table>
            <thead>
              <tr>
                <th />
                <th className={classes.num}>{draft.mapping.shape === 'entries' ? 'entries' : 'amounts'}</th>
                <th className={classes.num}>debits</th>
                <th className={classes.num}>credits</th>
                <th className={classes.num}>profit</th>
              </tr>
            </thead>
            <tbody>
              {proof.months.slice(-24).map((m) => (
                <tr key={m.period}>
                  <td>{calendar.period(m.period).label}</td>
                  <td className={classes.num}>{m.entries.toLocaleString('en-US')}</td>
                  <td className={classes.num}>{money.text(m.debit)}</td>
                  <td className={classes.num}>{money.text(m.credit)}</td>
                  <td className={classes.num}>{money.text(m.profit)}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {proof.months.length > 24 && <p className="faded">The last 24 of {proof.months.length} months.</p>}
        </div>
        {draft.issueCount > 0 && (
          <div className={classes.fact} role="alert">
            <div className="label">What cannot be read</div>
            <table>
              <tbody>
                {draft.issues.slice(0, 12).map((issue, i) => (
                  <tr key={i}>
                    <td className={classes.bad}>
                      row {issue.row}, column {columnLetters(issue.column)}:{' '}
                      {issue.value ? `“${issue.value}” ` : ''}
                      {ISSUES[issue.code]}
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
            {draft.issueCount > 12 && (
              <p className={classes.bad}>and {(draft.issueCount - 12).toLocaleString('en-US')} more.</p>
            )}
          </div>
        )}
      </div>
    </section>
  );
}
