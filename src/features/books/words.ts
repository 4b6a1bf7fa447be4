import { countText } from '@/store/format';
import type { OddMonth } from '@/core/ledger';

/** Why a month stands out, from the account's usual month. */
export const ODD_WORDS: Record<OddMonth['kind'], (usual: string) => string> = {
  lump: (usual) => `A lump: far above this account’s usual ${usual === '–' ? 'nothing' : usual}`,
  double: (usual) => `About twice the usual ${usual}: perhaps two months in one`,
  low: (usual) => `Far below the usual ${usual}`,
  gap: (usual) => `Nothing, where the usual month is ${usual}`,
  sign: (usual) => `The other way around: the usual month is ${usual}`,
  outside: (usual) => `Beyond the bound of ${usual} that was set for the account`,
};

export const count = (n: number, one: string, several = `${one}s`): string =>
  `${countText(n)} ${n === 1 ? one : several}`;
