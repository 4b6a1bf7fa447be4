import type { Minor } from '@/core/money';
import type { Account } from '@/core/model';
import { whyOf } from '@/core/front';
import { cellOf } from '@/core/report';
import type { MoneyFormat } from './format';
import type { MonthFacts } from './monthFacts';

/** A figure as it stands in a message, and the row of the report that has it. */
type FigureTold = { readonly text: string; readonly row: string };

/** What a report says, drafted from its figures; blank where it has no result to tell of. */
export type Drafted = { readonly text: string; readonly figures: readonly FigureTold[] };

const NOTHING: Drafted = { text: '', figures: [] };

/**
 * The message of a month, or of the year to date: what was made, what was to be made, and the line that moved it most. The
 * words for a loss are a loss's.
 */
export function draftMessage(
  { table, net }: MonthFacts,
  accounts: readonly Account[],
  block: 'month' | 'toDate',
  when: string,
  money: MoneyFormat,
  beside: 'budgeted' | 'made a year before' | 'expected',
): Drafted {
  if (!net || net.key !== 'netProfit') return NOTHING;
  const at = (key: string) => cellOf(table, net, `${block}${key}`) as Minor | null;
  const [actual, budget] = [at('Actual'), at('Budget')];
  if (actual === null) return NOTHING;
  const size = (a: Minor) => money.told(Math.abs(a) as Minor);
  const name = (a: Minor) => (a < 0 ? 'loss' : 'profit');
  const figures: FigureTold[] = [{ text: size(actual), row: net.key }];
  let text = `${when}: a ${name(actual)} of ${size(actual)}`;
  if (budget !== null) {
    figures.push({ text: size(budget), row: net.key });
    text += `, where ${name(actual) === name(budget) ? '' : `a ${name(budget)} of `}${size(budget)} was ${beside}`;
  }
  const why = whyOf(table, accounts, block, {});
  // The line that moved it the way it went.
  const most = why.lines.find((l) => why.effect !== 0 && Math.sign(l.effect) === Math.sign(why.effect));
  if (budget !== null && most) {
    const moved = `${money.signed(most.effect)} ${most.effect > 0 ? 'F' : 'U'}`;
    figures.push({ text: moved, row: most.row.key });
    text += `; most by ${most.row.label}, ${moved}`;
  }
  return { text: `${text}.`, figures };
}

/** Where a figure stands by itself: within a longer one it is not it. */
function placeOf(figure: string, text: string): number {
  for (let at = figure === '' ? -1 : text.indexOf(figure); at >= 0; at = text.indexOf(figure, at + 1))
    if (!/[\d.,]/.test(text[at - 1] ?? '') && !/\d/.test(text[at + figure.length] ?? '')) return at;
  return -1;
}

/** A text cut where figures of its report stand in it, so that each can lead to its row. */
export function traced(
  text: string,
  figures: readonly FigureTold[],
): readonly { readonly text: string; readonly row: string | null }[] {
  const out: { text: string; row: string | null }[] = [];
  let rest = text;
  while (rest !== '') {
    const found = figures
      .flatMap((f) => {
        const at = placeOf(f.text, rest);
        return at >= 0 ? [{ at, ...f }] : [];
      })
      .toSorted((a, b) => a.at - b.at || b.text.length - a.text.length)[0];
    if (!found) return [...out, { text: rest, row: null }];
    if (found.at > 0) out.push({ text: rest.slice(0, found.at), row: null });
    out.push({ text: found.text, row: found.row });
    rest = rest.slice(found.at + found.text.length);
  }
  return out;
}
