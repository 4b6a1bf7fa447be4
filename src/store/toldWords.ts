import type { Minor } from '@/core/money';
import type { Period } from '@/core/calendar';
import type { Told } from '@/core/ground';
import { dayText, type MoneyFormat } from './format';

type Part = Told['parts'][number];

const often = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);
const entries = (n: number): string => (n === 1 ? 'one entry' : `${n} entries`);

/** A part of a difference in a sentence, without its amount. */
export function partWords(part: Part, money: MoneyFormat, basis: Pick<Period, 'label'> | null): string {
  const size = (a: Minor) => money.text(a);
  switch (part.of) {
    case 'elsewhere':
      return 'Entries that were called wrong stand elsewhere.';
    case 'activity':
      return part.by === 'share'
        ? `What it is a share of came to ${part.amount > 0 ? 'more' : 'less'} than planned.`
        : 'Other quantities than planned, at planned rates.';
    case 'missing': {
      const on = part.on === null ? '' : dayText(part.on);
      return part.came === 0
        ? `${part.name}, ${size(part.each)} as a rule, did not come${on && `; it is dated ${on}`}.`
        : `${part.name} came ${often(part.came)}, where the plan has ${part.planned}${on && `; one stands on ${on} instead`}.`;
    }
    case 'extra':
      switch (part.because) {
        case 'twice':
          return `${part.name} stands twice with the same reference and amount.`;
        case 'late':
          return `${part.name} came ${often(part.times)}; the month before lacks one.`;
        case 'more':
          return `${part.name} came ${often(part.times)}, where the plan has ${part.planned === 0 ? 'none' : part.planned}.`;
      }
      break;
    case 'unusual':
      return `${part.name}: ${size(part.size)}, beyond every entry of the year before; the plan has ${size(part.usual)} of one.`;
    case 'lump': {
      const where = part.on === null ? '' : `; it is dated ${dayText(part.on)}`;
      return `${part.name} of ${dayText(part.then)} did not come again${where}.`;
    }
    case 'entry':
      return `${part.name} on ${dayText(part.day)}: ${size(part.size)}, where the plan has ${size(part.planned)}.`;
    case 'name':
      return part.planned === 0
        ? `${part.name}: ${size(part.now)}, where the plan has nothing.`
        : `${part.name}: ${part.now === 0 ? 'nothing' : size(part.now)}, where the plan has ${size(part.planned)}.`;
    case 'number':
      return `${part.now === 0 ? 'No entry' : entries(part.now)}, where the plan goes by ${part.planned}${basis ? ` (${basis.label})` : ''}.`.replace(
        /^o/,
        'O',
      );
    case 'size':
      return `${part.count === 1 ? 'One entry' : `${part.count} entries`} of ${size(part.each)} on average, where the plan has ${size(part.planned)}.`;
    case 'nothing':
      return `Nothing was booked, where ${size(part.planned)} was planned.`;
    case 'rest':
      if (part.count === 0) return part.all ? 'No entry makes it.' : 'All else.';
      return part.all
        ? `Spread over ${entries(part.count)}, none of them unusual.`
        : `All else, over ${entries(part.count)}.`;
  }
}

/** Where a difference came about; empty where that is no news. */
export function placeWords(
  { places }: Told,
  money: MoneyFormat,
  basis: Pick<Period, 'label'> | null,
): string {
  if (!places) return '';
  const parts = places.parts.map((p) => `${p.name} ${money.signed(p.amount)}`).join(', ');
  return `By ${places.axis.toLowerCase()}${places.sure || !basis ? '' : `, going by ${basis.label}`}: ${parts}.`;
}

/** What is odd about the month by itself; empty for nothing. */
export const oddWords = ({ odd }: Told): string =>
  odd === 'sign'
    ? 'The month goes the other way than all others.'
    : odd === 'outside'
      ? 'The month lies outside of what is set as usual for the account.'
      : '';

/** All of it as a comment: each part with what it makes. */
export const toldComment = (told: Told, money: MoneyFormat, basis: Pick<Period, 'label'> | null): string =>
  [
    ...told.parts.map((p) => `${partWords(p, money, basis).replace(/\.$/, '')} (${money.signed(p.amount)}).`),
    placeWords(told, money, basis),
    oddWords(told),
  ]
    .filter(Boolean)
    .join(' ');
