'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { indexOfId, type PeriodId } from '@/core/calendar';
import { numberFormatOf } from '@/core/money';
import type { FileIssue } from '@/core/files';
import {
  acceptDraft,
  matchAccounts,
  proofOf,
  type AccountChoice,
  type Draft,
  type Guess,
  type GuessContext,
  type Mapping,
  type Proof,
} from '@/core/intake';
import type { AccountKind } from '@/core/model';
import { Cancelled, FileRefused, IntakeClient } from '@/workers/client';
import type { OpenedFile } from '@/workers/protocol';
import { instant, randomId, today } from './actions';
import { dispatch } from './bookStore';
import type { Ground } from './derived';

export type IntakeState =
  | { readonly phase: 'idle' }
  | { readonly phase: 'reading'; readonly fileName: string; readonly share: number }
  | {
      readonly phase: 'refused';
      readonly fileName: string;
      readonly issue: FileIssue['code'] | null;
      readonly message: string;
    }
  | {
      readonly phase: 'open';
      readonly fileName: string;
      readonly file: OpenedFile;
      readonly guess: Guess;
      readonly mapping: Mapping;
      readonly draft: Draft | null;
      readonly choices: readonly AccountChoice[];
      readonly busy: boolean;
    };

export type Intake = {
  readonly state: IntakeState;
  readonly take: (file: File) => Promise<void>;
  readonly cancel: () => void;
  readonly setMapping: (mapping: Mapping) => void;
  readonly setShape: (shape: Mapping['shape']) => void;
  readonly setSheet: (sheet: number) => void;
  readonly setDelimiter: (delimiter: string) => void;
  readonly setKind: (account: number, kind: AccountKind) => void;
  readonly proof: Proof | null;
  /** Takes the draft into the book in one step; what stood in the way, or null. */
  readonly accept: (replaces: readonly string[], closedThrough: PeriodId | null) => string | null;
};

const NO_CHOICES: readonly AccountChoice[] = [];

/** A file on its way into the open book. Nothing of it is in the book until `accept`. */
export function useIntake(ground: Ground): Intake {
  const { book, calendar, closedThrough } = ground;
  const [state, setState] = useState<IntakeState>({ phase: 'idle' });
  const client = useRef<IntakeClient | null>(null);
  const bytes = useRef<Uint8Array | null>(null);
  const turn = useRef(0);

  useEffect(() => () => client.current?.close(), []);

  const context = (): GuessContext => ({
    numbers: numberFormatOf(book.locale),
    dates: book.locale === 'en-US' ? 'mdy' : 'dmy',
    firstMonth: book.calendar.firstMonth,
    // Months without a year are most likely of the year after what is closed, else of the last full year.
    year:
      closedThrough === null
        ? calendar.period(calendar.indexOfDay(Math.floor(Date.parse(today()) / 86_400_000))).year - 1
        : calendar.period(closedThrough + 1).year,
  });

  const fail = useCallback((fileName: string, error: unknown) => {
    if (error instanceof Cancelled) return;
    setState({
      phase: 'refused',
      fileName,
      issue: error instanceof FileRefused ? error.issue.code : null,
      message: error instanceof Error ? error.message : String(error),
    });
  }, []);

  const redraft = async (
    fileName: string,
    file: OpenedFile,
    guess: Guess,
    mapping: Mapping,
  ): Promise<void> => {
    const mine = ++turn.current;
    setState((s) => ({
      phase: 'open',
      fileName,
      file,
      guess,
      mapping,
      draft: s.phase === 'open' ? s.draft : null,
      choices: s.phase === 'open' ? s.choices : [],
      busy: true,
    }));
    try {
      const draft = await client.current!.draft(mapping, book.currency);
      if (mine !== turn.current) return;
      setState({
        phase: 'open',
        fileName,
        file,
        guess,
        mapping,
        draft,
        choices: matchAccounts(draft, book.accounts),
        busy: false,
      });
    } catch (error) {
      if (mine === turn.current) fail(fileName, error);
    }
  };

  const open = async (fileName: string, delimiter?: string): Promise<void> => {
    client.current?.close();
    client.current = new IntakeClient((share) =>
      setState((s) => (s.phase === 'reading' ? { ...s, share } : s)),
    );
    const mine = ++turn.current;
    setState({ phase: 'reading', fileName, share: 0 });
    try {
      const file = await client.current.open(bytes.current!, context(), delimiter);
      if (mine === turn.current) await redraft(fileName, file, file.guess, file.guess.mapping);
    } catch (error) {
      if (mine === turn.current) fail(fileName, error);
    }
  };

  const take = async (file: File): Promise<void> => {
    try {
      bytes.current = new Uint8Array(await file.arrayBuffer());
    } catch (error) {
      return fail(file.name, error);
    }
    await open(file.name);
  };

  const cancel = () => {
    turn.current++;
    client.current?.close();
    client.current = null;
    bytes.current = null;
    setState({ phase: 'idle' });
  };

  const reguess = async (sheet: number, shape: Mapping['shape'] | null) => {
    if (state.phase !== 'open') return;
    const { fileName, file } = state;
    try {
      const guess = await client.current!.guess(sheet, shape, context());
      await redraft(fileName, file, guess, guess.mapping);
    } catch (error) {
      fail(fileName, error);
    }
  };

  const sheetName = state.phase === 'open' ? (state.file.sheets[state.mapping.sheet]?.name ?? null) : null;
  const draft = state.phase === 'open' ? state.draft : null;
  const choices = state.phase === 'open' ? state.choices : NO_CHOICES;
  const print = state.phase === 'open' ? state.file.fingerprint : '';
  // A pass over every entry: reckoned again only when the draft, the kinds or the book's sources change.
  const proof = useMemo(
    () => (draft ? proofOf(draft, choices, calendar, print, sheetName, book.sources) : null),
    [draft, choices, calendar, print, sheetName, book.sources],
  );

  const accept: Intake['accept'] = (replaces, closed) => {
    if (state.phase !== 'open' || !state.draft) return 'Nothing is open.';
    const accepted = acceptDraft(book, {
      draft: state.draft,
      choices: state.choices,
      fileName: state.fileName,
      fingerprint: state.file.fingerprint,
      sheet: sheetName,
      takenAt: instant(),
      blockId: randomId('l'),
      replaces,
      closedThrough: closed,
    });
    if (!accepted) return 'The file holds no amount that could be taken in.';
    const refusal = dispatch(accepted.command, accepted.block);
    if (refusal)
      return refusal.code === 'alreadyTakenIn'
        ? 'This very file is in the book already.'
        : 'This book can only be read here.';
    cancel();
    return null;
  };

  return {
    state,
    take,
    cancel,
    setMapping: (mapping) =>
      state.phase === 'open' && void redraft(state.fileName, state.file, state.guess, mapping),
    setShape: (shape) => state.phase === 'open' && void reguess(state.mapping.sheet, shape),
    setSheet: (sheet) => void reguess(sheet, null),
    setDelimiter: (delimiter) => state.phase === 'open' && void open(state.fileName, delimiter),
    setKind: (account, kind) =>
      setState((s) =>
        s.phase === 'open'
          ? {
              ...s,
              choices: s.choices.map((c, i) => (i === account ? { ...c, kind, why: 'name', sure: true } : c)),
            }
          : s,
      ),
    proof,
    accept,
  };
}

/** The last period that a file fills, as a proposal for what is closed; never earlier than what is closed already. */
export function proposedClose(ground: Ground, proof: Proof): PeriodId | null {
  const last = proof.months.at(-1)?.period;
  const now =
    ground.book.closedThrough === null ? null : indexOfId(ground.calendar, ground.book.closedThrough);
  if (last === undefined) return ground.book.closedThrough;
  return ground.calendar.period(Math.max(last, now ?? last)).id;
}
