import type { NumberDoubt } from '@/core/intake';
import type { NumberFormat } from '@/core/money';
import { setSession } from './session';

/** A file whose numbers can be read two ways, and what its reading waits for. */
type NumbersAsked = {
  readonly fileName: string;
  readonly doubt: NumberDoubt;
  readonly answer: (format: NumberFormat | null) => void;
};

let asked: NumbersAsked | null = null;

/** Asks how a file writes numbers, over whatever screen is open; null where the file is left out instead. */
export function askNumbers(fileName: string, doubt: NumberDoubt): Promise<NumberFormat | null> {
  // One question stands at a time: one that another overtakes is answered with nothing.
  asked?.answer(null);
  return new Promise((resolve) => {
    asked = {
      fileName,
      doubt,
      answer(format) {
        asked = null;
        setSession({ asked: null });
        resolve(format);
      },
    };
    setSession({ asked: 'numbers' });
  });
}

/** The question that stands; null where none does. */
export const numbersAsked = (): NumbersAsked | null => asked;
