'use client';

import { useRef, useState } from 'react';
import { Button, Group, Menu, Modal, NativeSelect, TextInput } from '@mantine/core';
import { MONTH_NAMES } from '@/core/calendar';
import { isCurrencyCode } from '@/core/money';
import { openBookFile, saveBookFile, saveRescue } from '@/store/bookFile';
import {
  addDemoBook,
  createBook,
  deleteBook,
  dispatch,
  duplicateBook,
  openKept,
  useBookStore,
  type ShelfItem,
} from '@/store/bookStore';
import { LIMITS, nameWith } from '@/core/model';
import { say } from '@/store/session';
import { issueWords } from './words';
import classes from './Shell.module.css';

type Unopened = { readonly item: ShelfItem; readonly why: string };
type Dialog = 'new' | 'rename' | 'duplicate' | 'delete' | null;

/** The open book's name, and everything that can be done with books. */
export function BookMenu() {
  const book = useBookStore((s) => s.history?.book ?? null);
  const shelf = useBookStore((s) => s.shelf);
  const [dialog, setDialog] = useState<Dialog>(null);
  const [unopened, setUnopened] = useState<Unopened | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const close = () => setDialog(null);
  const openOr = async (item: ShelfItem) => {
    const opening = await openKept(item.id);
    if (opening.ok) return;
    setUnopened({ item, why: issueWords(opening.issue) });
  };

  return (
    <>
      <Menu position="bottom-start" width={290} shadow="sm" transitionProps={{ duration: 0 }}>
        <Menu.Target>
          <button
            type="button"
            className={classes.bookButton}
            aria-label={`Book: ${book?.name ?? 'none open'}`}
          >
            {book?.name ?? 'No book open'} ▾
          </button>
        </Menu.Target>
        <Menu.Dropdown>
          {shelf.map((s) => (
            <Menu.Item key={s.id} fw={s.id === book?.id ? 600 : 400} onClick={() => void openOr(s)}>
              {s.unreadable ? `A book that cannot be read (${s.id})` : s.name}
              {s.id === book?.id ? ' ✓' : ''}
            </Menu.Item>
          ))}
          <Menu.Divider />
          <Menu.Item onClick={() => setDialog('new')}>New book…</Menu.Item>
          <Menu.Item onClick={() => file.current?.click()}>Open a book file…</Menu.Item>
          <Menu.Item onClick={() => void addDemoBook()}>Add the demo book afresh</Menu.Item>
          {book && (
            <>
              <Menu.Divider />
              <Menu.Item onClick={() => void saveBookFile()}>Save the book as a file</Menu.Item>
              <Menu.Item onClick={() => setDialog('rename')}>Rename…</Menu.Item>
              <Menu.Item onClick={() => setDialog('duplicate')}>Duplicate…</Menu.Item>
              <Menu.Item c="var(--bad)" onClick={() => setDialog('delete')}>
                Delete…
              </Menu.Item>
            </>
          )}
        </Menu.Dropdown>
      </Menu>
      <input
        ref={file}
        type="file"
        accept=".json"
        hidden
        aria-label="Book file"
        onChange={async (e) => {
          const [chosen] = e.currentTarget.files ?? [];
          e.currentTarget.value = '';
          if (!chosen) return;
          const trouble = await openBookFile(chosen);
          if (trouble) say(trouble, 'trouble');
          else say(`${chosen.name} is open.`);
        }}
      />
      <Modal opened={dialog === 'new'} onClose={close} title={<span className="title">New book</span>}>
        <NewBookForm onDone={close} />
      </Modal>
      <Modal
        opened={unopened !== null}
        onClose={() => setUnopened(null)}
        title={<span className="title">The book was not opened</span>}
      >
        {unopened && <UnopenedBook {...unopened} onDone={() => setUnopened(null)} />}
      </Modal>
      {book && (
        <>
          <Modal
            opened={dialog === 'rename'}
            onClose={close}
            title={<span className="title">Rename the book</span>}
          >
            <NameForm
              initial={book.name}
              action="Rename"
              onDone={(name) => (dispatch({ type: 'renameBook', name }), close())}
            />
          </Modal>
          <Modal
            opened={dialog === 'duplicate'}
            onClose={close}
            title={<span className="title">Duplicate the book</span>}
          >
            <NameForm
              initial={nameWith(book.name, ', copy', LIMITS.bookName)}
              action="Duplicate"
              onDone={(name) => (void duplicateBook(name), close())}
            />
          </Modal>
          <Modal
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
          </Modal>
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
