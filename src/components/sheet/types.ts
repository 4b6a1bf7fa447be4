import type { Minor } from '@/core/money';

export type SheetColumn = {
  readonly key: string;
  readonly label: string;
  /** A second line above the label, for columns of another year. */
  readonly over?: string;
  /** `amount` columns take typing; `total` takes a total to spread; `info` only shows. */
  readonly kind: 'amount' | 'total' | 'info';
};

/** A column before the figures: how a line is made, a picture of it, a word about it. */
export type LeadColumn = {
  readonly key: 'badge' | 'picture' | 'keeper';
  readonly label: string;
  readonly width: number;
};

export type SheetRow = {
  readonly key: string;
  readonly kind: 'section' | 'line' | 'group' | 'subtotal' | 'result' | 'blank' | 'detail';
  readonly label: string;
  readonly code: string;
  /** How the line is made, in a word or two. */
  readonly badge: string;
  readonly badgeTone: 'plan' | 'trouble' | 'quiet';
  readonly hasNote: boolean;
  /** Who looks after the line. */
  readonly keeper?: string;
  /** A line that was gone over shows a tick; undefined where that is not asked. */
  readonly looked?: boolean;
  /** What is tried over the row, or was: a small sign that says it. */
  readonly tried?: string;
  /** A heading whose rows can be folded away: whether they are. */
  readonly folded?: boolean;
  /** A quiet word after the label. */
  readonly aside?: string;
  readonly values: readonly (Minor | null)[];
  /** Which values were typed over the method. */
  readonly typed: readonly boolean[];
  readonly enterable: boolean;
  /** Drawn small in the method's column: the shape of the row's months. */
  readonly picture?: readonly (Minor | null)[];
  /** Why a value stands out, by column; empty where it does not. */
  readonly odd?: readonly string[];
  /** Notes on single values, by column; empty where there is none. */
  readonly noted?: readonly string[];
};

export const sameList = <T>(a: readonly T[], b: readonly T[]): boolean =>
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
    a.keeper === b.keeper &&
    a.looked === b.looked &&
    a.tried === b.tried &&
    a.folded === b.folded &&
    a.aside === b.aside &&
    a.enterable === b.enterable &&
    sameList(a.values, b.values) &&
    sameList(a.typed, b.typed) &&
    sameList(a.picture ?? [], b.picture ?? []) &&
    sameList(a.odd ?? [], b.odd ?? []) &&
    sameList(a.noted ?? [], b.noted ?? []));
