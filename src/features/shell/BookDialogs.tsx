'use client';

import { useState } from 'react';
import { Button, Group, NativeSelect, TextInput } from '@mantine/core';
import { Dialog } from '@/components/Dialog';
import { MONTH_NAMES } from '@/core/calendar';
import { LIMITS, nameWith } from '@/core/model';
import { isCurrencyCode } from '@/core/money';
import { saveRescue } from '@/store/rescueFile';
import {
  createBook,
  deleteBook,
  dispatch,
  duplicateBook,
  useBookStore,
  type ShelfItem,
} from '@/store/bookStore';

export type Unopened = { readonly item: ShelfItem; readonly why: string };
export type Asking = 'new' | 'rename' | 'duplicate' | 'delete' | null;

/** What is asked before something is done with a book; loaded when it is asked first. */
export function BookDialogs({
  dialog,
  unopened,
  onDone: close,
}: {
  readonly dialog: Asking;
  readonly unopened: Unopened | null;
  readonly onDone: () => void;
}) {
  const book = useBookStore((s) => s.history?.book ?? null);
  return (
    <>
      <Dialog opened={dialog === 'new'} onClose={close} title={<span className="title">New book</span>}>
        <NewBookForm onDone={close} />
      </Dialog>
      <Dialog
        opened={unopened !== null}
        onClose={close}
        title={<span className="title">The book was not opened</span>}
      >
        {unopened && <UnopenedBook {...unopened} onDone={close} />}
      </Dialog>
      {book && (
        <>
          <Dialog
            opened={dialog === 'rename'}
            onClose={close}
            title={<span className="title">Rename the book</span>}
          >
            <NameForm
              initial={book.name}
              action="Rename"
              onDone={(name) => (dispatch({ type: 'renameBook', name }), close())}
            />
          </Dialog>
          <Dialog
            opened={dialog === 'duplicate'}
            onClose={close}
            title={<span className="title">Duplicate the book</span>}
          >
            <NameForm
              initial={nameWith(book.name, ', copy', LIMITS.bookName)}
              action="Duplicate"
              onDone={(name) => (void duplicateBook(name), close())}
            />
          </Dialog>
          <Dialog
            opened={dialog === 'delete'}
            onClose={close}
            title={<span className="title">Delete the book</span>}
          >
            <p>
              This removes <b>{book.name}</b> from this browser for good, with its ledger, budgets and
              journal. To keep a copy, save it as a file first.
            </p>
            <NameForm
              initial=""
              must={book.name}
              label="Type the name of the book to delete it"
              action="Delete"
              onDone={() => (void deleteBook(book.id), close())}
            />
          </Dialog>
        </>
      )}
    </>
  );
}

/** A book of which no state can be opened: why, and what can still be done with what is kept of it. */
function UnopenedBook({ item, why, onDone }: Unopened & { readonly onDone: () => void }) {
  return (
    <>
      <p>
        {item.name ? <b>{item.name}</b> : 'This book'} cannot be opened: {why}. Nothing of it was changed, and
        the other books are not touched by it.
      </p>
      <p>All that is kept of it can be saved as a file, for someone who can look into it.</p>
      <Group gap="xs">
        <Button variant="filled" onClick={() => void saveRescue(item)}>
          Save what is kept as a file
        </Button>
        <Button c="var(--bad)" onClick={() => (void deleteBook(item.id), onDone())}>
          Delete it for good
        </Button>
      </Group>
    </>
  );
}

function NameForm({
  initial,
  must,
  label = 'Name',
  action,
  onDone,
}: {
  readonly initial: string;
  readonly must?: string;
  readonly label?: string;
  readonly action: string;
  readonly onDone: (name: string) => void;
}) {
  const [name, setName] = useState(initial);
  const ready = must === undefined ? name.trim() !== '' : name.trim() === must.trim();
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (ready) onDone(name.trim());
      }}
    >
      <TextInput
        data-autofocus
        label={label}
        value={name}
        maxLength={LIMITS.bookName}
        onChange={(e) => setName(e.currentTarget.value)}
        mb="md"
      />
      <Button
        type="submit"
        variant="filled"
        color={must ? '#a8322a' : undefined}
        c={must ? 'white' : undefined}
        disabled={!ready}
      >
        {action}
      </Button>
    </form>
  );
}

const CURRENCIES = [
  'USD',
  'EUR',
  'GBP',
  'CAD',
  'AUD',
  'NZD',
  'JPY',
  'CHF',
  'SEK',
  'NOK',
  'DKK',
  'PLN',
  'CZK',
  'INR',
  'ZAR',
  'MXN',
  'BRL',
  'SGD',
  'KRW',
  'KWD',
];
const LOCALES: readonly (readonly [string, string])[] = [
  ['en-US', '1,234.56 (United States)'],
  ['en-GB', '1,234.56 (United Kingdom)'],
  ['de-DE', '1.234,56 (Germany, Netherlands, Spain)'],
  ['fr-FR', '1 234,56 (France, Sweden, Poland)'],
  ['de-CH', '1’234.56 (Switzerland)'],
  ['ja-JP', '1,234 (Japan)'],
];

function NewBookForm({ onDone }: { readonly onDone: () => void }) {
  const [name, setName] = useState('');
  const [currency, setCurrency] = useState('USD');
  const [locale, setLocale] = useState('en-US');
  const [firstMonth, setFirstMonth] = useState('1');
  const code = currency.trim().toUpperCase();
  const ready = name.trim() !== '' && isCurrencyCode(code);
  return (
    <form
      onSubmit={(e) => {
        e.preventDefault();
        if (!ready) return;
        void createBook({ name: name.trim(), currency: code, locale, firstMonth: Number(firstMonth) });
        onDone();
      }}
    >
      <TextInput
        data-autofocus
        label="Name of the company"
        value={name}
        maxLength={LIMITS.bookName}
        onChange={(e) => setName(e.currentTarget.value)}
        mb="sm"
      />
      <TextInput
        label="Currency"
        description="Three letters (ISO 4217)"
        value={currency}
        list="currencies"
        maxLength={3}
        error={isCurrencyCode(code) ? undefined : 'Three letters, such as USD'}
        onChange={(e) => setCurrency(e.currentTarget.value)}
        mb="sm"
      />
      <datalist id="currencies">
        {CURRENCIES.map((c) => (
          <option key={c} value={c} />
        ))}
      </datalist>
      <NativeSelect
        label="Numbers are written"
        value={locale}
        onChange={(e) => setLocale(e.currentTarget.value)}
        mb="sm"
        data={LOCALES.map(([value, label]) => ({ value, label }))}
      />
      <NativeSelect
        label="First month of the fiscal year"
        value={firstMonth}
        onChange={(e) => setFirstMonth(e.currentTarget.value)}
        mb="md"
        data={MONTH_NAMES.map((m, i) => ({ value: String(i + 1), label: m }))}
      />
      <Button type="submit" variant="filled" disabled={!ready}>
        Make the book
      </Button>
    </form>
  );
}
