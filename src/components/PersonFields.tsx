'use client';

import { Group, TextInput } from '@mantine/core';
import { LIMITS } from '@/core/model';

type Named = { readonly name: string; readonly initials: string };

/** A person's name and initials; the initials follow the name until they are given themselves. */
export function PersonFields({
  person: { name, initials },
  initialsOf,
  onPerson,
}: {
  readonly person: Named;
  readonly initialsOf: (name: string) => string;
  readonly onPerson: (person: Named) => void;
}) {
  return (
    <Group gap={12} align="flex-end">
      <TextInput
        label="Your name"
        data-autofocus
        value={name}
        maxLength={LIMITS.person}
        onChange={(e) => {
          const next = e.currentTarget.value;
          const own = initials !== '' && initials !== initialsOf(name);
          onPerson({ name: next, initials: own ? initials : initialsOf(next) });
        }}
      />
      <TextInput
        label="Initials"
        w={70}
        value={initials}
        maxLength={6}
        onChange={(e) => onPerson({ name, initials: e.currentTarget.value })}
      />
    </Group>
  );
}
