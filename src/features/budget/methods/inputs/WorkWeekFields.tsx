'use client';

import { TextInput } from '@mantine/core';
import type { MethodOf } from '@/core/model';
import { parseIsoDay } from '@/core/calendar';
import { dispatch } from '@/store/bookStore';
import { Picks, type FieldsProps } from './parts';
import classes from '../../Budget.module.css';

const DAYS = ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su'];

/** The company's working days: of the week, and the holidays; one setting for the whole book. */
export function WorkWeekFields({
  book,
  readOnly,
}: Pick<FieldsProps<MethodOf<'phased'>>, 'book' | 'readOnly'>) {
  const { weekdays, holidays } = book.workWeek;
  return (
    <div className={classes.workWeek}>
      <Picks
        label="Working days of the week"
        names={DAYS.map((name, i) => [i + 1, name] as const)}
        chosen={weekdays}
        disabled={readOnly}
        onChange={(days) => dispatch({ type: 'setWorkWeek', workWeek: { holidays, weekdays: days } })}
      />
      <TextInput
        key={holidays.join()}
        label="Holidays"
        description="Days as 2026-12-25, with spaces between"
        defaultValue={holidays.join(' ')}
        disabled={readOnly}
        onBlur={(e) => {
          const days = e.currentTarget.value
            .split(/[\s,;]+/)
            .map((t) => parseIsoDay(t))
            .filter((d) => d !== null);
          const next = [...new Set(days)].sort();
          if (next.join() !== holidays.join())
            dispatch({ type: 'setWorkWeek', workWeek: { weekdays, holidays: next } });
        }}
      />
    </div>
  );
}
