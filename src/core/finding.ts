/** A text without what tells capitals and ways of writing a letter apart. */
const plain = (text: string): string => text.normalize('NFKC').toLowerCase();

const LETTER = /[\p{L}\p{N}]/u;

/** Whether words of a text begin with each of some words. */
function begins(text: string, words: readonly string[]): boolean {
  return words.every((word) => {
    for (let at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1))
      if (at === 0 || !LETTER.test(text[at - 1]!)) return true;
    return false;
  });
}

/**
 * Those of a list that somebody looks for: whose words begin with what was typed, each of its words; only where there is none,
 * those that have it somewhere within ("rent" is the rent, and no current account; "berth" still finds "Winterberths").
 * Nothing typed: all of them.
 */
export function found<T>(all: readonly T[], textOf: (one: T) => string, typed: string): readonly T[] {
  const words = plain(typed).split(/\s+/).filter(Boolean);
  if (words.length === 0) return all;
  const texts = all.map((one) => plain(textOf(one)));
  const first = all.filter((_, i) => begins(texts[i]!, words));
  return first.length > 0 ? first : all.filter((_, i) => words.every((w) => texts[i]!.includes(w)));
}
