import { toDayNumber } from '@/core/calendar';
import { numberFormatOf, type NumberFormat } from '@/core/money';
import type { HandoutFile } from '@/core/exchange/handoutFiles';
import {
  handedLines,
  handoutPage,
  linesToHand,
  newHandout,
  roundPeriods,
  type Reading,
} from '@/core/handout';
import type { Ground } from '@/core/ground';
import { cutText, LIMITS, type Budget, type Handout, type Return, type Round } from '@/core/model';
import { now } from '@/platform/clock';
import { download, fileNameOf } from '@/platform/download';
import { Cancelled, readReturned, writeFile } from '@/workers/client';
import { askNumbers } from './asking';
import { dispatch } from './bookStore';
import { groundNow } from './ground';
import { handoutWords, mailWords } from './handoutWords';
import { fileIssueWords } from './fileIssueWords';
import { say } from './session';

export type Sending = {
  readonly as: 'xlsx' | 'csv';
  readonly withMail: boolean;
  readonly reminds: boolean;
};

/** Makes the files of these handouts in a worker, one or in an archive, and notes that they are out. */
export async function sendHandouts(
  ground: Ground,
  round: Round,
  handouts: readonly Handout[],
  { as, withMail, reminds }: Sending,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<void> {
  const { book, calendar } = ground;
  const budget = book.budgets.find((b) => b.id === round.budget);
  if (!budget || handouts.length === 0) return;
  const at = now();
  const periods = roundPeriods(calendar, round);
  const words = handoutWords(ground);
  const names = new Set<string>();
  // The first file has the draft of this moment; a second copy has what the first had.
  const ready = handouts.map((h): Handout => {
    if (h.sent !== null) return h;
    return { ...h, lines: handedLines(ground, budget, round, h.lines) };
  });
  const files = ready.map((handout): HandoutFile => {
    const plain = fileNameOf(`${book.name} ${round.name} ${handout.to}`);
    let name = plain;
    for (let n = 2; names.has(name.toLowerCase()); n++) name = `${plain} ${n}`;
    names.add(name.toLowerCase());
    return {
      name,
      page: handoutPage(ground, budget, round, handout, words),
      as,
      mail: withMail
        ? {
            from: { name: round.asks, address: round.address },
            to: { name: handout.to, address: handout.address },
            ...mailWords(ground, round, handout, periods, reminds),
            at,
            id: `${book.id}-${round.id}-${handout.id}-${at}`,
          }
        : null,
    };
  });
  const { calendarFile } = await import('@/core/exchange/calendarFile');
  const due =
    round.due === null
      ? []
      : [
          {
            name: `${fileNameOf(`${book.name} ${round.name} due`)}.ics`,
            text: calendarFile(
              round.name,
              [
                {
                  uid: `${book.id}-${round.id}@tellan`,
                  day: toDayNumber(round.due),
                  summary: `${round.name}: answers are due`,
                  description: handouts.map((h) => h.to).join(', '),
                },
              ],
              at,
            ),
          },
        ];
  // Messages travel with the day; a file alone stays one.
  const beside = withMail || handouts.length > 1 ? due : [];
  try {
    const bytes = await writeFile({ handouts: { files, beside } }, { onProgress, signal });
    const alone = files.length === 1 && !withMail;
    const name = alone ? `${files[0]!.name}.${as}` : `${fileNameOf(`${book.name} ${round.name}`)}.zip`;
    download(name, bytes, alone ? 'application/octet-stream' : 'application/zip');
    const refused = dispatch({
      type: 'sendHandouts',
      round: round.id,
      handouts: ready.map(({ id, lines }) => ({ id, lines })),
      at,
      reminds,
    });
    if (!refused)
      say(
        alone
          ? `The file for ${handouts[0]!.to} is in your downloads.`
          : `${files.length} ${as === 'xlsx' ? 'workbooks' : 'files'}${withMail ? ' with a message each' : ''} are in your downloads, in one archive.`,
      );
  } catch (error) {
    if (error instanceof Cancelled) say('Nothing was made.');
    else
      say(
        `The files could not be made: ${error instanceof Error ? error.message : String(error)}`,
        'trouble',
      );
  }
}

/**
 * Takes in a table that nobody was asked for, such as a budget made elsewhere: it is read against all lines of the budget, by
 * codes, names and months, and stands beside the draft like any return. Gives where it stands; null where it was refused.
 */
export async function takeTable(
  ground: Ground,
  budget: Budget,
  file: File,
): Promise<{ readonly round: string; readonly handout: string } | null> {
  const { book } = ground;
  const lines = linesToHand(ground, budget, () => true, true);
  if (lines.length === 0) {
    say('The budget has no lines of profit and loss yet.', 'trouble');
    return null;
  }
  const span = { first: budget.first, length: budget.length };
  const round: Round = {
    id: `u${book.nextId}`,
    name: cutText(`Table ${file.name}`, LIMITS.budgetName),
    budget: budget.id,
    asks: '',
    address: '',
    due: null,
    message: '',
    ...span,
    answer: 'months',
    shows: { lastYear: false, draft: true, notes: false },
    handouts: [],
  };
  const to = cutText(file.name, LIMITS.person);
  const handed = newHandout('h1', to, '', handedLines(ground, budget, span, lines));
  const read = await readFor(ground, file, [{ round, handout: handed }]);
  if ('said' in read) {
    say(read.said, 'trouble');
    return null;
  }
  const handout = { ...handed, returns: [read.returned] };
  if (dispatch({ type: 'setRound', round: { ...round, handouts: [handout] } })) return null;
  say(`${file.name}: ${read.returned.lines.length} of ${lines.length} lines of ${budget.name} are in it.`);
  return { round: round.id, handout: handed.id };
}

/** Takes in files that came back; each is known by what it says of itself, else by its lines. `only`: whose they are. */
export async function takeReturns(
  files: readonly File[],
  only: { readonly round: string; readonly handout: string } | null,
): Promise<void> {
  for (const file of files) {
    const ground = groundNow();
    if (!ground) return;
    const text = await takeReturn(ground, file, only);
    say(text.said, text.fine ? 'info' : 'trouble');
  }
}

type Told = { readonly fine: boolean; readonly said: string };
const trouble = (said: string): Told => ({ fine: false, said });

async function takeReturn(
  ground: Ground,
  file: File,
  only: { readonly round: string; readonly handout: string } | null,
): Promise<Told> {
  const { book } = ground;
  const all = book.rounds.flatMap((round) => round.handouts.map((handout) => ({ round, handout })));
  const asked = only ? all.filter((a) => a.round.id === only.round && a.handout.id === only.handout) : all;
  const read = await readFor(ground, file, asked);
  if ('said' in read) return read;
  const { round, handout, returned } = read;
  const refused = dispatch({ type: 'takeReturn', round: round.id, handout: handout.id, returned });
  if (refused)
    return trouble(
      refused.code === 'alreadyTakenIn'
        ? `${file.name} is here already: this very file came before.`
        : `${file.name} could not be taken in. Nothing was changed.`,
    );
  return {
    fine: true,
    said: `${file.name}: ${returned.lines.length} of ${handout.lines.length} lines of ${handout.to}${returned.known === 'names' ? ', known by their names alone' : ''}.`,
  };
}

type Asked = { readonly round: Round; readonly handout: Handout };

/** A file as it is read against those who were asked: whose it is and what it says, or why it is not taken in. */
async function readFor(
  ground: Ground,
  file: File,
  asked: readonly Asked[],
): Promise<Told | (Asked & { readonly returned: Return })> {
  const { book } = ground;
  const request = {
    file,
    accounts: book.accounts,
    calendar: book.calendar,
    currency: book.currency,
    prefer: numberFormatOf(book.locale),
    asks: asked.map(({ round, handout }) => {
      const budget = book.budgets.find((b) => b.id === round.budget);
      return {
        round: round.id,
        handout: handout.id,
        first: round.first,
        length: round.length,
        answer: round.answer,
        axis: book.axes.find((a) => a.id === budget?.axis) ?? null,
        lines: handout.lines,
      };
    }),
  };
  const readBy = (numbers: NumberFormat | null) =>
    readReturned({ ...request, numbers }).catch((error: unknown) => ({
      ok: false as const,
      issue: null,
      message: error instanceof Error ? error.message : String(error),
    }));
  let answer = await readBy(null);
  if (answer.ok && answer.reading?.doubt) {
    const said = await askNumbers(file.name, answer.reading.doubt);
    if (!said) return { fine: true, said: `${file.name} was left out.` };
    answer = await readBy(said);
  }
  if (!answer.ok)
    return trouble(
      `${file.name}: ${answer.issue ? fileIssueWords(answer.issue) : answer.message} Nothing of it was taken in.`,
    );
  const { anchor, ask, reading } = answer;
  if (anchor && anchor.book !== book.id)
    return trouble(`${file.name} was handed out from another book. Nothing of it was taken in.`);
  if (ask === null || !reading)
    return trouble(
      anchor
        ? `${file.name} is of a handout that is not in this book any more, or not the one chosen. Nothing of it was taken in.`
        : `${file.name}: no line and month of it is known. Its lines need their codes or names, and months over its columns.`,
    );
  const { round, handout } = asked[ask]!;
  // Another file, but not another answer: saved again, or sent twice.
  const says = (r: Pick<Reading, 'lines' | 'own'>) =>
    JSON.stringify([r.lines, r.own.map((o) => ({ ...o, done: false }))]);
  const before = handout.returns.find((r) => says(r) === says(reading));
  if (before)
    return trouble(
      `${file.name} says what ${before.fileName} of ${handout.to} said already. Nothing new was taken in.`,
    );
  const returned: Return = {
    fingerprint: answer.fingerprint,
    fileName: cutText(file.name, LIMITS.fileName),
    at: now(),
    merged: null,
    known: reading.known,
    lines: [...reading.lines],
    own: [...reading.own],
    strays: [...reading.strays],
    without: [...reading.without],
  };
  return { round, handout, returned };
}
