import { toDayNumber } from '@/core/calendar';
import { CLOSING, OPENING, textAt } from '@/core/ledger';
import {
  bankStands,
  fromToday,
  rowsInTime,
  type BankEntry,
  type BankStand,
  type NamesOf,
  type Projected,
  type ProjectionInput,
  type Today,
} from '@/core/cash';
import { lastOf } from '@/core/lastOf';
import type { AccountId, Banks } from '@/core/model';
import type { Days } from '@/core/schedule';
import type { ShownItem } from './cashItems';
import type { Ground } from './ground';

/** A projection as it goes on from what banks say, with the ledger's own entries of their accounts. */
export type TodayView = Today & { readonly entries: readonly BankEntry[] };

/** Entries that may not be cleared yet are looked for so many days back. */
const BACK = 120;

/** The entries of bank accounts up to the closed day, as far as the bank may not have cleared them. */
function entriesOf(
  { blocks, view }: Pick<Ground, 'blocks' | 'view'>,
  accounts: readonly AccountId[],
  start: number,
) {
  return accounts.flatMap((account) =>
    rowsInTime(blocks, view, account, 1, start).flatMap(({ block, i }): BankEntry[] => {
      const [day, amount] = [block.day[i]!, block.amount[i]!];
      if (day <= start - BACK || amount === 0 || block.mark[i] === OPENING || block.mark[i] === CLOSING)
        return [];
      const [reference, counterparty] = [block.reference, block.counterparty].map((c) =>
        textAt(block.texts, c[i]!),
      );
      return [
        { key: `${block.id}:${i}`, account, day, amount, reference: reference!, counterparty: counterparty! },
      ];
    }),
  );
}

/** What is remembered of one budget looked at. */
export const makeToday = () => {
  const stands = lastOf((banks: Banks, accounts: ProjectionInput['accounts'], start: number) => {
    // An account that is taken for something else now is no bank of which a bank says anything.
    const kinds = new Map(accounts.map((a) => [a.id, a.kind]));
    return bankStands(banks, start).filter((s) => kinds.get(s.account) === 'bank');
  });
  const entries = lastOf(
    (blocks: Ground['blocks'], view: Ground['view'], told: readonly BankStand[], start: number) =>
      entriesOf(
        { blocks, view },
        told.map((s) => s.account),
        start,
      ),
  );
  const today = lastOf(
    (
      projected: Projected,
      periods: ProjectionInput['periods'],
      accounts: ProjectionInput['accounts'],
      opening: ProjectionInput['opening'],
      told: readonly BankStand[],
      own: readonly BankEntry[],
      said: Banks['said'],
      items: readonly ShownItem[],
      days: Days,
    ): TodayView => {
      const names = new Map(items.map((i) => [`item ${i.key}`, i]));
      const namesOf: NamesOf = (part) => names.get(part.key) ?? null;
      const input = { start: projected.start, periods, accounts, opening };
      return {
        ...fromToday(projected, input, {
          stands: told,
          entries: own,
          said,
          namesOf,
          working: (day) => days.moved(day, 'next'),
        }),
        entries: own,
      };
    },
  );
  /** How a projection goes on from what banks say; null where they say nothing of days after its start. */
  return (
    ground: Ground,
    input: ProjectionInput,
    projected: Projected,
    items: readonly ShownItem[],
    days: Days,
  ): TodayView | null => {
    const { banks } = ground.book.cash;
    const told = stands(banks, input.accounts, input.start);
    const last = input.periods.at(-1);
    // Beyond the months ahead nothing is planned that could have moved.
    if (told.length === 0 || !last || told.some((s) => s.day >= toDayNumber(last.end))) return null;
    return today(
      projected,
      input.periods,
      input.accounts,
      input.opening,
      told,
      entries(ground.blocks, ground.view, told, input.start),
      banks.said,
      items,
      days,
    );
  };
};
