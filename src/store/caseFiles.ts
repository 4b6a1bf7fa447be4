import type { CaseIssue } from '@/core/exchange/caseFile';
import type { Ground } from '@/core/ground';
import { download, fileNameOf } from '@/platform/download';
import { dispatch } from './bookStore';
import { say } from './session';

/** Saves what is tried as a file that another book can take in. */
export async function exportCases({ book }: Ground): Promise<void> {
  const { caseFile } = await import('@/core/exchange/caseFile');
  download(`${fileNameOf(`${book.name} cases`)}.cases.json`, caseFile(book), 'application/json');
  say('The cases are in your downloads.');
}

const WORDS: Readonly<Record<Exclude<CaseIssue['code'], 'invalid'>, string>> = {
  notJson: 'it is not JSON text, or it was cut off',
  notCases: 'it holds no cases',
  newerVersion: 'it was written by a newer version of Tellan',
  noSuchAccount: 'no account',
  noSuchRow: 'no row',
  noSuchDriver: 'no driver',
  noSuchItem: 'no dated item',
  noSuchSegment: 'no segment',
  otherCurrency: 'money in',
};

/** No file of cases is larger. */
const MOST_BYTES = 10_000_000;

/** Takes the cases of a file in, as one change; says what came of it. */
export async function importCases({ book }: Ground, file: File): Promise<void> {
  const { readCases } = await import('@/core/exchange/caseFile');
  const refused = (why: string) =>
    say(`${file.name} was not taken in: ${why}. Nothing was changed.`, 'trouble');
  if (file.size > MOST_BYTES) return refused('it is too large to be a list of cases');
  const { adjustments, cases, issues } = readCases(await file.text(), book);
  const left = issues.flatMap((i) =>
    'adjustment' in i ? [`“${i.adjustment}” (${WORDS[i.code]} “${i.name}”)`] : [],
  );
  const [first] = issues;
  if (first && !('adjustment' in first))
    return refused(
      first.code === 'invalid'
        ? `one of its values is not as it must be (at ${first.path || 'the top'}: ${first.message})`
        : WORDS[first.code],
    );
  if (adjustments.length === 0)
    return refused(`the book has nothing that it names: ${left.slice(0, 3).join(', ')}`);
  if (dispatch({ type: 'takeCases', adjustments, cases }, undefined, file.name)) return;
  const more = left.length > 3 ? ` and ${left.length - 3} more` : '';
  say(
    `${adjustments.length} ${adjustments.length === 1 ? 'adjustment is' : 'adjustments are'} taken in${
      left.length === 0 ? '' : `, without ${left.slice(0, 3).join(', ')}${more}`
    }.`,
    left.length === 0 ? 'info' : 'trouble',
  );
}
