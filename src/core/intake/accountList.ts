import { cellText, type GridCell } from '@/core/files';
import { nameKey, splitAccountCell } from './accountCell';
import type { DraftAccount } from './draft';
import { guessKind } from './guessKind';

export type AccountColumns = {
  readonly account: number;
  readonly code: number;
  readonly name: number;
  readonly type: number;
};

/** The accounts met in a file, found again by the texts of their cells. */
export class AccountList {
  private readonly byCell = new Map<
    string,
    { readonly a: string; readonly c: string; readonly n: string; readonly place: number }
  >();
  private readonly byKey = new Map<string, number>();
  private readonly list: { code: string; name: string; type: string; total: number }[] = [];

  constructor(private readonly columns: AccountColumns) {}

  /** Place of the account that a row names; −1 when it names none. */
  place(row: readonly GridCell[]): number {
    const col = this.columns;
    const a = col.account < 0 ? '' : cellText(row[col.account]);
    const c = col.code < 0 ? '' : cellText(row[col.code]);
    const n = col.name < 0 ? '' : cellText(row[col.name]);
    // Found by the first cell that says anything; its other cells are compared, not put together into a key.
    const first = a || c || n;
    if (first === '') return -1;
    const known = this.byCell.get(first);
    if (known && known.a === a && known.c === c && known.n === n) return known.place;
    const place = this.find(a, c, n, col.type < 0 ? '' : cellText(row[col.type]));
    this.byCell.set(first, { a, c, n, place });
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
      this.list.push({ code, name: name || code, type, total: 0 });
    }
    return place;
  }

  addTo(place: number, amount: number): void {
    this.list[place]!.total += amount;
  }

  nameOf = (place: number): string => this.list[place]!.name;
  codeOf = (place: number): string => this.list[place]!.code;
  total = (place: number): number => this.list[place]!.total;
  get size(): number {
    return this.list.length;
  }

  places = (): string[] => this.list.map((_, i) => String(i));

  guessed = (): DraftAccount[] =>
    this.list.map(({ code, name, type, total }) => ({
      code,
      name,
      section: null,
      group: '',
      guess: guessKind({ code, name, type, sections: [], total }),
    }));
}
