import type { Account, Book, Flag } from '@/core/model';

/** When a variance of an account is flagged: as said of it, of its kind, or of the book. */
export const flagOf = ({ flags, settings }: Pick<Book, 'flags' | 'settings'>, account: Account): Flag =>
  flags.accounts[account.id] ??
  flags.kinds[account.kind] ?? { amount: settings.flagAmount, percent: settings.flagPercent };
