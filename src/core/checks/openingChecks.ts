import { calendarFrom } from '@/core/calendar';
import { openingsIn, openingsOff, stoodBefore, type OpeningOff } from '@/core/ledger';
import { ownerOf, type AccountId } from '@/core/model';
import { plainDecimal, plus } from '@/core/money';
import type { Check, CheckInput } from './checks';

/**
 * Balances brought forward of each source of entries, by the rule of its proof: those that begin the ledger come to nothing,
 * later ones are what their accounts stand at. They are looked at again with every change of what came before them.
 */
export function openingChecks({ book, blocks, balances }: CheckInput): Check[] {
  const calendar = calendarFrom(book.calendar);
  const kinds = new Map(book.accounts.map((a) => [a.id, a.kind]));
  const owner = ownerOf(book.merged);
  const opened = book.sources.flatMap((source) => {
    const block = source.openings > 0 ? blocks.get(source.block) : undefined;
    const own = block && openingsIn(block);
    if (!block || !own) return [];
    const amounts = new Map<AccountId, number>();
    for (const [place, amount] of own.amounts) {
      const id = owner(block.accounts[place]!);
      amounts.set(id, plus(amounts.get(id) ?? 0, amount));
    }
    return [{ source, day: own.day, amounts }];
  });
  /** What balances count as an account's opening: of the earliest day alone. */
  const counted = (id: AccountId, of: typeof opened) => {
    const has = of.filter((o) => o.amounts.has(id));
    const day = Math.min(...has.map((o) => o.day));
    return has.reduce((t, o) => (o.day === day ? plus(t, o.amounts.get(id)!) : t), 0);
  };
  return opened.flatMap((one): Check[] => {
    const { source, day, amounts } = one;
    if (source.shape !== 'entries' || source.oneSided) return [];
    const others = opened.filter((o) => o !== one);
    const less = (id: AccountId) => (amounts.has(id) ? plus(counted(id, opened), -counted(id, others)) : 0);
    const openings = [...amounts].flatMap(([account, amount]) => {
      const kind = kinds.get(account);
      return kind ? [{ account, kind, amount }] : [];
    });
    const off = openingsOff(openings, stoodBefore(balances, calendar, book.accounts, day, less));
    return [
      {
        code: 'openings',
        subject: source.fileName,
        holds: off.length === 0,
        detail: off.length === 0 ? '' : detailOf(off),
      },
    ];
  });

  function detailOf([first, ...more]: readonly OpeningOff<AccountId>[]): string {
    const { account, theirs, ours } = first!;
    const name = book.accounts.find((a) => a.id === account)?.name ?? '';
    const figures = [theirs, ours].map((v) => plainDecimal(v, book.currency));
    return [name, ...figures, String(more.length)].join('\t');
  }
}
