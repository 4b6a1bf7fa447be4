import type { Ground } from '@/core/ground';
import { LIMITS, nameWith, type Layout } from '@/core/model';
import type { LayoutIssue } from '@/core/exchange/layoutFile';
import { download, fileNameOf } from '@/platform/download';
import { dispatch } from './bookStore';
import { nextLayoutId } from './layoutIds';
import { refusalWords } from './refusalWords';
import { say } from './session';

/** Saves layouts as a file that another book can take in. */
export async function exportLayouts({ book }: Ground, layouts: readonly Layout[]): Promise<void> {
  const { layoutFile } = await import('@/core/exchange/layoutFile');
  download(`${fileNameOf(layouts[0]!.name)}.layout.json`, layoutFile(book, layouts), 'application/json');
  say('The layout is in your downloads.');
}

const WORDS: Readonly<Record<Exclude<LayoutIssue['code'], 'invalid'>, string>> = {
  notJson: 'it is not JSON text, or it was cut off',
  notALayout: 'it is not a layout',
  newerVersion: 'it was written by a newer version of Tellan',
  noSuchAccount: 'no account',
  noSuchSegments: 'no segments',
  noSuchBudget: 'no budget',
};

/** Takes the layouts of a file in, each as one of the book's own; what came of it in words. */
export async function importLayouts(
  { book }: Ground,
  file: File,
): Promise<{ readonly layouts: readonly string[]; readonly word: string; readonly trouble: boolean }> {
  const { readLayouts } = await import('@/core/exchange/layoutFile');
  const refused = (why: string) => ({
    layouts: [],
    word: `${file.name} was not taken in: ${why}. Nothing was changed.`,
    trouble: true,
  });
  if (file.size > MOST_BYTES) return refused('it is too large to be a layout');
  const read = readLayouts(await file.text(), book);
  const [first] = read.issues;
  if (read.layouts.length === 0)
    return refused(
      first?.code === 'invalid'
        ? `one of its values is not as it must be (at ${first.path || 'the top'}: ${first.message})`
        : WORDS[first?.code ?? 'notALayout'],
    );
  const names = new Set(book.layouts.map((l) => l.name));
  const layouts = read.layouts.map((l, i) => ({
    ...l,
    id: nextLayoutId(book, i),
    name: names.has(l.name) ? nameWith(l.name, ', taken in', LIMITS.layoutName) : l.name,
  }));
  const no = dispatch({ type: 'putLayouts', layouts });
  if (no) return refused(refusalWords(no, book));
  const missing = read.issues.map((i) => ('name' in i ? `${WORDS[i.code]} “${i.name}”` : ''));
  return {
    layouts: layouts.map((l) => l.id),
    word:
      missing.length === 0
        ? `“${layouts[0]!.name}” is taken in.`
        : `“${layouts[0]!.name}” is taken in without what the book has not: ${missing.slice(0, 3).join(', ')}${missing.length > 3 ? ` and ${missing.length - 3} more` : ''}.`,
    trouble: missing.length > 0,
  };
}

/** No file of layouts is larger. */
const MOST_BYTES = 5_000_000;
