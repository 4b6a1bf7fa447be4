'use client';

import { useState } from 'react';
import { Button, FileButton } from '@mantine/core';
import { readOpenItems, type OpenFileIssue, type OpenFileRead } from '@/core/cash';
import type { FileFacts } from '@/core/files';
import type { NumberDoubt } from '@/core/intake';
import { numberFormatOf, type NumberFormat } from '@/core/money';
import { cutText, LIMITS, listReplaced, type Book, type OpenItem } from '@/core/model';
import type { Ground } from '@/core/ground';
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
};

/** Takes a list of open invoices, bills or orders in from a file: what is wrong is named by its row before anything changes. */
export function TakeItems({ ground }: { readonly ground: Ground }) {
  const readOnly = useBookStore((s) => s.readOnly);
  const { book } = ground;
  const [asked, setAsked] = useState<Asked | null>(null);
  const take = async (file: File | null, side: OpenItem['side']) => {
    if (!file) return;
    const { readFile } = await import('@/core/files');
    const read = await readFile(new Uint8Array(await file.arrayBuffer()));
    if (!read.ok || read.file.format === 'auditFile')
      return say(`${file.name} is no table of open items (CSV or XLSX). Nothing was changed.`, 'trouble');
    const items = itemsIn(read.file, side, file.name);
    if (!items.ok)
      return say(
        `${file.name} has no column for ${items.missing.map((m) => (m === 'date' ? 'the date' : 'the amount')).join(' and ')}. Nothing was changed.`,
        'trouble',
      );
    setAsked({ name: file.name, side, file: read.file, read: items, doubt: items.doubt, said: null });
  };
  const itemsIn = (file: FileFacts, side: OpenItem['side'], name: string, said?: NumberFormat) =>
    readOpenItems(file, side, name, {
      currency: book.currency,
      accounts: book.accounts,
      numbers: numberFormatOf(book.locale),
      said,
      dates: book.locale === 'en-US' ? 'mdy' : 'dmy',
    });
  const sayNumbers = (said: NumberFormat) => {
    const read = asked && itemsIn(asked.file, asked.side, asked.name, said);
    if (asked && read?.ok) setAsked({ ...asked, read, said });
  };
  const accept = () => {
    if (!asked) return;
    const { items } = asked.read;
    if (takeOpenItems(ground, asked.name, [asked.side], items)) return;
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
            {asked.side === 'in' ? 'owed to us' : 'owed by us'}. They stand in place of the invoices that the
            ledger itself shows on that side.
          </p>
          {asked.doubt && (
            <NumbersChoice
              doubt={asked.doubt}
              text={(a) => moneyFormat(book).exact(a)}
              chosen={asked.said}
              onChoose={sayNumbers}
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

/** The lists that one takes the place of, with how many items each has. */
function listsReplaced(book: Book, { name, side, read }: Asked): (readonly [string, number])[] {
  const from = cutText(name, LIMITS.fileName);
  const count = new Map<string, number>();
  for (const i of listReplaced(book.cash.items, { from, sides: [side], items: read.items }))
    count.set(i.from, (count.get(i.from) ?? 0) + 1);
  return [...count];
}
