import { readFileSync } from 'node:fs';
import { runChecks } from '@/core/checks';
import { calendarFrom } from '@/core/calendar';
import { readFile } from '@/core/files';
import { AUDIT_FILE, PLAIN_AUDIT_FILE } from '@/core/intake/cases/audit';
import { FILE_CASES } from '@/core/intake/cases/files';
import { balancesOf } from '@/core/ledger';
import { openBook } from '@/core/model';
import { randomOf, type Random } from '@/core/test/random';
import { rawZip, sheetOf, workbookParts } from '@/core/test/rawWorkbook';
import { EMPTY, takeFacts, type Taken } from '@/core/test/takeIn';
import { counted, seed, times, within } from './count';

/* Ledger files with something wrong with them: whatever is in them, they come in with a proof that holds, or do not. */

const demo = readFileSync('public/demo/pellow-creek-ledger-fy27-to-october.csv', 'utf8')
  .split('\n')
  .slice(0, 120)
  .join('\n');
const TEXTS: readonly string[] = [
  ...FILE_CASES.map((c) => c.text).filter((t): t is string => typeof t === 'string'),
  AUDIT_FILE,
  PLAIN_AUDIT_FILE,
  demo,
];

const CELLS = [
  '',
  ' ',
  '0',
  '-0',
  '-',
  '–',
  '1e9',
  '1e309',
  'NaN',
  'Infinity',
  '(1)',
  '1,2,3',
  '1.2.3',
  '9'.repeat(13),
  '9'.repeat(16),
  '9'.repeat(40),
  '90071992547409.93',
  '99999999999.99',
  '0.001',
  '-99999999999.99',
  '5%',
  'CR',
  '1 DR',
  'Total',
  'Subtotal for Rent',
  'Opening balance',
  'Balance brought forward',
  'Closing entry year-end',
  '2025-02-30',
  '9999-12-31',
  '0001-01-01',
  '2199-12-31',
  '1/1/1',
  '31/31/2025',
  '45000',
  '29 Feb 2024',
  'FY26 P13',
  '__proto__',
  'constructor',
  '=1+1',
  '\u202e1',
  '\u0000',
  '\ud800',
  'é'.repeat(300),
  'x'.repeat(5000),
  '1'.repeat(5000),
  '9 '.repeat(3000),
  '-'.repeat(5000),
  '1/'.repeat(3000),
  '"',
  '""',
  "'",
];
const REGION = /[\t,;|\n]/g;

/** A file with some of its cells, rows, letters or bytes changed. */
function mutated(text: string, { pick, below, next }: Random): Uint8Array {
  let out = text;
  for (let n = 1 + below(4); n > 0; n--) {
    const lines = out.split('\n');
    const at = below(lines.length);
    switch (below(11)) {
      case 0:
      case 1:
      case 2: {
        // One cell of a row.
        const cuts = [...lines[at]!.matchAll(REGION)].map((m) => m.index);
        const from = cuts.length ? pick([-1, ...cuts]) + 1 : 0;
        const to = cuts.find((c) => c >= from) ?? lines[at]!.length;
        lines[at] = lines[at]!.slice(0, from) + pick(CELLS) + lines[at]!.slice(to);
        break;
      }
      case 3:
        lines.splice(at, 1);
        break;
      case 4:
        lines.splice(at, 0, lines[below(lines.length)]!);
        break;
      case 5:
        lines[at] = lines[at]! + pick([',', ';', '\t', ',,,,,,', '"', ',' + pick(CELLS)]);
        break;
      case 6:
        lines.splice(at, 0, pick(CELLS));
        break;
      case 7:
        lines.length = Math.max(1, at);
        break;
      case 8:
        lines.sort(() => next() - 0.5);
        break;
      case 9:
        lines[at] = lines[at]!.replace(/\d/g, () => String(below(10)));
        break;
      default:
        lines[at] = lines[at]!.slice(0, below(lines[at]!.length + 1));
    }
    out = lines.join(pick(['\n', '\n', '\n', '\r\n', '\r']));
    if (out.length > 400_000) out = out.slice(0, 400_000);
  }
  const bytes = Buffer.from(out, pick(['utf8', 'utf8', 'utf8', 'latin1', 'utf16le']));
  if (below(12) === 0) for (let n = below(8); n >= 0; n--) bytes[below(bytes.length)] = below(256);
  return new Uint8Array(bytes);
}

/** The same rows as a workbook, some of its cells of another kind. */
function asWorkbook(text: string, { pick, below }: Random): Uint8Array {
  const escaped = (t: string) =>
    t.replace(/[^\n\r\t -\ud7ff\ue000-\ufffd]/g, '').replace(/[&<>]/g, (c) => `&#${c.charCodeAt(0)};`);
  const rows = text.split('\n').map((line, r) => {
    const cells = line.split(/[,;\t]/).map((cell, c) => {
      const ref = `${String.fromCharCode(65 + (c % 26))}${r + 1}`;
      const value = below(30) === 0 ? pick(CELLS) : cell;
      const number = value.trim() !== '' && Number.isFinite(Number(value));
      return number
        ? `<c r="${ref}"${below(10) === 0 ? ' s="0"' : ''}><v>${Number(value)}</v></c>`
        : `<c r="${ref}" t="inlineStr"><is><t>${escaped(value)}</t></is></c>`;
    });
    return `<row r="${below(40) === 0 ? below(5000) : r + 1}">${cells.join('')}</row>`;
  });
  const styles = '<styleSheet><cellXfs><xf numFmtId="14"/></cellXfs></styleSheet>';
  return rawZip(workbookParts({ sheet: sheetOf(rows.join('')), styles }));
}

test('mutated ledger files come in with a proof that holds afterwards, or are refused', async () => {
  const random = randomOf(seed(20261125));
  const count = { files: 0, refused: 0, nothing: 0, taken: 0, tied: 0, notTaken: 0, slowest: 0 };
  const broken: unknown[] = [];
  let into: Taken = EMPTY;
  for (let n = 0; n < times(10_000, 250); n++) {
    const text = random.pick(TEXTS);
    const bytes = random.below(8) === 0 ? asWorkbook(text, random) : mutated(text, random);
    count.files++;
    try {
      await within(count, async () => {
        const read = await readFile(bytes);
        if (!read.ok) return void count.refused++;
        // Every third one goes into a book that has something already.
        if (n % 3 !== 0) into = EMPTY;
        const taken = takeFacts(read.file, into);
        if (!taken) return void count.nothing++;
        if (taken.refusal) return void count.notTaken++;
        count.taken++;
        const { book, blocks, proof } = taken;
        const opened = openBook(JSON.parse(JSON.stringify(book)));
        if (!opened.ok || opened.setAside.length > 0) throw new Error('It would not open again as it is');
        const calendar = calendarFrom(book.calendar);
        const checks = runChecks({
          book,
          blocks: new Map(blocks.map((b) => [b.id, b])),
          balances: balancesOf(blocks, calendar),
          budgets: [],
        });
        if (proof.ties) {
          count.tied++;
          const subject = book.sources.at(-1)!.fileName;
          const false_ = checks.filter((c) => !c.holds && (c.subject === subject || c.subject === ''));
          if (false_.length > 0 && (into === EMPTY || false_.some((c) => c.subject === subject)))
            throw new Error(`A false proof: ${JSON.stringify(false_)}`);
        }
        into = book.sources.length < 4 ? taken : EMPTY;
      });
    } catch (error) {
      broken.push([
        n,
        error instanceof Error ? error.stack?.split('\n').slice(0, 4) : error,
        Buffer.from(bytes).toString('utf8').slice(0, 600),
      ]);
      if (broken.length > 5) break;
    }
  }
  counted('mutated ledger files', { ...count, broken: broken.length });
  expect(broken).toEqual([]);
  // What hangs is found, whatever else the machine does meanwhile.
  expect(count.slowest).toBeLessThan(30_000);
  expect(count.taken).toBeGreaterThan(count.files / 4);
}, 3_600_000);
