import { rangeLabel, type Period } from '@/core/calendar';
import type { CellState, HandoutState, HandoutWords } from '@/core/handout';
import type { Ground } from '@/core/ground';
import type { Handout, Return, Round, Said, Stray } from '@/core/model';
import { dayText } from './format';

export const HANDOUT_STATE_WORDS: Readonly<Record<HandoutState, string>> = {
  new: 'not made yet',
  out: 'out',
  late: 'late',
  partly: 'returned in part',
  returned: 'returned',
  merged: 'merged',
};

export const CELL_STATE_WORDS: Readonly<Record<CellState, string>> = {
  same: 'unchanged',
  changed: 'changed',
  agrees: 'already so in the draft',
  blanked: 'made blank',
  left: 'nothing said',
  unread: 'no amount',
  conflict: 'changed by both',
};

export const SAID_WORDS: Readonly<Record<Said, string>> = {
  amount: 'an amount',
  blank: 'blank',
  text: 'words where an amount belongs',
  error: 'an error of a formula',
  date: 'a day where an amount belongs',
  percent: 'a percentage where an amount belongs',
  formula: 'a formula without a saved result: open it once in a spreadsheet program and save it',
};

export const STRAY_WORDS: Readonly<Record<Stray['code'], (what: string) => string>> = {
  notTheirs: (what) => `“${what}” was not handed to them, and is not read.`,
  twice: (what) => `“${what}” stands there twice: the first one counts.`,
  unknownLine: (what) => `“${what}” has a mark of a line that was not handed out.`,
  monthOutside: (what) => `“${what}” is none of the months that were asked for.`,
  label: (what) => `“${what}” is called otherwise than when it was handed out.`,
};

const MONTH_COVER =
  'Fill in the tinted cells of “Please fill”, month by month. Incomes and costs are both plain amounts without a minus; formulas are welcome.';
const WHOLE_COVER =
  'Fill in the tinted cells of “Please fill”: one amount for all months, and how it falls on them. Incomes and costs are both plain amounts without a minus; formulas are welcome.';

/** What a handout says, to people who have no other program than a spreadsheet. */
export const handoutWords = ({ calendar }: Ground): HandoutWords => ({
  title: (round, handout) => `${round.name}: ${handout.to}`,
  cover: (round, _handout, periods) =>
    [
      `${round.asks || 'We'} ${round.asks ? 'asks' : 'ask'} for your figures of ${spanOf(calendar, periods)}${round.due ? `, by ${dayText(round.due)}` : ''}.`,
      round.answer === 'months' ? MONTH_COVER : WHOLE_COVER,
      'An empty cell says nothing, a zero says zero. What has no line yet goes into the free rows at the foot; what we should know goes into “Comment”.',
      ...round.message.split('\n'),
    ].filter((line) => line.trim() !== ''),
  heads: {
    code: 'Code',
    line: 'Line',
    sense: 'Income or cost',
    target: 'Please stay within',
    whole: 'For all months',
    spread: 'How it falls',
    total: 'Total',
    comment: 'Comment',
    note: 'Our note',
  },
  senses: ['Income', 'Cost'],
  spreads: ['Evenly', 'As last year', 'As the draft'],
  sheets: ['Please fill', 'Read me', 'Last year'],
  totals: ['Total income', 'Total costs', 'What is left'],
});

const spanOf = (calendar: Ground['calendar'], periods: readonly Period[]): string =>
  periods.length === 0 ? '' : rangeLabel(calendar, { first: periods[0]!.index, last: periods.at(-1)!.index });

/** Whose return it is and of which day, as the history of every figure tells it. */
export const returnWords = ({ to }: Handout, { at }: Return): string =>
  `${to}’s return of ${dayText(at.slice(0, 10))}`;

/** The message that goes with a handout, or reminds of it. */
export function mailWords(
  ground: Ground,
  round: Round,
  handout: Handout,
  periods: readonly Period[],
  reminds = false,
) {
  const { book, calendar } = ground;
  return {
    subject: `${reminds ? 'Reminder: ' : ''}${book.name}, ${round.name}`,
    text: [
      `Dear ${handout.to},`,
      '',
      ...(reminds ? ['Your answer is not here yet; the file is enclosed once more.', ''] : []),
      ...handoutWords(ground).cover(round, handout, periods),
      '',
      `Please send the file back${round.address ? ` to ${round.address}` : ''}${round.due ? ` by ${dayText(round.due)}` : ''}.`,
      '',
      round.asks,
      `(${spanOf(calendar, periods)})`,
    ].join('\n'),
  };
}
