import type { Minor } from '@/core/money';

export type SheetColumn = {
  readonly key: string;
  readonly label: string;
  /** `amount` columns take typing; `total` takes a total to spread; `info` only shows. */
  readonly kind: 'amount' | 'total' | 'info';
};

export type SheetRow = {
  readonly key: string;
  readonly kind: 'section' | 'line' | 'group' | 'subtotal' | 'result';
  readonly label: string;
  readonly code: string;
  /** How the line is made, in a word or two. */
  readonly badge: string;
  readonly badgeTone: 'plan' | 'trouble' | 'quiet';
  readonly hasNote: boolean;
  readonly values: readonly (Minor | null)[];
  /** Which values were typed over the method. */
  readonly typed: readonly boolean[];
  /** A quiet row beneath the line while it is selected. */
  readonly ghost: { readonly label: string; readonly values: readonly (Minor | null)[] } | null;
  readonly enterable: boolean;
  /** Drawn small in the method's column: the shape of the row's months. */
  readonly picture?: readonly (Minor | null)[];
  /** Why a value stands out, by column; empty where it does not. */
  readonly odd?: readonly string[];
};

const sameList = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a === b || (a.length === b.length && a.every((x, i) => x === b[i]));

/** Whether two rows look alike, so that an edit draws again only what it changed. */
export const sameRow = (a: SheetRow, b: SheetRow): boolean =>
  a === b ||
  (a.key === b.key &&
    a.kind === b.kind &&
    a.label === b.label &&
    a.code === b.code &&
    a.badge === b.badge &&
    a.badgeTone === b.badgeTone &&
    a.hasNote === b.hasNote &&
    a.enterable === b.enterable &&
    sameList(a.values, b.values) &&
    sameList(a.typed, b.typed) &&
    sameList(a.picture ?? [], b.picture ?? []) &&
    sameList(a.odd ?? [], b.odd ?? []) &&
    (a.ghost === b.ghost ||
      (a.ghost !== null &&
        b.ghost !== null &&
        a.ghost.label === b.ghost.label &&
        sameList(a.ghost.values, b.ghost.values))));
