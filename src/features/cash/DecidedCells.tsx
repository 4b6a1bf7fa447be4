import type { ReactNode } from 'react';
import { TextInput } from '@mantine/core';
import { fromDayNumber, type Day, type DayNumber } from '@/core/calendar';
import { LIMITS, type ItemChange } from '@/core/model';
import { CellSelect } from '@/components/CellSelect';
import { DayInput } from '@/components/DayInput';
import { instant } from '@/store/actions';
import { dispatch } from '@/store/bookStore';
import { recordedName } from '@/store/person';
import classes from './Cash.module.css';

type State = ItemChange['state'];

/** Something expected of which someone may decide the day, whether it counts, and why. */
type Decided = {
  readonly key: string;
  readonly expected: DayNumber;
  readonly state: State;
  readonly change: ItemChange | null;
};

/** The cells of a row in which that is decided: day, state, reason. What is as it would be by itself is no decision. */
export function DecidedCells({
  item,
  plainState,
  states,
  labels,
  hasDay = true,
  beside = null,
  readOnly,
}: {
  readonly item: Decided;
  /** The state that it has while nobody decides anything of it. */
  readonly plainState: State;
  readonly states: readonly { readonly value: State; readonly label: string }[];
  readonly labels: { readonly day: string; readonly state: string; readonly reason: string };
  readonly hasDay?: boolean;
  /** What stands beside the day. */
  readonly beside?: ReactNode;
  readonly readOnly: boolean;
}) {
  const decide = (to: Partial<ItemChange>) => {
    const was = item.change ?? { day: null, state: item.state, reason: '' };
    const next: ItemChange = { ...was, ...to, by: recordedName(), at: instant() };
    const plain = next.day === null && next.state === plainState;
    dispatch({ type: 'setItemChanges', changes: [{ key: item.key, change: plain ? null : next }] });
  };
  return (
    <>
      <td className={classes.oneLine}>
        {hasDay && (
          <DayInput
            aria-label={labels.day}
            variant="unstyled"
            w={118}
            disabled={readOnly}
            value={fromDayNumber(item.expected)}
            onCommit={(day: Day | null) => decide({ day })}
          />
        )}
        {beside}
      </td>
      <td>
        <CellSelect
          aria-label={labels.state}
          value={item.state}
          disabled={readOnly}
          data={states}
          onChange={(e) => decide({ state: e.currentTarget.value as State })}
        />
      </td>
      <td>
        {item.change && (
          <TextInput
            key={item.change.at}
            aria-label={labels.reason}
            variant="unstyled"
            size="xs"
            placeholder="why"
            maxLength={LIMITS.reason}
            disabled={readOnly}
            defaultValue={item.change.reason}
            onBlur={(e) => {
              const reason = e.currentTarget.value.trim();
              if (reason !== item.change!.reason) decide({ reason });
            }}
          />
        )}
      </td>
    </>
  );
}
