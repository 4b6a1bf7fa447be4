'use client';

import { useState } from 'react';
import { Button, Group, NativeSelect, Stack, TextInput } from '@mantine/core';
import { LIMITS, type Account, type RowItem } from '@/core/model';
import { PanelButton } from '@/components/Opens';
import classes from '../ReportGrid.module.css';

/** A row that someone put where it stands: what it is, and where it goes. */
export function OwnRow({
  own,
  place,
  accounts,
  onOwn,
}: {
  readonly own: readonly RowItem[];
  readonly place: number;
  readonly accounts: readonly Account[];
  readonly onOwn: (own: RowItem[]) => void;
}) {
  const item = own[place];
  if (!item) return null;
  const put = (row: RowItem) => onOwn(own.map((r, i) => (i === place ? row : r)));
  const insert = (row: RowItem) => onOwn([...own.slice(0, place + 1), row, ...own.slice(place + 1)]);
  const move = (by: number) => {
    const next = own.filter((_, i) => i !== place);
    next.splice(place + by, 0, item);
    onOwn(next);
  };
  const full = own.length >= LIMITS.layoutRows;
  const first = accounts[0];
  return (
    <PanelButton
      width={280}
      button={
        <button type="button" tabIndex={-1} className={classes.headButton} aria-label="Change this row">
          ⋯
        </button>
      }
    >
      <Stack gap={6}>
        {(item.row === 'heading' || item.row === 'total' || item.row === 'range') && (
          <NameField key={item.name} name={item.name} onName={(name) => put({ ...item, name })} />
        )}
        {item.row === 'total' && (
          <NativeSelect
            label="Adds"
            value={item.over}
            data={[
              { value: 'section', label: 'What stands since the last total or heading' },
              { value: 'all', label: 'Everything above it' },
            ]}
            onChange={(e) => put({ ...item, over: e.currentTarget.value as 'section' | 'all' })}
          />
        )}
        {item.row === 'account' && (
          <NativeSelect
            label="Account"
            value={item.account}
            data={accounts.map((a) => ({ value: a.id, label: `${a.code} ${a.name}`.trim() }))}
            onChange={(e) => put({ row: 'account', account: e.currentTarget.value })}
          />
        )}
        {item.row === 'range' && (
          <Group gap={4} grow>
            <NameField label="From" name={item.from} onName={(from) => put({ ...item, from })} />
            <NameField label="To" name={item.to} onName={(to) => put({ ...item, to })} />
          </Group>
        )}
        <Group gap={4}>
          <Button disabled={place === 0} onClick={() => move(-1)}>
            ↑ Up
          </Button>
          <Button disabled={place === own.length - 1} onClick={() => move(1)}>
            ↓ Down
          </Button>
          <Button disabled={own.length === 1} onClick={() => onOwn(own.filter((_, i) => i !== place))}>
            Take away
          </Button>
        </Group>
        <div className="label">Below it</div>
        <Group gap={4}>
          <Button disabled={full} onClick={() => insert({ row: 'heading', name: 'Heading' })}>
            Heading
          </Button>
          <Button disabled={full} onClick={() => insert({ row: 'total', name: 'Total', over: 'section' })}>
            Total
          </Button>
          <Button disabled={full} onClick={() => insert({ row: 'blank' })}>
            Blank line
          </Button>
          <Button
            disabled={full || !first}
            onClick={() => first && insert({ row: 'account', account: first.id })}
          >
            Account
          </Button>
          <Button
            disabled={full || !first}
            onClick={() =>
              first && insert({ row: 'range', from: first.code, to: accounts.at(-1)!.code, name: '' })
            }
          >
            Range of codes
          </Button>
          {item.row === 'account' && <GroupButtons item={item} accounts={accounts} onInsert={insert} />}
        </Group>
      </Stack>
    </PanelButton>
  );
}

/** The group and the kind of the account at hand, as rows of their own. */
function GroupButtons({
  item,
  accounts,
  onInsert,
}: {
  readonly item: Extract<RowItem, { row: 'account' }>;
  readonly accounts: readonly Account[];
  readonly onInsert: (row: RowItem) => void;
}) {
  const account = accounts.find((a) => a.id === item.account);
  if (!account) return null;
  return (
    <>
      {account.group && (
        <Button onClick={() => onInsert({ row: 'group', kind: account.kind, group: account.group })}>
          Group {account.group}
        </Button>
      )}
      <Button onClick={() => onInsert({ row: 'kind', kind: account.kind })}>All of its kind</Button>
    </>
  );
}

function NameField({
  label = 'Name',
  name: kept,
  onName,
}: {
  readonly label?: string;
  readonly name: string;
  readonly onName: (name: string) => void;
}) {
  const [name, setName] = useState(kept);
  const keep = () => name !== kept && onName(name);
  return (
    <TextInput
      label={label}
      value={name}
      maxLength={LIMITS.rowName}
      onChange={(e) => setName(e.currentTarget.value)}
      onBlur={keep}
      onKeyDown={(e) => e.key === 'Enter' && keep()}
    />
  );
}
