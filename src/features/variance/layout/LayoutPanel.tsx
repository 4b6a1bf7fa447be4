'use client';

import { useState } from 'react';
import { Button, FileButton, Group, Stack, TextInput } from '@mantine/core';
import type { Ground } from '@/core/ground';
import { LIMITS, nameWith, type Layout } from '@/core/model';
import { shippedLayout } from '@/core/report';
import { PanelButton } from '@/components/Opens';
import { dispatch } from '@/store/bookStore';
import { exportLayouts, importLayouts } from '@/store/layoutFiles';
import { nextLayoutId } from '@/store/layoutIds';
import { say } from '@/store/session';
import classes from './Layout.module.css';

/** The reports of a book: which one is shown, its name, its copies, and its way in and out as a file. */
export function LayoutPanel({
  ground,
  all,
  layout,
  readOnly,
  onChoose,
}: {
  readonly ground: Ground;
  readonly all: readonly Layout[];
  readonly layout: Layout;
  readonly readOnly: boolean;
  readonly onChoose: (id: string) => void;
}) {
  const { book } = ground;
  const kept = book.layouts.some((l) => l.id === layout.id);
  const ships = shippedLayout(layout.id) !== null;
  const groups = [...new Set(all.map((l) => l.group))];
  const own = book.layouts.filter((l) => shippedLayout(l.id) === null);
  const at = own.findIndex((l) => l.id === layout.id);
  const put = (change: Partial<Layout>) =>
    dispatch({ type: 'putLayouts', layouts: [{ ...layout, ...change }] });
  const take = async (file: File | null) => {
    if (!file) return;
    const { layouts, word, trouble } = await importLayouts(ground, file);
    say(word, trouble ? 'trouble' : 'info');
    if (layouts[0]) onChoose(layouts[0]);
  };
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
                    onClick={() => onChoose(l.id)}
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
                onText={(name) => name.trim() !== '' && put({ name: name.trim() })}
              />
              <TextField
                key={`g${layout.id}${layout.group}`}
                label="Group"
                text={layout.group}
                most={LIMITS.group}
                onText={(group) => put({ group: group.trim() })}
              />
            </Group>
            <Group gap={4}>
              <Button
                disabled={book.layouts.length >= LIMITS.layouts}
                onClick={() => {
                  const id = nextLayoutId(book);
                  const name = nameWith(layout.name, ', copy', LIMITS.layoutName);
                  if (!dispatch({ type: 'putLayouts', layouts: [{ ...layout, id, name }] })) onChoose(id);
                }}
              >
                Duplicate
              </Button>
              {at >= 0 && (
                <>
                  <Button
                    disabled={at === 0}
                    onClick={() =>
                      dispatch({ type: 'moveLayout', layout: layout.id, before: own[at - 1]!.id })
                    }
                  >
                    ↑ Up
                  </Button>
                  <Button
                    disabled={at === own.length - 1}
                    onClick={() =>
                      dispatch({
                        type: 'moveLayout',
                        layout: layout.id,
                        before: own[at + 2]?.id ?? null,
                      })
                    }
                  >
                    ↓ Down
                  </Button>
                </>
              )}
              {kept && (
                <Button
                  onClick={() => {
                    dispatch({ type: 'removeLayout', layout: layout.id });
                    say(
                      ships
                        ? `“${layout.name}” is as it ships again. Ctrl+Z takes it back.`
                        : `“${layout.name}” is taken away. Ctrl+Z brings it back.`,
                    );
                  }}
                >
                  {ships ? 'As it ships' : 'Take away'}
                </Button>
              )}
            </Group>
          </>
        )}
        <Group gap={4}>
          <Button onClick={() => void exportLayouts(ground, [layout])}>Save as a file</Button>
          {!readOnly && (
            <FileButton accept=".json,application/json" onChange={(f) => void take(f)}>
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
