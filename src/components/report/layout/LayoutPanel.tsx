'use client';

import { useState } from 'react';
import { Button, FileButton, Group, Stack, TextInput } from '@mantine/core';
import type { Ground } from '@/core/ground';
import { LIMITS, nameWith } from '@/core/model';
import { shippedLayout } from '@/core/report';
import { PanelButton } from '@/components/Opens';
import type { LayoutInUse } from './inUse';
import classes from './Layout.module.css';

/** The reports of a book: which one is shown, its name, its copies, and its way in and out as a file. */
export function LayoutPanel({
  ground,
  inUse,
  readOnly,
}: {
  readonly ground: Ground;
  readonly inUse: LayoutInUse;
  readonly readOnly: boolean;
}) {
  const { book } = ground;
  const { all, layout, choose, change } = inUse;
  const kept = book.layouts.some((l) => l.id === layout.id);
  const ships = shippedLayout(layout.id) !== null;
  const groups = [...new Set(all.map((l) => l.group))];
  const own = book.layouts.filter((l) => shippedLayout(l.id) === null);
  const at = own.findIndex((l) => l.id === layout.id);
  return (
    <PanelButton width={320} button={<Button aria-label={`Layout: ${layout.name}`}>{layout.name} ▾</Button>}>
      <Stack gap={6}>
        <div className={classes.list} role="listbox" aria-label="Layouts" tabIndex={0}>
          {groups.map((group) => (
            <div key={group} role="group" aria-label={group || 'Layouts'}>
              {group && <div className="label">{group}</div>}
              {all
                .filter((l) => l.group === group)
                .map((l) => (
                  <button
                    key={l.id}
                    type="button"
                    role="option"
                    aria-selected={l.id === layout.id}
                    className={classes.choice}
                    onClick={() => choose(l.id)}
                  >
                    {l.name}
                  </button>
                ))}
            </div>
          ))}
        </div>
        {!readOnly && (
          <>
            <Group gap={4} grow align="end">
              <TextField
                key={`n${layout.id}${layout.name}`}
                label="Name"
                text={layout.name}
                most={LIMITS.layoutName}
                onText={(name) => name.trim() !== '' && change({ name: name.trim() })}
              />
              <TextField
                key={`g${layout.id}${layout.group}`}
                label="Group"
                text={layout.group}
                most={LIMITS.group}
                onText={(group) => change({ group: group.trim() })}
              />
            </Group>
            <Group gap={4}>
              <Button
                disabled={book.layouts.length >= LIMITS.layouts}
                onClick={() => inUse.duplicate(nameWith(layout.name, ', copy', LIMITS.layoutName))}
              >
                Duplicate
              </Button>
              {at >= 0 && (
                <>
                  <Button disabled={at === 0} onClick={() => inUse.move(own[at - 1]!.id)}>
                    ↑ Up
                  </Button>
                  <Button
                    disabled={at === own.length - 1}
                    onClick={() => inUse.move(own[at + 2]?.id ?? null)}
                  >
                    ↓ Down
                  </Button>
                </>
              )}
              {kept && <Button onClick={inUse.remove}>{ships ? 'As it ships' : 'Take away'}</Button>}
            </Group>
          </>
        )}
        <Group gap={4}>
          <Button onClick={inUse.save}>Save as a file</Button>
          {!readOnly && (
            <FileButton accept=".json,application/json" onChange={(f) => f && inUse.takeIn(f)}>
              {(props) => <Button {...props}>Take in a file…</Button>}
            </FileButton>
          )}
        </Group>
      </Stack>
    </PanelButton>
  );
}

function TextField({
  label,
  text: kept,
  most,
  onText,
}: {
  readonly label: string;
  readonly text: string;
  readonly most: number;
  readonly onText: (text: string) => void;
}) {
  const [text, setText] = useState(kept);
  const keep = () => text !== kept && onText(text);
  return (
    <TextInput
      label={label}
      value={text}
      maxLength={most}
      onChange={(e) => setText(e.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
    />
  );
}
