'use client';

import { LIMITS } from '@/core/model';
import { TextInput } from '@mantine/core';
import { initialsOf, setPerson, usePerson } from '@/store/person';
import classes from '../Budget.module.css';

/** The person's name and initials: set once for this browser, and kept with every change. */
export function PersonFields() {
  const { name, initials } = usePerson();
  return (
    <div className={classes.row} style={{ marginTop: 0 }}>
      <TextInput
        label="Your name"
        value={name}
        maxLength={LIMITS.person}
        onChange={(e) => {
          const next = e.currentTarget.value;
          const own = initials !== '' && initials !== initialsOf(name);
          setPerson({ name: next, initials: own ? initials : initialsOf(next) });
        }}
      />
      <TextInput
        label="Initials"
        w={70}
        value={initials}
        maxLength={6}
        onChange={(e) => setPerson({ name, initials: e.currentTarget.value })}
      />
    </div>
  );
}
