'use client';

import { useMemo, useState } from 'react';
import { Button, Checkbox, NativeSelect, TextInput } from '@mantine/core';
import { found } from '@/core/finding';
import { minor, percent } from '@/core/money';
import {
  isProfitAndLoss,
  segmentName,
  termsKey,
  type Account,
  type Budget,
  type SegmentId,
  type Terms,
} from '@/core/model';
import type { CashView, Ground, LineTerms } from '@/core/ground';
import { changesTerms, touching, triedOver } from '@/core/scenario';
import { ROW_NAMES } from '@/core/report';
import { PercentInput } from '@/components/MoneyInput';
import stage from '@/components/Stage.module.css';
import { dispatch, useBookStore } from '@/store/bookStore';
import { useTry } from '@/store/useTry';
import { markWords } from '@/store/caseWords';
import { moneyFormat } from '@/store/format';
import { TriedMark } from '@/components/TriedMark';
import { TermsEditor } from '@/components/TermsEditor';
import { AddCost } from './AddCost';
import { MeasuredNote, TrialNote } from './MeasuredNote';
import { LineMoney } from './LineMoney';
import { TERMS_NAMES } from '@/components/termsWords';
import { termsWords } from '@/store/cashWords';
import classes from './Cash.module.css';

const SAID = { account: 'said', group: 'said for the group', kind: 'said for the kind' } as const;
const FROM = {
  history: 'ledger',
  name: 'name',
  kind: 'kind',
} as const;

/** The terms as the lines of a budget have them: what was said and what is guessed, the unsure first; many set at once. */
export function TermsView({
  ground,
  view,
  budget,
}: {
  readonly ground: Ground;
  readonly view: CashView;
  readonly budget: Budget | null;
}) {
  const tryThis = useTry();
  const readOnly = useBookStore((s) => s.readOnly) || budget?.state !== 'draft';
  const { book } = ground;
  const money = moneyFormat(book);
  const [sought, setSought] = useState('');
  const [checked, setChecked] = useState<readonly string[]>([]);
  const [chosen, setChosenLine] = useState<string | null>(null);
  const [reach, setReach] = useState<Reach>({ of: 'line' });
  const setChosen = (id: string) => {
    setChosenLine(id);
    setReach({ of: 'line' });
  };
  const planned = useMemo(() => {
    const sums = new Map<string, number>();
    for (const { line } of view.lines.values())
      sums.set(
        line.account.id,
        (sums.get(line.account.id) ?? 0) + line.amounts.reduce<number>((t, a) => t + (a ?? 0), 0),
      );
    return sums;
  }, [view.lines]);
  const rows = useMemo(() => {
    const all = book.accounts.filter((a) => isProfitAndLoss(a.kind) && (planned.has(a.id) || a.active));
    return found(all, (a) => `${a.code} ${a.name}`, sought)
      .map((account) => ({ account, ...view.termsOf(account, null) }))
      .sort((a, b) => doubt(b) - doubt(a));
  }, [book.accounts, planned, sought, view]);
  const tried = budget
    ? touching(triedOver(book, budget).filter(changesTerms), budget, book.accounts, 'any')
    : NONE_TRIED;
  const line = rows.find((r) => r.account.id === chosen);
  const row =
    line && reach.of === 'segment' ? { ...line, ...view.termsOf(line.account, reach.segment) } : line;
  const targets = (account: Account): readonly Account[] =>
    checked.includes(account.id) ? book.accounts.filter((a) => checked.includes(a.id)) : [account];
  const axis = budget?.axis ? book.axes.find((a) => a.id === budget.axis) : undefined;
  const segment = reach.of === 'segment' ? reach.segment : null;
  const targetOf = (account: Account): Pick<Terms, 'of' | 'segment'> => {
    const { kind, group } = account;
    switch (reach.of) {
      case 'group':
        return { of: { of: 'group', kind, group } };
      case 'kind':
        return { of: { of: 'kind', kind } };
      case 'segment':
        return { of: { of: 'account', account: account.id }, segment };
      case 'line':
        return { of: { of: 'account', account: account.id } };
    }
  };
  /** The terms that a line follows now, to be taken back. */
  const said = (a: Account): Pick<Terms, 'of' | 'segment'> => {
    const { of, segment: own } = view.termsOf(a, segment).terms;
    return own === undefined ? { of } : { of, segment: own };
  };
  const save = (account: Account, change: Partial<Terms>) => {
    if (!budget) return;
    const terms = new Map<string, Terms>();
    const without: Pick<Terms, 'of' | 'segment'>[] = [];
    for (const a of targets(account)) {
      const { segment: _, ...now } = view.termsOf(a, segment).terms;
      const said: Terms = { ...now, ...change, ...targetOf(a) };
      terms.set(termsKey(said), said);
      // What is said for a group or kind is followed by this line too.
      if (reach.of === 'group' || reach.of === 'kind') without.push({ of: { of: 'account', account: a.id } });
    }
    dispatch({ type: 'setTerms', budget: budget.id, terms: [...terms.values()], without });
  };
  const guessed = rows.filter((r) => r.guess !== null);
  const unsure = guessed.filter((r) => !r.guess!.sure).length;
  return (
    <div className={`${stage.work} ${classes.work}`}>
      <div className={stage.left}>
        <div className={stage.tools}>
          <TextInput
            size="xs"
            aria-label="Find a line"
            placeholder="Find"
            value={sought}
            onChange={(e) => setSought(e.currentTarget.value)}
          />
          <span className="faded">
            {guessed.length === 0
              ? 'All terms were said.'
              : `${guessed.length} of ${rows.length} are guessed${unsure > 0 ? `, ${unsure} of them unsure` : ''}.`}
          </span>
          <span className={stage.push} />
          <Button
            disabled={readOnly || guessed.length === 0}
            title={
              budget?.state === 'draft' ? undefined : 'An approved budget’s terms stay: start a revision'
            }
            onClick={() =>
              budget &&
              dispatch({
                type: 'setTerms',
                budget: budget.id,
                terms: guessed.map((r) => r.terms),
                without: [],
              })
            }
          >
            Take the guesses as they are
          </Button>
        </div>
        <div className={classes.scroll} tabIndex={0} role="region" aria-label="Terms">
          <table className={classes.table}>
            <thead>
              <tr>
                <th />
                <th>Line</th>
                <th>Kind</th>
                <th>Terms</th>
                <th>Tax</th>
                <th className={classes.figure}>Planned ahead</th>
                <th>Where from</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ account: a, terms, guess }) => (
                <tr key={a.id} data-chosen={a.id === chosen}>
                  <td style={{ width: 28 }}>
                    <Checkbox
                      size="xs"
                      aria-label={`${a.name}: change with the others`}
                      checked={checked.includes(a.id)}
                      onChange={(e) =>
                        setChecked(
                          e.currentTarget.checked ? [...checked, a.id] : checked.filter((id) => id !== a.id),
                        )
                      }
                    />
                  </td>
                  <td>
                    <button type="button" className={classes.name} onClick={() => setChosen(a.id)}>
                      {a.name}
                    </button>
                    {tried.has(a.id) && (
                      <>
                        {' '}
                        <TriedMark words={markWords(undefined, tried.get(a.id))} />
                      </>
                    )}
                  </td>
                  <td>{ROW_NAMES[a.kind as 'income']}</td>
                  <td className={guess ? classes.guess : undefined}>
                    {terms.parts
                      .map((p) =>
                        terms.parts.length === 1
                          ? termsWords(p.rule)
                          : `${p.percent}% ${TERMS_NAMES[p.rule.kind].toLowerCase()}`,
                      )
                      .join('; ')}
                  </td>
                  <td>{terms.tax ? `${terms.tax.rate}%` : ''}</td>
                  <td className={classes.figure}>{money.text(minor(planned.get(a.id) ?? 0))}</td>
                  <td className={guess ? classes.guess : undefined}>
                    {guess === null
                      ? SAID[terms.of.of]
                      : `guessed: ${FROM[guess.from]}${guess.sure ? '' : ', unsure'}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      </div>
      <aside
        tabIndex={0}
        className={stage.panel}
        data-open={row !== undefined || undefined}
        aria-label="Terms of the line"
      >
        {row ? (
          <>
            <h2>{row.account.name}</h2>
            <div className="faded" style={{ fontSize: 12.5 }}>
              {targets(row.account).length > 1
                ? `What is changed here is changed for ${targets(row.account).length} lines`
                : row.guess
                  ? 'Guessed: what is changed here is said from then on'
                  : 'Said'}
            </div>
            <ReachSelect
              account={row.account}
              reach={reach}
              segments={
                axis && budget ? budget.segments.map((id) => ({ id, name: segmentName(axis, id) })) : []
              }
              readOnly={readOnly}
              onReach={setReach}
            />
            {row.terms.parts.map((part, k) => (
              <section key={k}>
                {row.terms.parts.length > 1 && <div className="label">{part.percent}% of it</div>}
                <TermsEditor
                  rule={part.rule}
                  accounts={book.accounts}
                  readOnly={readOnly}
                  losses={<AddCost accounts={book.accounts} bears="badDebt" />}
                  onRule={(rule) =>
                    save(row.account, {
                      parts: row.terms.parts.map((p, i) => (i === k ? { ...p, rule } : p)),
                    })
                  }
                />
              </section>
            ))}
            <Parts terms={row.terms} readOnly={readOnly} onParts={(parts) => save(row.account, { parts })} />
            {book.cash.taxes.length > 0 && (
              <section className={classes.row}>
                <NativeSelect
                  label="Tax"
                  disabled={readOnly}
                  value={row.terms.tax?.scheme ?? ''}
                  data={[
                    { value: '', label: 'none' },
                    ...book.cash.taxes.map((t) => ({ value: t.id, label: t.name })),
                  ]}
                  onChange={(e) =>
                    save(row.account, {
                      tax: e.currentTarget.value
                        ? { scheme: e.currentTarget.value, rate: row.terms.tax?.rate ?? percent('10') }
                        : null,
                    })
                  }
                />
                {row.terms.tax && (
                  <PercentInput
                    size="xs"
                    w={90}
                    label="Rate"
                    disabled={readOnly}
                    value={row.terms.tax.rate}
                    onCommit={(rate) => save(row.account, { tax: { ...row.terms.tax!, rate } })}
                  />
                )}
              </section>
            )}
            {budget && row.newer && differs(row.newer.terms, row.terms) && (
              <section aria-label="Newer guess">
                <div className="label">The ledger says by now</div>
                <p className={classes.guess}>
                  {row.newer.terms.parts.map((part) => termsWords(part.rule)).join('; ')}
                </p>
                <Button
                  disabled={readOnly}
                  onClick={() =>
                    dispatch({
                      type: 'setTerms',
                      budget: budget.id,
                      terms: [row.newer!.terms],
                      without: [],
                    })
                  }
                >
                  Take the newer guess
                </Button>
              </section>
            )}
            {budget && row.guess === null && (
              <Button
                mt={10}
                disabled={readOnly}
                onClick={() =>
                  dispatch({
                    type: 'setTerms',
                    budget: budget.id,
                    terms: [],
                    without: targets(row.account).map((a) => said(a)),
                  })
                }
              >
                Back to what is guessed
              </Button>
            )}
            {tryThis && (
              <Button mt={10} onClick={() => tryThis({ of: { terms: row.account.id }, from: null })}>
                Try other days…
              </Button>
            )}
            <LineMoney ground={ground} view={view} account={row.account} />
            <TrialNote ground={ground} view={view} />
          </>
        ) : (
          <>
            <MeasuredNote view={view} />
            <TrialNote ground={ground} view={view} />
            <p className="faded">Choose a line to see and change its terms.</p>
          </>
        )}
      </aside>
    </div>
  );
}

const NONE_TRIED: ReturnType<typeof touching> = new Map();

/** For which lines terms are said. */
type Reach =
  { readonly of: 'line' | 'group' | 'kind' } | { readonly of: 'segment'; readonly segment: SegmentId };

/** Whether what is changed is said for the line, for one of its segments, for its group or its kind. */
function ReachSelect({
  account,
  reach,
  segments,
  readOnly,
  onReach,
}: {
  readonly account: Account;
  readonly reach: Reach;
  readonly segments: readonly { readonly id: SegmentId; readonly name: string }[];
  readonly readOnly: boolean;
  readonly onReach: (reach: Reach) => void;
}) {
  const kind = ROW_NAMES[account.kind as 'income'].toLowerCase();
  return (
    <NativeSelect
      label="Said for"
      disabled={readOnly}
      value={reach.of === 'segment' ? `segment ${reach.segment ?? ''}` : reach.of}
      data={[
        { value: 'line', label: 'this line' },
        ...segments.map((s) => ({ value: `segment ${s.id ?? ''}`, label: `this line in ${s.name}` })),
        ...(account.group === '' ? [] : [{ value: 'group', label: `all of “${account.group}”` }]),
        { value: 'kind', label: `all ${kind}` },
      ]}
      onChange={(e) => {
        const value = e.currentTarget.value;
        if (value.startsWith('segment ')) onReach({ of: 'segment', segment: value.slice(8) || null });
        else onReach({ of: value as 'line' | 'group' | 'kind' });
      }}
    />
  );
}

/** Whether terms say something else of how money goes. */
const differs = (a: Terms, b: Terms): boolean => JSON.stringify(a.parts) !== JSON.stringify(b.parts);

/** The unsure first, then what is guessed, then what was said. */
const doubt = ({ guess }: LineTerms): number => (guess === null ? 0 : guess.sure ? 1 : 2);

/** Parts of a line under rules of their own: two at most are made here, 50 % each, and weighed. */
function Parts({
  terms,
  readOnly,
  onParts,
}: {
  readonly terms: Terms;
  readonly readOnly: boolean;
  readonly onParts: (parts: Terms['parts']) => void;
}) {
  const [first] = terms.parts;
  if (terms.parts.length === 1)
    return (
      <Button
        mt={10}
        disabled={readOnly}
        onClick={() =>
          onParts([
            { ...first!, percent: percent('50') },
            {
              percent: percent('50'),
              rule: { kind: 'atOnce', on: { of: 'monthDay', day: 31 }, moved: 'stays' },
            },
          ])
        }
      >
        Divide into two parts
      </Button>
    );
  return (
    <section className={classes.row}>
      {terms.parts.length === 2 && (
        <PercentInput
          size="xs"
          label="The first part"
          disabled={readOnly}
          value={first!.percent}
          onCommit={(p) => {
            const n = Number(p);
            if (n <= 0 || n >= 100) return;
            onParts([
              { ...first!, percent: p },
              { ...terms.parts[1]!, percent: percent(String(Math.round((100 - n) * 1e6) / 1e6)) },
            ]);
          }}
        />
      )}
      <Button disabled={readOnly} onClick={() => onParts([{ ...first!, percent: percent('100') }])}>
        One part again
      </Button>
    </section>
  );
}
