import { cellText, type GridCell } from '@/core/files';
import { nameKey, splitAccountCell } from './accountCell';
import type { DraftAccount } from './draft';
import { guessKind, schemeOf } from './guessKind';

export type AccountColumns = {
  readonly account: number;
  readonly code: number;
  readonly name: number;
  readonly type: number;
};

type Known = { readonly a: string; readonly n: string; readonly place: number };

/** The number that up to five digits make (with a leading 1, so that 010 is not 10), or −1. */
function shortNumber(text: string): number {
  if (text.length > 5) return -1;
  let n = 1;
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i) - 48;
    if (c < 0 || c > 9) return -1;
    n = n * 10 + c;
  }
  return n;
}

/** The accounts met in a file, found again by the texts of their cells. */
export class AccountList {
  private readonly byCell = new Map<string, Known>();
  private readonly byCode = new Map<string, number>();
  /** Most codes are short numbers: a place in a list is found faster than a text in a map. */
  private readonly byNumber: (number | undefined)[] = [];
  private readonly byKey = new Map<string, number>();
  private readonly list: {
    code: string;
    name: string;
    type: string;
    total: number;
    also: Set<string> | null;
  }[] = [];

  constructor(private readonly columns: AccountColumns) {}

  /** Place of the account that a row names; −1 when it names none. */
  place(row: readonly GridCell[]): number {
    const col = this.columns;
    const code = col.code < 0 ? '' : cellText(row[col.code]);
    // A code is the account, whatever stands beside it.
    if (code !== '') {
      const number = shortNumber(code);
      const known = number < 0 ? this.byCode.get(code) : this.byNumber[number];
      if (known !== undefined) {
        if (col.name >= 0) this.seeName(known, row[col.name]);
        return known;
      }
      const place = this.find(
        col.account < 0 ? '' : cellText(row[col.account]),
        code,
        col.name < 0 ? '' : cellText(row[col.name]),
        col.type < 0 ? '' : cellText(row[col.type]),
      );
      if (number < 0) this.byCode.set(code, place);
      else this.byNumber[number] = place;
      return place;
    }
    const a = col.account < 0 ? '' : cellText(row[col.account]);
    const n = col.name < 0 ? '' : cellText(row[col.name]);
    // Found by the first cell that says anything; its other cells are compared, not put together into a key.
    const first = a || n;
    if (first === '') return -1;
    const known = this.byCell.get(first);
    if (known && known.a === a && known.n === n) return known.place;
    const place = this.find(a, '', n, col.type < 0 ? '' : cellText(row[col.type]));
    this.byCell.set(first, { a, n, place });
    return place;
  }

  /** Place of the account that a heading names. */
  heading = (text: string): number => this.find(text, '', '', '');

  private find(a: string, c: string, n: string, type: string): number {
    const split = a ? splitAccountCell(a) : { code: '', name: '' };
    const code = c || split.code;
    const name = n || split.name;
    const key = code ? `#${code}` : nameKey(name);
    let place = this.byKey.get(key);
    if (place === undefined) {
      place = this.list.length;
      this.byKey.set(key, place);
      this.list.push({ code, name: name || code, type, total: 0, also: null });
    } else if (code && name) this.alsoNamed(place, name);
    return place;
  }

  /** The cell that named an account last, by place: mostly the very same text again. */
  private readonly lastName: GridCell[] = [];

  private seeName(place: number, cell: GridCell | undefined): void {
    if (cell === undefined || cell === '' || cell === this.lastName[place]) return;
    // A text of its own: a piece of the file's lies far from the others, and keeps the whole of it in memory.
    this.lastName[place] = typeof cell === 'string' ? cell.split('').join('') : cell;
    this.alsoNamed(place, cellText(cell));
  }

  /** A code that comes with another name than before: which one it is, is asked. */
  private alsoNamed(place: number, name: string): void {
    const known = this.list[place]!;
    if (nameKey(known.name) === nameKey(name)) return;
    if (known.name === known.code) known.name = name;
    else (known.also ??= new Set()).add(name);
  }

  addTo(place: number, amount: number): void {
    this.list[place]!.total += amount;
  }

  nameOf = (place: number): string => this.list[place]!.name;
  codeOf = (place: number): string => this.list[place]!.code;
  total = (place: number): number => this.list[place]!.total;

  places = (): string[] => this.list.map((_, i) => String(i));

  guessed = (): DraftAccount[] => {
    const scheme = schemeOf(this.list);
    return this.list.map(({ code, name, type, total, also }) => ({
      code,
      name,
      section: null,
      group: '',
      guess: guessKind({ code, name, type, sections: [], total }, scheme),
      ...(also ? { also: [...also].slice(0, 5) } : {}),
    }));
  };
}
