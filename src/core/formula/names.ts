import { ACCOUNT_KINDS, type AccountKind, type Ref } from '@/core/model';

/** What a formula may name: an account's line, a group, all of a kind, or a driver. */
export type Name = Ref | { readonly of: 'driver'; readonly driver: string };

/** How a name is kept in a saved formula: by id, so that renaming an account changes no formula. */
export function keyOfName(name: Name): string {
  switch (name.of) {
    case 'account':
      return `account:${name.account}`;
    case 'driver':
      return `driver:${name.driver}`;
    case 'group':
      return `group:${name.kind}:${name.group}`;
    case 'kind':
      return `kind:${name.kind}`;
  }
}

/** The name behind a kept key; null when it is none. */
export function nameOfKey(key: string): Name | null {
  const m = /^(account|driver|kind|group):(.+)$/s.exec(key);
  if (!m) return null;
  const rest = m[2]!;
  switch (m[1]) {
    case 'account':
      return { of: 'account', account: rest };
    case 'driver':
      return { of: 'driver', driver: rest };
    case 'kind':
      return isKind(rest) ? { of: 'kind', kind: rest } : null;
    default: {
      const cut = rest.indexOf(':');
      const kind = rest.slice(0, cut);
      return cut > 0 && isKind(kind) ? { of: 'group', kind, group: rest.slice(cut + 1) } : null;
    }
  }
}

const isKind = (text: string): text is AccountKind => (ACCOUNT_KINDS as readonly string[]).includes(text);

/** What a formula over the books may name: lines, and figures that the statements add up, such as current assets. */
export type FigureName = Name | { readonly of: 'figure'; readonly figure: string };

const FIGURE = 'figure:';

/** The same as `keyOfName` and `nameOfKey`, of figures too. */
export const keyOfFigure = (name: FigureName): string =>
  name.of === 'figure' ? `${FIGURE}${name.figure}` : keyOfName(name);
export const figureOfKey = (key: string): FigureName | null =>
  key.startsWith(FIGURE) ? { of: 'figure', figure: key.slice(FIGURE.length) } : nameOfKey(key);

/** What a formula of a change may name beside: the amount as it was before it. */
export type BaseName = { readonly of: 'base' };
export const BASE: BaseName = { of: 'base' };

/** Whatever a formula names somewhere. */
export type WrittenName = FigureName | BaseName;
export const keyOfWritten = (name: WrittenName): string => (name.of === 'base' ? 'base' : keyOfFigure(name));
export const writtenOfKey = (key: string): WrittenName | null => (key === 'base' ? BASE : figureOfKey(key));
