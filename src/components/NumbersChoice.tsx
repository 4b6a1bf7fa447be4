import { Button } from '@mantine/core';
import type { NumberDoubt } from '@/core/intake';
import type { Minor, NumberFormat } from '@/core/money';

/** Numbers of a file that can be read two ways: what one of them is, each way a button. */
export function NumbersChoice({
  doubt: { sample, count, readings },
  text,
  chosen = null,
  onChoose,
}: {
  readonly doubt: NumberDoubt;
  /** An amount to the cent, as the book writes it. */
  readonly text: (amount: Minor) => string;
  readonly chosen?: NumberFormat | null;
  readonly onChoose: (format: NumberFormat) => void;
}) {
  return (
    <div role="group" aria-label="How its numbers are written">
      <p>
        {count === 1 ? 'A number in it' : `${count} numbers in it`} can be read two ways, and nothing in the
        file tells which. What is <b>“{sample}”</b>?
      </p>
      {readings.map(({ format, amount }) => (
        <Button
          key={format.decimal}
          mr={8}
          mb={8}
          variant={chosen?.decimal === format.decimal ? 'filled' : 'default'}
          onClick={() => onChoose(format)}
        >
          {text(amount)}
        </Button>
      ))}
    </div>
  );
}
