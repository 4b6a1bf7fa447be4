import { plainName } from '../listSince';
import type { BankEntry } from './match';
import type { Movement } from './stands';

/** What is said of movements in words. */

/** Payments that are the same move so many days apart at most. */
export const NEAR = 5;
/** Shorter numbers and names stand in too many texts. */
export const SHORTEST = 3;
/** A number stands in so many pieces of a text at most: “R 2026/11-07”. */
const PIECES = 5;

export function add<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

const textsOf = ({ reference, memo, counterparty }: Movement): readonly string[] => [
  reference,
  memo,
  counterparty,
];

/** What in a movement's texts may be a number of an invoice: pieces between marks and spaces, and neighbours put together. */
export function namesIn(m: Movement): ReadonlySet<string> {
  const out = new Set<string>();
  for (const text of textsOf(m)) {
    const pieces = text.split(/[^\p{L}\p{N}]+/u).map(plainName);
    for (let from = 0; from < pieces.length; from++) {
      let name = '';
      for (const piece of pieces.slice(from, from + PIECES)) {
        name += piece;
        if (name.length >= SHORTEST) out.add(name);
      }
    }
  }
  return out;
}

/** The texts of movements without what two programs write differently: asked of thousands of names. */
const plain = new WeakMap<Movement, { readonly party: string; readonly texts: readonly string[] }>();
function plainOf(m: Movement) {
  let own = plain.get(m);
  if (!own) {
    own = { party: plainName(`${m.counterparty} ${m.memo}`), texts: textsOf(m).map(plainName) };
    plain.set(m, own);
  }
  return own;
}

/** Whether a counterparty, as `plainName` gives it, is named. */
export const hasParty = (m: Movement, party: string): boolean => plainOf(m).party.includes(party);

export const sameWords = (a: Movement, b: Movement): boolean =>
  plainName(a.counterparty) === plainName(b.counterparty) &&
  plainName(a.reference) === plainName(b.reference);

export function hasNumberOf(m: Movement, e: BankEntry): boolean {
  const number = plainName(e.reference);
  return number.length >= SHORTEST && plainOf(m).texts.some((t) => t.includes(number));
}

/** Whether a movement names the number or the counterparty of an entry. */
export function hasWordsOf(m: Movement, e: BankEntry): boolean {
  const party = plainName(e.counterparty);
  return hasNumberOf(m, e) || (party.length >= SHORTEST && hasParty(m, party));
}
