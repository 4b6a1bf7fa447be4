'use client';

import { Button, NativeSelect } from '@mantine/core';
import type { Question, OutcomeId } from '@/core/whatif';
import { OUTCOME_WORDS } from '@/store/caseWords';
import type { Asking } from '@/store/questions';
import type { CaseLook } from './useCases';

/** Which case a question is about. */
export const CaseChoice = ({
  cases,
  one,
  onCase,
}: {
  readonly cases: readonly CaseLook[];
  readonly one: CaseLook;
  readonly onCase: (id: string) => void;
}) => (
  <NativeSelect
    aria-label="Case"
    value={one.case.id}
    data={cases.map((c) => ({ value: c.case.id, label: c.case.name }))}
    onChange={(e) => onCase(e.currentTarget.value)}
  />
);

/** Which outcome a question is about. */
export const OutcomeChoice = ({
  of,
  outcome,
  onOutcome,
}: {
  readonly of: readonly OutcomeId[];
  readonly outcome: OutcomeId;
  readonly onOutcome: (id: OutcomeId) => void;
}) => (
  <NativeSelect
    aria-label="Outcome"
    value={outcome}
    data={of.map((o) => ({ value: o, label: OUTCOME_WORDS[o] }))}
    onChange={(e) => onOutcome(e.currentTarget.value as OutcomeId)}
  />
);

/** How far a question is, with what stops it; or why it has no answer. */
export function Waits({
  asking,
  onStop,
}: {
  readonly asking: Asking<Question['ask']>;
  readonly onStop?: () => void;
}) {
  if (asking.state === 'failed')
    return (
      <p className="faded" role="alert">
        It could not be reckoned: {asking.why}
      </p>
    );
  if (asking.state !== 'asking') return null;
  return (
    <p className="faded" role="status">
      It is being reckoned… {asking.share > 0 && `${Math.floor(asking.share * 100)}%`}{' '}
      {onStop && (
        <Button size="compact-xs" onClick={onStop}>
          Stop
        </Button>
      )}
    </p>
  );
}
