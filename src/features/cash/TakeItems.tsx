'use client';

import { useState } from 'react';
import { Button, Checkbox, FileButton } from '@mantine/core';
import { dateOrderOf, fromDayNumber, type Day } from '@/core/calendar';
import { readOpenItems, type OpenFileIssue, type OpenFileRead, type ReadItem } from '@/core/cash';
import type { FileFacts } from '@/core/files';
import type { NumberDoubt } from '@/core/intake';
import { numberFormatOf, type NumberFormat } from '@/core/money';
import { cutText, LIMITS, listReplaced, type Book, type OpenItem } from '@/core/model';
import type { Ground } from '@/core/ground';
import { DayInput } from '@/components/DayInput';
import { NumbersChoice } from '@/components/NumbersChoice';
import { TakeDialog } from '@/components/TakeDialog';
import { moneyFormat } from '@/store/format';
import { takeOpenItems } from '@/store/openItems';
import { useBookStore } from '@/store/bookStore';
import { say } from '@/store/session';

const WORDS: Record<OpenFileIssue['code'], string> = {
  noDate: 'a date is missing or cannot be read',
  dueBeforeDated: 'due before it is dated',
  noAmount: 'an amount is missing or cannot be read',
  otherCurrency: 'in another currency',
  twice: 'there already',
  unknownAccount: 'the book has no such account',
  openBeyondAmount: 'more is open than it came to',
};

type Asked = {
  readonly name: string;
  readonly side: OpenItem['side'];
  readonly file: FileFacts;
  readonly read: Extract<OpenFileRead, { ok: true }>;
  /** Numbers that can be read two ways, and how it was said that they are. */
  readonly doubt: NumberDoubt | null;
  readonly said: NumberFormat | null;
  /** Negative amounts are of the other side. */
  readonly bySign: boolean;
  /** The day that the list is of. */
  readonly day: Day;
};

/** Takes a list of open invoices, bills or orders in from a file: what is wrong is named by its row before anything changes. */
export function TakeItems({ ground, start }: { readonly ground: Ground; readonly start: number }) {
  const closed = fromDayNumber(start);
  const readOnly = useBookStore((s) => s.readOnly);
  const { book } = ground;
  const [asked, setAsked] = useState<Asked | null>(null);
  const take = async (file: File | null, side: OpenItem['side']) => {
    if (!file) return;
    const { readFile } = await import('@/core/files');
    const read = await readFile(new Uint8Array(await file.arrayBuffer()));
    if (!read.ok || read.file.format === 'auditFile')
      return say(`${file.name} is no table of open items (CSV or XLSX). Nothing was changed.`, 'trouble');
    const items = itemsIn({ file: read.file, side, name: file.name, said: null, bySign: false });
    if (!items.ok)
      return say(
        `${file.name} has no column for ${items.missing.map((m) => (m === 'date' ? 'the date' : 'the amount')).join(' and ')}. Nothing was changed.`,
        'trouble',
      );
    setAsked({
      name: file.name,
      side,
      file: read.file,
      read: items,
      doubt: items.doubt,
      said: null,
      bySign: false,
      day: items.day ?? closed,
    });
  };
  const itemsIn = ({
    file,
    side,
    name,
    said,
    bySign,
  }: Pick<Asked, 'file' | 'side' | 'name' | 'said' | 'bySign'>) =>
    readOpenItems(file, side, name, {
      currency: book.currency,
      accounts: book.accounts,
      numbers: numberFormatOf(book.locale),
      ...(said ? { said } : {}),
      dates: dateOrderOf(book.locale),
      bySign,
    });
  /** Reads the file once more, as something is said of it. */
  const sayOf = (more: Partial<Pick<Asked, 'said' | 'bySign'>>) => {
    const next = asked && { ...asked, ...more };
    const read = next && itemsIn(next);
    if (next && read?.ok) setAsked({ ...next, read });
  };
  const accept = () => {
    if (!asked) return;
    const { items } = asked.read;
    if (takeOpenItems(ground, asked.name, sidesOf(asked), items, asked.day)) return;
    say(`${items.length} items of ${asked.name} taken in. Ctrl+Z takes them back.`);
    setAsked(null);
  };
  const lists = asked ? listsReplaced(book, asked) : [];
  return (
    <>
      {(['in', 'out'] as const).map((side) => (
        <FileButton
          key={side}
          accept=".csv,.txt,.tsv,.xlsx"
          onChange={(f) => void take(f, side)}
          inputProps={{ 'aria-label': side === 'in' ? 'File of open invoices' : 'File of open bills' }}
        >
          {(props) => (
            <Button {...props} disabled={readOnly}>
              {side === 'in' ? 'Invoices from a file…' : 'Bills from a file…'}
            </Button>
          )}
        </FileButton>
      ))}
      {asked && (
        <TakeDialog
          name={asked.name}
          count={asked.read.items.length}
          issues={asked.read.issues}
          words={WORDS}
          ready={asked.doubt === null || asked.said !== null}
          onAccept={accept}
          onClose={() => setAsked(null)}
        >
          <p>
            {asked.read.items.length} {asked.read.items.length === 1 ? 'item' : 'items'} can be taken in,{' '}
            {sidesOf(asked)
              .map((s) => `${sumWords(asked, s)} ${s === 'in' ? 'owed to us' : 'owed by us'}`.trim())
              .join(' and ')}
            {asked.read.apart && `, told apart by ${APART[asked.read.apart]}`}. They stand in place of the
            invoices that the ledger itself shows up to the day of the list.
          </p>
          {asked.read.bothSigns && (
            <Checkbox
              mb={8}
              label={`Negative amounts are owed ${asked.side === 'in' ? 'by' : 'to'} us (otherwise they are credit notes)`}
              checked={asked.bySign}
              onChange={(e) => sayOf({ bySign: e.currentTarget.checked })}
            />
          )}
          <DayInput
            label="The list is of"
            description="The end of this day: what was invoiced and paid after it comes from the ledger’s entries."
            w={320}
            mb={8}
            value={asked.day}
            onCommit={(day: Day | null) => day && setAsked({ ...asked, day })}
          />
          {decidedWords(asked.read.items) && <p>{decidedWords(asked.read.items)}</p>}
          {asked.doubt && (
            <NumbersChoice
              doubt={asked.doubt}
              text={(a) => moneyFormat(book).exact(a)}
              chosen={asked.said}
              onChoose={(said) => sayOf({ said })}
            />
          )}
          {lists.length > 0 && (
            <p>
              The list that stands there now goes:{' '}
              {lists
                .map(([from, count]) => `${count} ${count === 1 ? 'item' : 'items'} of ${from}`)
                .join(', ')}
              . What was decided of items that are in both stays.
            </p>
          )}
        </TakeDialog>
      )}
    </>
  );
}

const APART = {
  account: 'the accounts they name',
  side: 'what their rows say',
  sign: 'the sign',
} as const;

/** The sides that a list speaks of: where its rows tell none, the one that was asked for. */
function sidesOf({ side, read }: Pick<Asked, 'side' | 'read'>): readonly OpenItem['side'][] {
  const met = (['in', 'out'] as const).filter((s) => read.items.some((i) => i.side === s));
  return met.length > 0 ? met : [side];
}

/** How many items of a side there are; of a list of one side alone nothing has to be counted. */
const sumWords = (asked: Asked, side: OpenItem['side']): string =>
  sidesOf(asked).length > 1 ? String(asked.read.items.filter((i) => i.side === side).length) : '';

/** What the file says was decided of its items. */
function decidedWords(items: readonly ReadItem[]): string {
  const said = items.flatMap((i) => (i.said ? [i.said] : []));
  if (said.length === 0) return '';
  const moved = said.filter((c) => c.day !== null).length;
  const off = said.filter((c) => c.state !== 'counted').length;
  const noted = said.filter((c) => c.reason !== '').length;
  const words = [
    moved > 0 && `${moved} with a day they are expected on`,
    off > 0 && `${off} held or left out`,
    noted > 0 && `${noted} with a note`,
  ].filter(Boolean);
  return `The file says of some what was decided: ${words.join(', ')}. It goes before what stood in the book.`;
}

/** The lists that one takes the place of, with how many items each has. */
function listsReplaced(book: Book, { name, side, read }: Asked): (readonly [string, number])[] {
  const from = cutText(name, LIMITS.fileName);
  const count = new Map<string, number>();
  for (const i of listReplaced(book.cash.items, {
    from,
    sides: sidesOf({ side, read }),
    items: read.items,
  }))
    count.set(i.from, (count.get(i.from) ?? 0) + 1);
  return [...count];
}
