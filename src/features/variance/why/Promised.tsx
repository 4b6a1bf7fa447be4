import { Button, NativeSelect } from '@mantine/core';
import { periodsOf, type PeriodId, type PeriodIndex } from '@/core/calendar';
import { promisesOf, settledNote, type Ground, type TimingPromise } from '@/core/ground';
import type { AccountId } from '@/core/model';
import { minor } from '@/core/money';
import { explainVariance } from '@/store/actions';
import type { MoneyFormat } from '@/store/format';
import { SETTLED_WORDS } from '@/store/layoutWords';
import classes from '../Variance.module.css';

/** So many months from the one looked at may be named. */
const AHEAD = 18;

/** What a promise came to, in words. */
export const KEPT_WORDS: Record<TimingPromise['kept'], string> = {
  kept: 'kept',
  inPart: 'kept in part',
  not: 'not kept',
};

/** What explanations of earlier months promised of this one, beside what came; what did not come is settled here. */
export function Promised({
  ground,
  account,
  month,
  money,
  readOnly,
}: {
  readonly ground: Ground;
  readonly account: AccountId;
  readonly month: PeriodIndex;
  readonly money: MoneyFormat;
  readonly readOnly: boolean;
}) {
  const { book, calendar } = ground;
  const own = promisesOf(ground).filter((p) => p.account === account && p.due === month);
  if (own.length === 0) return null;
  const later = periodsOf(calendar, {
    first: (ground.closedThrough ?? month) + 1,
    last: (ground.closedThrough ?? month) + AHEAD,
  });
  const settle = (promise: TimingPromise, how: Parameters<typeof settledNote>[2]) => {
    const period = calendar.period(promise.explained).id;
    const note = book.varianceNotes[period]?.[account];
    if (note) explainVariance(period, account, settledNote(note, promise, how));
  };
  return (
    <section aria-label="Promised">
      <div className="label">Was to come back in {calendar.period(month).label}</div>
      {own.map((p) => (
        <div key={`${p.explained} ${p.part} ${p.place}`} className={classes.part}>
          <div>
            {money.signed(p.amount)} explained in {calendar.period(p.explained).label}:{' '}
            {p.came === 0 ? 'nothing' : money.signed(p.came)} came,{' '}
            <b>{p.settled ? SETTLED_WORDS[p.settled] : KEPT_WORDS[p.kept]}</b>
          </div>
          {p.kept !== 'kept' && p.settled === null && (
            <div className={classes.partRow}>
              <NativeSelect
                aria-label={`${money.signed(minor(p.amount - p.came))} comes later`}
                disabled={readOnly}
                value=""
                data={[
                  { value: '', label: `${money.signed(minor(p.amount - p.came))} still comes in …` },
                  ...later.map((l) => ({ value: l.id as string, label: l.label })),
                ]}
                onChange={(e) => settle(p, { later: e.currentTarget.value as PeriodId })}
              />
              <Button disabled={readOnly} onClick={() => settle(p, { settled: 'elsewhere' })}>
                Came another way
              </Button>
              <Button disabled={readOnly} onClick={() => settle(p, { settled: 'givenUp' })}>
                Given up
              </Button>
            </div>
          )}
          {p.settled !== null && (
            <Button disabled={readOnly} onClick={() => settle(p, null)}>
              Ask again
            </Button>
          )}
        </div>
      ))}
    </section>
  );
}
