import { dateOrderOf, day as dayOfText, toDayNumber, type PeriodId } from '@/core/calendar';
import { numberFormatOf } from '@/core/money';
import {
  acceptDraft,
  basesOf,
  findMonthInText,
  matchAccounts,
  stoodBy,
  type AccountChoice,
  type DraftView,
  type FeedPull,
  type GuessContext,
  type Kept,
  type Mapping,
  type Proof,
  type Shape,
} from '@/core/intake';
import { openBlock } from '@/core/ledger';
import type { Book } from '@/core/model';
import { Cancelled, FileRefused, IntakeClient } from '@/workers/client';
import type { Drafted, IntakeContent, OpenedFile } from '@/workers/protocol';
import { instant, randomId, today } from './actions';
import { dispatch, useBookStore } from './bookStore';
import type { Ground } from '@/core/ground';
import { groundNow } from './ground';
import { refusalWords } from './refusalWords';
import { IDLE, useIntake, type OpenIntake, type PullFacts } from './intakeState';

export { useIntake, type OpenIntake, type PullFacts };

const set = useIntake.setState;
const get = useIntake.getState;

let client: IntakeClient | null = null;
/** The file that is open, to be cut anew at another delimiter. */
let opened: File | null = null;
/** Counts what was asked: an answer that was overtaken is dropped. */
let turn = 0;

const openNow = (): OpenIntake | null => {
  const { now } = get();
  return now.phase === 'open' ? now : null;
};

function contextOf({ book, calendar, closedThrough }: Ground, fileName: string): GuessContext {
  return {
    numbers: numberFormatOf(book.locale),
    dates: dateOrderOf(book.locale),
    calendar: book.calendar,
    // Months without a year are most likely of the year after what is closed, else of the last full year.
    year:
      closedThrough === null
        ? calendar.period(calendar.indexOfDay(toDayNumber(dayOfText(today())))).year - 1
        : calendar.period(closedThrough + 1).year,
    fileName,
    kept: keptOf(book),
  };
}

/** How the book's sources were read, latest last. */
const keptOf = (book: Book): Kept[] =>
  book.sources
    .filter((s) => s.heads !== '' && s.format !== 'feed')
    .map((s) => ({ fileName: s.fileName, heads: s.heads, mapping: s.mapping as unknown as Mapping }));

function fail(fileName: string, error: unknown): void {
  if (error instanceof Cancelled) return;
  set({
    now: {
      phase: 'refused',
      fileName,
      issue: error instanceof FileRefused ? error.issue : null,
      message: error instanceof Error ? error.message : String(error),
    },
    onward: false,
  });
}

/** Takes files up: the first opens, the others wait, in the order of the months that their names name. */
export async function takeFiles(files: readonly File[]): Promise<void> {
  const [first, ...rest] = inOrderOfMonths(files);
  if (!first) return;
  set({ waiting: rest, onward: false, taken: [] });
  await take(first);
}

function inOrderOfMonths(files: readonly File[]): File[] {
  const key = (f: File) => {
    const head = findMonthInText(f.name);
    return head?.of === 'month' ? (head.year ?? 0) * 12 + head.month : (head?.period ?? 0);
  };
  return [...files].sort((a, b) => key(a) - key(b) || a.name.localeCompare(b.name));
}

async function take(file: File): Promise<void> {
  opened = file;
  await open(file.name, { file });
}

/**
 * Opens a pull of the ledger feed like a file and takes it in when it ties and leaves no question. False when it waits
 * on the intake page instead.
 */
export async function takePull(pull: FeedPull, name: string, closes: PeriodId | null): Promise<boolean> {
  opened = null;
  set({ waiting: [], onward: true, taken: [] });
  await open(name, { pull }, undefined, { cursor: pull.company.last, closes });
  set({ onward: false });
  return get().taken.includes(name);
}

async function open(
  fileName: string,
  content: IntakeContent,
  delimiter?: string,
  pull: PullFacts | null = null,
): Promise<void> {
  const mine = ++turn;
  client?.close();
  client = new IntakeClient((share) =>
    set((s) => (s.now.phase === 'reading' ? { now: { ...s.now, share } } : s)),
  );
  set({ now: { phase: 'reading', fileName, share: 0 } });
  const ground = groundNow();
  if (!ground) return;
  try {
    const { file, drafted } = await client.open(
      content,
      contextOf(ground, fileName),
      ground.book.currency,
      ground.book.accounts,
      delimiter,
    );
    if (mine === turn) await show(fileName, file, drafted, pull, mine);
  } catch (error) {
    if (mine === turn) fail(fileName, error);
  }
}

async function show(
  fileName: string,
  file: OpenedFile,
  { guess, draft, heads, choices }: Drafted,
  pull: PullFacts | null,
  mine: number,
): Promise<void> {
  const before = openNow();
  const same = before && sameAccounts(before.draft, draft);
  set({
    now: {
      phase: 'open',
      fileName,
      file,
      guess,
      mapping: guess.mapping,
      heads,
      draft,
      // What the person said of accounts stays while the accounts do.
      choices: same ? before.choices : choices,
      proof: null,
      here: 0,
      busy: true,
      pull,
      datesSaid: before?.file.fingerprint === file.fingerprint && before.datesSaid,
    },
  });
  await prove(mine);
}

const sameAccounts = (a: DraftView, b: DraftView): boolean =>
  a.accounts.length === b.accounts.length &&
  a.accounts.every((x, i) => x.code === b.accounts[i]!.code && x.name === b.accounts[i]!.name);

async function prove(mine: number): Promise<void> {
  const now = openNow();
  const ground = groundNow();
  if (!now || !ground || !client) return;
  const { draft, choices, file, fileName } = now;
  try {
    const proof = await client.prove(choices, {
      calendar: ground.book.calendar,
      fingerprint: file.fingerprint,
      sheet: sheetName(now),
      // Pulls of the feed follow one another by number: days that two of them share are no overlap.
      sources: now.pull ? ground.book.sources.filter((s) => s.format !== 'feed') : ground.book.sources,
      range: ground.balances.range,
      bases: basesOf(draft.baseline, choices, ground.balances, ground.calendar, ground.book.accounts),
      stood: stoodBy(draft, choices, ground.balances, ground.calendar, ground.book.accounts),
    });
    if (mine !== turn) return;
    const here = proof.overlapping.length === 0 ? 0 : await countHere(client, ground, choices, proof);
    if (mine !== turn) return;
    set((s) => (s.now.phase === 'open' ? { now: { ...s.now, proof, here, busy: false } } : s));
    if (get().onward) await goOnward(proof);
  } catch (error) {
    if (mine === turn) fail(fileName, error);
  }
}

/** Sources with some of the file's days may hold some of its entries. */
function countHere(
  from: IntakeClient,
  { book, blocks }: Ground,
  choices: readonly AccountChoice[],
  { overlapping }: Proof,
): Promise<number> {
  const wanted = new Set(overlapping.map((s) => s.block));
  const columns = blocks
    .filter((b) => wanted.has(b.id))
    .map(({ accounts, count, account, day, amount }) => ({ accounts, count, account, day, amount }));
  return from.here(choices, columns, book.merged);
}

/** The sheet that a source is known by: none where all sheets of a workbook make one source. */
function sheetName({ mapping, file }: OpenIntake): string | null {
  if (mapping.shape === 'balances' && mapping.sheets.length > 1) return null;
  return file.sheets[mapping.sheet]?.name ?? null;
}

/** Asks the worker anew after a correction; what is on the page stays until the answer is there. */
async function again(ask: (c: IntakeClient, ground: Ground) => Promise<Drafted>): Promise<void> {
  const now = openNow();
  const ground = groundNow();
  if (!now || !client || !ground) return;
  const mine = ++turn;
  set({ now: { ...now, busy: true } });
  try {
    const drafted = await ask(client, ground);
    if (mine === turn) await show(now.fileName, now.file, drafted, now.pull, mine);
  } catch (error) {
    if (mine === turn) fail(now.fileName, error);
  }
}

export const setMapping = (mapping: Mapping): void => {
  const now = openNow();
  if (!now) return;
  set({ now: { ...now, mapping, busy: true } });
  void again((c, { book }) => c.draft(now.guess, mapping, book.currency, book.calendar));
};

/** Says how dates are written: there is no going on before, when both ways are possible. */
export function chooseDates(dates: Extract<Mapping, { shape: 'entries' }>['dates']): void {
  const now = openNow();
  if (now?.mapping.shape !== 'entries') return;
  set({ now: { ...now, datesSaid: true } });
  setMapping({ ...now.mapping, dates });
}

export const setShape = (shape: Shape): void =>
  void again((c, ground) => {
    const { mapping, fileName } = openNow()!;
    return c.guess(mapping.sheet, shape, contextOf(ground, fileName), ground.book.currency);
  });

export const setSheet = (sheet: number): void =>
  void again((c, ground) =>
    c.guess(sheet, null, contextOf(ground, openNow()!.fileName), ground.book.currency),
  );

export const setDelimiter = (delimiter: string): void => {
  const now = openNow();
  if (now && opened) void open(now.fileName, { file: opened }, delimiter, now.pull);
};

/** Says what becomes of an account of the file, and proves anew. */
export function setChoice(account: number, change: Partial<AccountChoice>): void {
  const now = openNow();
  if (!now) return;
  const choices = now.choices.map((c, i) => (i === account ? { ...c, sure: true, ...change } : c));
  set({ now: { ...now, choices, busy: true } });
  void prove(++turn);
}

/** Takes every guess as it stands. */
export function acceptGuesses(): void {
  const now = openNow();
  if (now) set({ now: { ...now, choices: now.choices.map((c) => ({ ...c, sure: true })) } });
}

/** Leaves the present file out and goes on with the next that waits. */
export function leaveOut(): void {
  const [next, ...rest] = get().waiting;
  stop();
  if (next) {
    set((s) => ({ ...s, waiting: rest }));
    void take(next);
  }
}

/** Stops all intake: nothing of the present file stays, and none that waits is opened. */
export function cancelIntake(): void {
  stop();
  set({ ...IDLE, taken: get().taken });
}

function stop(): void {
  turn++;
  client?.close();
  client = null;
  opened = null;
  set({ now: { phase: 'idle' } });
}

export type AcceptOptions = {
  readonly replaces: readonly string[];
  readonly closedThrough: PeriodId | null;
  /** Why a file that does not tie is accepted all the same. */
  readonly reason: string;
};

/** Takes the open file into the book in one step and opens the next that waits; what stood in the way, or null. */
export async function acceptIntake({
  replaces,
  closedThrough,
  reason,
}: AcceptOptions): Promise<string | null> {
  const now = openNow();
  const { history, readOnly } = useBookStore.getState();
  if (!now || !now.proof || now.busy || !client || !history) return 'Nothing is open.';
  if (readOnly) return 'This book can only be read here.';
  const { proof } = now;
  let settled;
  try {
    settled = await client.finish();
  } catch (error) {
    fail(now.fileName, error);
    return error instanceof Error ? error.message : String(error);
  }
  // Loaded when a month is closed: the reckoning of money is not for the first screen.
  const { keptByClosing } = await import('@/core/ground/closing');
  const ground = groundNow();
  const keeps = ground ? keptByClosing(ground, closedThrough) : {};
  const accepted = acceptDraft(history.book, {
    draft: now.draft,
    choices: now.choices,
    settled,
    format: now.file.format,
    heads: now.heads,
    fileName: now.fileName,
    fingerprint: now.file.fingerprint,
    sheet: sheetName(now),
    takenAt: instant(),
    blockId: randomId('l'),
    replaces,
    closedThrough,
    ...keeps,
    controls: proof.controls.length,
    oneSided: proof.oneSided,
    untied: proof.ties ? null : { faults: proof.faults, reason },
    cursor: now.pull?.cursor ?? null,
  });
  const onward = get().onward;
  const [next, ...rest] = get().waiting;
  stop();
  // Whatever the way to it was, what would not open again does not go in.
  const sound = accepted && openBlock(accepted.block);
  const refusal = sound ? dispatch(accepted.command, sound, reason) : null;
  const taken = !sound || refusal ? get().taken : [...get().taken, now.fileName];
  set({ waiting: rest, taken, onward: onward && next !== undefined });
  if (next) void take(next);
  if (!accepted) return 'The file holds no amount that could be taken in.';
  if (!sound) return 'With what the book has taken off, some of its amounts are larger than any can be.';
  return refusal ? refusalWords(refusal, history.book) : null;
}

/** Takes this file and, while they tie and leave no question, those that wait. */
export function acceptOnward(options: AcceptOptions): Promise<string | null> {
  set({ onward: true });
  return acceptIntake(options);
}

async function goOnward(proof: Proof): Promise<void> {
  const now = openNow();
  const ground = groundNow();
  if (!now || !ground) return;
  const clear =
    proof.ties &&
    proof.same === null &&
    proof.overlapping.length === 0 &&
    now.choices.every((c) => c.sure) &&
    now.guess.doubts.length === 0;
  if (!clear) return set({ onward: false });
  await acceptIntake({ replaces: [], closedThrough: proposedClose(ground, proof, now.pull), reason: '' });
}

/**
 * A file on its way belongs to the book it was opened in: with another book it goes, and when accounts, sources or
 * the calendar change beneath it (an undo, say), it is matched and proved anew.
 */
useBookStore.subscribe(({ history }, before) => {
  const [book, was] = [history?.book, before.history?.book];
  if (!was || book === was || get().now.phase === 'idle') return;
  if (book?.id !== was.id) return cancelIntake();
  const now = openNow();
  const same =
    book.accounts === was.accounts && book.sources === was.sources && book.calendar === was.calendar;
  if (!now || same) return;
  const ids = new Set(book.accounts.map((a) => a.id));
  const stale = now.choices.some((c) => c.existing !== null && !ids.has(c.existing));
  const choices = stale ? matchAccounts(now.draft, book.accounts) : now.choices;
  set({ now: { ...now, choices, busy: true } });
  void prove(++turn);
});

/** The last period that a file fills, as a proposal for what is closed; never earlier than what is closed already. */
export function proposedClose(ground: Ground, proof: Proof, pull: PullFacts | null = null): PeriodId | null {
  if (pull) return pull.closes;
  const last = proof.months.at(-1)?.period;
  const { calendar, closedThrough: now } = ground;
  if (last === undefined) return ground.book.closedThrough;
  return calendar.period(Math.max(last, now ?? last)).id;
}
