import { minorDigits, type Minor } from '@/core/money';
import { toDayNumber, type DayNumber } from '@/core/calendar';
import { BlockBuilder } from '@/core/ledger';
import { cellText, isBlankRow, rowsOf, type Grid, type GridCell } from '@/core/files';
import { cutText, LIMITS } from '@/core/model';
import { nameKey, splitAccountCell } from './accountCell';
import { RowLog, type Control, type Draft, type DraftAccount, type LeftOutReason } from './draft';
import { guessKind, kindByWords, schemeOf } from './guessKind';
import type { MonthsMapping } from './mapping';
import { amountIssue, readAmount } from './readCell';
import { TOTAL_WORDS } from './sign';

const NET =
  /^(net|gross)\b.*\b(profit|loss|income|margin|result|surplus|deficit|earnings)|^(surplus|deficit|operating (profit|income|result|surplus)|profit|result)\b|^gross margin|^change in net assets/i;

type Row = {
  readonly number: number;
  readonly code: string;
  readonly name: string;
  readonly values: readonly (Minor | null)[];
  readonly total: Minor | null;
};

/** Reads a file of one row an account with the months across. Amounts keep the file's signs. */
export function readMonths(
  grid: Grid,
  mapping: MonthsMapping,
  currency: string,
  onProgress?: (share: number) => void,
): Draft {
  const rows = rowsOf(grid, onProgress);
  const log = new RowLog();
  const months = mapping.columns.flatMap((c, i) =>
    c.as === 'month' ? [{ column: i, day: toDayNumber(c.day) }] : [],
  );
  const totalColumn = mapping.columns.findIndex((c) => c.as === 'total');
  const builder = new BlockBuilder(rows.length * Math.max(1, months.length));
  const list: { row: Row; sections: readonly string[] }[] = [];
  const controls: Control[] = [];
  const read = rowReader(mapping, minorDigits(currency), months, totalColumn, log);
  const coded = rows.slice(mapping.headerRow + 1).filter((r) => read.account(r).code !== '').length;
  const summed = totalNames(rows, read.account);
  const scheme = schemeOf(rows.slice(mapping.headerRow + 1).map(read.account));
  const outline = new Outline(summed);
  const guesses = new Map<number, DraftAccount['guess']>();
  /** Headings after the last figure: perhaps only the foot of the page. */
  let trailing: number[] = [];

  rows.forEach((cells, i) => {
    const number = i + 1;
    if (i <= mapping.headerRow) return log.top(i, mapping.headerRow);
    if (isBlankRow(cells)) return log.leaveOut('blank', number);
    const { code, name } = read.account(cells);
    const amounts = read.amounts(cells, number);
    if (amounts === 'unreadable') return;
    const row: Row = { number, code, name, ...amounts };
    const empty = row.values.every((v) => v === null);
    if (empty && row.total === null) {
      // Text without a figure is a heading, and so is an account that a total below adds up; any other account with a
      // code and no figure said nothing this year.
      if (code !== '' && !isSummed(row)) return addAccount(row);
      outline.heading(
        [code, name].filter(Boolean).join(' ') || cellText(cells.find((c) => cellText(c) !== '')),
        list.length,
        read.indent(cells),
      );
      trailing.push(number);
      return;
    }
    for (const heading of trailing) log.leaveOut('heading', heading);
    trailing = [];
    const total = totalOf(row);
    if (total) {
      controls.push(total);
      return log.leaveOut('total', number);
    }
    if (name === '' && code === '') {
      log.leaveOut('noAccount', number);
      return log.issue({ code: 'noAccount', row: number, column: 1, value: '' });
    }
    // An account with figures of its own above its sub-accounts is part of what their total adds up.
    if (isSummed(row))
      outline.heading([code, name].filter(Boolean).join(' '), list.length, read.indent(cells));
    addAccount(row);
  });
  for (const row of trailing) log.leaveOut(list.length > 0 ? 'footer' : 'heading', row);
  onProgress?.(1);

  function isSummed({ code, name }: Row): boolean {
    return summed.has(nameKey(`${code} ${name}`)) || (name !== '' && summed.has(nameKey(name)));
  }

  function addAccount(row: Row): void {
    const place = list.length;
    list.push({ row, sections: outline.sections() });
    row.values.forEach((v, m) => {
      if (v !== null) builder.add(months[m]!.day, place, v, row.number);
    });
    if (row.total !== null && row.values.some((v) => v !== null))
      controls.push({
        row: row.number,
        label: row.name,
        over: [place],
        mode: 'sum',
        theirs: [{ day: null, value: row.total }],
      });
    log.use(row.number);
  }

  /** What a total row adds up: by arithmetic where that decides, by its words otherwise; null for an account. */
  function totalOf(row: Row): Control | null {
    const words = TOTAL_WORDS.test(row.name) || NET.test(row.name);
    if (row.code !== '' && !words) return null;
    const candidates = outline.candidates(row.name, list.length);
    const ties = candidates.find((c) => c.over.length > 0 && matches(row, c.over, c.mode));
    // An account may be called a total (“Total Gas supplies”); its code says that it is one.
    if (row.code !== '' && !ties) return null;
    if (!words) {
      // Without a word that says so, a row is a total only if it lacks the code that others have, or stands
      // under at least two rows that it adds up to in every month.
      if (!ties || ties.over.length < 2 || (coded === 0 && row.values.every((v) => !v))) return null;
    }
    const chosen = ties ?? candidates[0]!;
    outline.total(row.name, list.length);
    const theirs = row.values.flatMap((v, m) =>
      v === null ? [] : [{ day: months[m]!.day as DayNumber | null, value: v }],
    );
    if (row.total !== null) theirs.push({ day: null, value: row.total });
    return { row: row.number, label: row.name, over: chosen.over, mode: chosen.mode, theirs };
  }

  function matches(row: Row, over: readonly number[], mode: 'sum' | 'net'): boolean {
    return row.values.every((v, m) => {
      let t = 0;
      for (const p of over) {
        const a = list[p]!;
        const sign = mode === 'net' && isCost(p) ? -1 : 1;
        t += sign * (a.row.values[m] ?? 0);
      }
      return t === (v ?? 0);
    });
  }

  function isCost(place: number): boolean {
    return ['costOfSales', 'expense', 'otherExpense'].includes(kindOf(place).kind);
  }

  function kindOf(place: number): DraftAccount['guess'] {
    let g = guesses.get(place);
    if (!g) {
      const { row, sections } = list[place]!;
      const total = row.values.reduce<number>((t, v) => t + (v ?? 0), 0);
      guesses.set(
        place,
        (g = guessKind(
          { code: row.code, name: row.name, type: '', sections, total: Math.abs(total) },
          scheme,
        )),
      );
    }
    return g;
  }

  const namesOf = new Map<string, Map<string, string>>();
  for (const { row } of list) {
    const names = namesOf.get(row.code) ?? new Map<string, string>();
    if (row.code !== '' && row.name !== '') namesOf.set(row.code, names.set(nameKey(row.name), row.name));
  }
  /** A code that other rows have under other names: which account it is, is asked. */
  const alsoNamed = ({ code, name }: Row): Pick<DraftAccount, 'also'> => {
    const others = [...(namesOf.get(code) ?? [])].filter(([key]) => key !== nameKey(name));
    return others.length > 0 ? { also: others.slice(0, 5).map(([, other]) => other) } : {};
  };
  const accounts = list.map(({ row, sections }, place): DraftAccount => ({
    ...alsoNamed(row),
    code: row.code,
    name: row.name || row.code,
    section: sections.at(-1) ?? null,
    // A heading that only names the kind makes no group; one within it, or of its own wording, does.
    group: groupOf(sections),
    guess: kindOf(place),
  }));
  const block = builder.build(
    'draft',
    accounts.map((_, i) => String(i)),
  );
  return {
    mapping,
    accounts,
    block,
    sign: mapping.sign,
    rows: log.rows(rows.length),
    issues: log.issues,
    issueCount: log.issueCount,
    controls,
    balance: 'notApplicable',
    unbalanced: [],
    unbalancedCount: 0,
    hints: { sign: null, cumulative: null },
    baseline: null,
    trials: null,
  };
}

/** Headings that name nothing but a kind. */
const KIND_HEADING =
  /^(other |operating |total )?(income|revenues?|sales|turnover|expenses?|costs?|overheads?|assets|liabilities|equity)$|^cost of (goods sold|sales)$|^direct costs$/i;

function groupOf(sections: readonly string[]): string {
  const last = sections.at(-1);
  if (!last || KIND_HEADING.test(last.trim())) return '';
  return sections.length > 1 || kindByWords(last) === null ? cutText(last, LIMITS.group) : '';
}

/** What the rows of totals say that they add up: the rest of their names. */
function totalNames(
  rows: readonly (readonly GridCell[])[],
  account: (cells: readonly GridCell[]) => { code: string; name: string },
): ReadonlySet<string> {
  const out = new Set<string>();
  for (const row of rows) {
    const { code, name } = account(row);
    if (!TOTAL_WORDS.test(name)) continue;
    const rest = nameKey(`${code} ${name.replace(TOTAL_WORDS, '')}`.replace(/^\s*(for|of)\b/i, ''));
    if (rest !== '') out.add(rest);
  }
  return out;
}

/** The headings above the present row, and which accounts stand under each. */
class Outline {
  private stack: { name: string; from: number; indent: number }[] = [];
  private closed: { name: string; from: number; to: number }[] = [];
  private sectionFrom = 0;

  /** `summed`: names that a total of the file adds up; such a heading stays open until its total. */
  constructor(private readonly summed: ReadonlySet<string>) {}

  heading(name: string, place: number, indent: number): void {
    // Indents tell what is inside what; without them a heading right after a heading is inside it, and one that
    // follows accounts takes the place of the last.
    const ends = (h: { name: string; from: number; indent: number }) =>
      indent > 0 || h.indent > 0 ? h.indent >= indent : h.from < place && !this.summed.has(nameKey(h.name));
    while (this.stack.length > 0 && ends(this.stack.at(-1)!)) {
      this.closed.push({ ...this.stack.pop()!, to: place });
      if (indent === 0 && this.stack.at(-1)?.indent === 0) break;
    }
    this.stack.push({ name, from: place, indent });
    this.sectionFrom = place;
  }

  total(name: string, place: number): void {
    const of = nameKey(name.replace(TOTAL_WORDS, ''));
    const i = this.stack.findLastIndex((h) => nameKey(h.name) === of);
    const from = i >= 0 ? i : NET.test(name) ? this.stack.length : this.stack.length - 1;
    for (const h of this.stack.splice(Math.max(0, from))) this.closed.push({ ...h, to: place });
    this.sectionFrom = place;
  }

  sections = (): string[] => this.stack.map((h) => h.name);

  /** What a total row may add up, the likeliest by its words first. */
  candidates(name: string, place: number): { over: number[]; mode: 'sum' | 'net' }[] {
    const range = (from: number, to: number) =>
      Array.from({ length: Math.max(0, to - from) }, (_, i) => from + i);
    const all = range(0, place);
    const of = nameKey(name.replace(TOTAL_WORDS, ''));
    const named =
      this.stack.findLast((h) => nameKey(h.name) === of) ??
      this.closed.findLast((h) => nameKey(h.name) === of);
    const section = range(this.sectionFrom, place);
    const open = this.stack.map((h) => range(h.from, place)).reverse();
    const sums = [
      ...(named ? [range(named.from, 'to' in named ? (named.to as number) : place)] : []),
      ...(section.length ? [section] : []),
      ...open,
      all,
    ].map((over) => ({ over, mode: 'sum' as const }));
    const net = { over: all, mode: 'net' as const };
    // A net of a part, such as other income less other costs: of the sections from any of them on.
    const begins = [...new Set([...this.closed, ...this.stack].map((h) => h.from))].sort((a, b) => b - a);
    const parts = begins.map((from) => ({ over: range(from, place), mode: 'net' as const }));
    return NET.test(name) ? [net, ...parts, ...sums] : [...sums, net, ...parts];
  }
}

function rowReader(
  mapping: MonthsMapping,
  digits: number,
  months: readonly { readonly column: number }[],
  totalColumn: number,
  log: RowLog,
) {
  const find = (as: string) => mapping.columns.findIndex((c) => c.as === as);
  const [account, code, name] = [find('account'), find('code'), find('name')];
  const firstMonth = Math.min(...months.map((m) => m.column), mapping.columns.length);
  return {
    /** Blanks before the name: how deep a heading stands. */
    indent(cells: readonly GridCell[]): number {
      const column = cells.findIndex((c) => cellText(c) !== '');
      const first = cells[column];
      return typeof first === 'string' ? column * 4 + first.length - first.trimStart().length : 0;
    },
    account(cells: readonly GridCell[]): { code: string; name: string } {
      const joined = account >= 0 ? splitAccountCell(cellText(cells[account])) : { code: '', name: '' };
      const found = {
        code: (code >= 0 && cellText(cells[code])) || joined.code,
        name: (name >= 0 && cellText(cells[name])) || joined.name,
      };
      if (found.code !== '' || found.name !== '') return found;
      // Deeper or higher levels of a statement may stand in columns of their own.
      const other = cells.slice(0, firstMonth).find((c) => typeof c === 'string' && c.trim() !== '');
      return other === undefined ? found : splitAccountCell(cellText(other));
    },
    amounts(
      cells: readonly GridCell[],
      number: number,
    ): { values: (Minor | null)[]; total: Minor | null } | 'unreadable' {
      const out: (Minor | null)[] = [];
      let bad: LeftOutReason | null = null;
      for (const column of [...months.map((m) => m.column), ...(totalColumn >= 0 ? [totalColumn] : [])]) {
        const parsed = readAmount(cells[column], digits, mapping.numbers);
        const issue = amountIssue(parsed);
        if (issue) {
          // An amount that cannot be read costs that amount, not its row.
          out.push(null);
          bad ??= issue;
          log.issue({
            code: issue,
            row: number,
            column: column + 1,
            value: cutText(cellText(cells[column]), 80),
          });
        } else if (parsed.ok) out.push(parsed.value);
      }
      if (bad && out.every((v) => v === null)) {
        log.leaveOut(bad, number);
        return 'unreadable';
      }
      const total = totalColumn >= 0 ? (out.pop() ?? null) : null;
      return { values: out, total };
    },
  };
}
