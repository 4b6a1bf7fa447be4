import type { Claim } from '@/core/cash';
import type { CashView, Ground } from '@/core/ground';
import { minor } from '@/core/money';
import { causeWords, onDay } from '@/store/cashWords';
import type { MoneyFormat } from '@/store/format';

/** What a movement was found to be, once for each thing that it pays, however many parts that has. */
export function claimsWords(
  ground: Ground,
  view: CashView,
  claims: readonly Claim[],
  money: MoneyFormat,
): readonly string[] {
  const out: string[] = [];
  const paid = new Map<string, { claim: Extract<Claim, { of: 'event' }>; amount: number }>();
  for (const claim of claims) {
    if (claim.of === 'entry') {
      const { day, reference } = claim.entry;
      out.push(`in the ledger on ${onDay(day)}${reference ? ` (${reference})` : ''}`);
    } else if (claim.of === 'event') {
      const was = paid.get(claim.event.part.key);
      if (was) was.amount += claim.amount;
      else paid.set(claim.event.part.key, { claim, amount: claim.amount });
    } else out.push(pairWords(ground, claim));
  }
  for (const { claim, amount } of paid.values()) {
    const { event, movement } = claim;
    const part = amount === movement.amount ? '' : `, ${money.exact(minor(amount))} of it`;
    const planned = event.day === movement.day ? '' : `, planned for ${onDay(event.day)}`;
    out.push(`${causeWords(ground, view, event).name}${planned}${part}`);
  }
  return out;
}

function pairWords(ground: Ground, claim: Extract<Claim, { of: 'transfer' | 'reversal' }>): string {
  if (claim.of === 'transfer') {
    const other = ground.book.accounts.find((a) => a.id === claim.other.account)?.name ?? '';
    return claim.amount < 0 ? `to ${other}` : `from ${other}`;
  }
  return claim.movement.reverses
    ? `takes back that of ${onDay(claim.other.day)}`
    : `taken back on ${onDay(claim.other.day)}`;
}
