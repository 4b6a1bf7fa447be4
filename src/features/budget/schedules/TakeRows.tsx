'use client';

import { dateOrderOf } from '@/core/calendar';
import { useState } from 'react';
import { Button, Checkbox, FileButton } from '@mantine/core';
import type { Ground, Reckoned } from '@/core/ground';
import type { FileFacts } from '@/core/files';
import type { NumberDoubt } from '@/core/intake';
import { numberFormatOf, type NumberFormat } from '@/core/money';
import { readScheduleRows, type FileKind, type RowFileIssue, type RowFileRead } from '@/core/schedule';
import { NumbersChoice } from '@/components/NumbersChoice';
import { TakeDialog } from '@/components/TakeDialog';
import { moneyFormat } from '@/store/format';
import { dispatch } from '@/store/bookStore';
import { ROW_FAULT_WORDS } from '@/store/refusalWords';
import { say } from '@/store/session';
import { accountsOfKind, NEEDS, newRow } from '@/store/newRow';
import { closedOn, putRows } from './scheduleEdits';

const WORDS: Record<RowFileIssue['code'], string> = {
  noName: 'there is no name',
  noAmount: 'an amount is missing or cannot be read',
  noDate: 'a day is missing or cannot be read',
  noRate: 'a rate is missing or cannot be read',
  noLife: 'a number of months or payments cannot be read',
  unknownAccount: 'the book has no such account',
  unknownWord: 'it is not said per what',
  twice: 'there already',
  ...ROW_FAULT_WORDS,
};
const LISTS: Record<FileKind, string> = {
  staff: 'a list of staff: a name or position, and pay',
  loan: 'a list of loans: a name, what is owed, and a rate',
  asset: 'a register of assets: a name, what it cost, and when it was bought',
};

type Asked = {
  readonly name: string;
  readonly file: FileFacts;
  readonly read: Extract<RowFileRead, { ok: true }>;
  /** Numbers that can be read two ways, and how it was said that they are. */
  readonly doubt: NumberDoubt | null;
  readonly said: NumberFormat | null;
};

/** Takes a staff list, a loan list or an asset register in from a file: what is wrong is named by its row before anything changes. */
export function TakeRows({
  ground,
  reckoned,
  kind,
  readOnly,
  onTaken,
}: {
  readonly ground: Ground;
  readonly reckoned: Reckoned;
  readonly kind: FileKind;
  readonly readOnly: boolean;
  readonly onTaken: (first: string) => void;
}) {
  const { book } = ground;
  const { budget } = reckoned;
  const [asked, setAsked] = useState<Asked | null>(null);
  const [alone, setAlone] = useState(true);
  const [replaces, setReplaces] = useState(false);
  const take = async (file: File | null) => {
    if (!file) return;
    const accounts = accountsOfKind(book, kind);
    const missing = NEEDS[kind].must.filter((p) => !accounts[p]);
    if (missing.length > 0)
      return say('The book lacks the accounts for these rows. Add one row by hand first.', 'trouble');
    const { readFile } = await import('@/core/files');
    const read = await readFile(new Uint8Array(await file.arrayBuffer()));
    if (!read.ok || read.file.format === 'auditFile')
      return say(`${file.name} is no table (CSV or XLSX). Nothing was changed.`, 'trouble');
    const rows = rowsIn(read.file);
    if (!rows.ok)
      return say(
        `${file.name} is not ${LISTS[kind]}: no column for ${rows.missing.join(', ')}. Nothing was changed.`,
        'trouble',
      );
    setAsked({ name: file.name, file: read.file, read: rows, doubt: rows.doubt, said: null });
  };
  const rowsIn = (file: FileFacts, said?: NumberFormat) =>
    readScheduleRows(
      file,
      kind,
      newRow(kind, 'r', reckoned, accountsOfKind(book, kind)),
      {
        currency: book.currency,
        accounts: book.accounts,
        numbers: numberFormatOf(book.locale),
        said,
        dates: dateOrderOf(book.locale),
        closed: closedOn(reckoned.facts),
      },
      (i) => `r${book.nextId + i}`,
    );
  const sayNumbers = (said: NumberFormat) => {
    const read = asked && rowsIn(asked.file, said);
    if (asked && read?.ok) setAsked({ ...asked, read, said });
  };
  const accept = () => {
    if (!asked) return;
    const { rows } = asked.read;
    const gone = replaces ? budget.schedules.filter((r) => r.kind === kind).map((r) => r.id) : [];
    if (dispatch(putRows(budget, reckoned, rows, { replaces: gone, said: asked.name, alone }))) return;
    say(`${rows.length} rows of ${asked.name} taken in. Ctrl+Z takes them back.`);
    onTaken(rows[0]!.id);
    setAsked(null);
  };
  const there = budget.schedules.some((r) => r.kind === kind);
  return (
    <>
      <FileButton
        accept=".csv,.txt,.tsv,.xlsx"
        onChange={(f) => void take(f)}
        inputProps={{ 'aria-label': `File with ${LISTS[kind]}` }}
      >
        {(props) => (
          <Button {...props} disabled={readOnly}>
            From a file…
          </Button>
        )}
      </FileButton>
      {asked && (
        <TakeDialog
          name={asked.name}
          count={asked.read.rows.length}
          issues={asked.read.issues}
          words={WORDS}
          ready={asked.doubt === null || asked.said !== null}
          onAccept={accept}
          onClose={() => setAsked(null)}
        >
          <p>
            {asked.read.rows.length} {asked.read.rows.length === 1 ? 'row' : 'rows'} can be taken in.
          </p>
          {asked.doubt && (
            <NumbersChoice
              doubt={asked.doubt}
              text={(a) => moneyFormat(book).exact(a)}
              chosen={asked.said}
              onChoose={sayNumbers}
            />
          )}
          <Checkbox
            mb={6}
            label="These are all: the lines that they make have nothing else in them"
            checked={alone}
            onChange={(e) => setAlone(e.currentTarget.checked)}
          />
          {there && (
            <Checkbox
              mb={6}
              label="They stand in place of the rows that are there"
              checked={replaces}
              onChange={(e) => setReplaces(e.currentTarget.checked)}
            />
          )}
        </TakeDialog>
      )}
    </>
  );
}
