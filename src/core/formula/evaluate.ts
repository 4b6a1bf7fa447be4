import {
  addRatio,
  compareRatio,
  divideRatio,
  multiplyRatio,
  negateRatio,
  ratio,
  roundRatio,
  isZero,
  type Ratio,
} from '@/core/money';
import { assertNever } from '@/core/assertNever';
import type { Expression, Test } from './parse';
import type { Name } from './names';

/** The value of a name `prior` months before the month that is reckoned; null where nothing is said. */
export type ValueOf<N = Name> = (name: N, prior: number) => Ratio | null;

/** A value; blank when the formula names something and all it met was blank; or what stopped it. */
export type Evaluated =
  | { readonly value: Ratio | null; readonly error: null }
  | { readonly value: null; readonly error: 'dividesByZero' };

class DividesByZero extends Error {}
const NOTHING = ratio(0);

/** The value of a formula for one month. A blank counts as zero beside anything that is not blank. */
export function evaluate<N = Name>(expression: Expression<N>, valueOf: ValueOf<N>): Evaluated {
  let named = false;
  let met = false;
  const look: ValueOf<N> = (name, prior) => {
    named = true;
    const value = valueOf(name, prior);
    if (value !== null) met = true;
    return value;
  };
  try {
    const value = valueAt(expression, look);
    return { value: named && !met ? null : value, error: null };
  } catch (error) {
    if (error instanceof DividesByZero) return { value: null, error: 'dividesByZero' };
    throw error;
  }
}

function valueAt<N>(e: Expression<N>, look: ValueOf<N>): Ratio {
  switch (e.kind) {
    case 'number':
      return e.value;
    case 'name':
      return look(e.name, e.prior) ?? NOTHING;
    case 'negate':
      return negateRatio(valueAt(e.of, look));
    case 'sum':
      return addRatio(valueAt(e.left, look), valueAt(e.right, look));
    case 'difference':
      return addRatio(valueAt(e.left, look), negateRatio(valueAt(e.right, look)));
    case 'product':
      return multiplyRatio(valueAt(e.left, look), valueAt(e.right, look));
    case 'quotient':
      return divided(valueAt(e.left, look), valueAt(e.right, look));
    case 'min':
    case 'max': {
      const sign = e.kind === 'max' ? 1 : -1;
      return e.of.map((x) => valueAt(x, look)).reduce((a, b) => (compareRatio(b, a) * sign > 0 ? b : a));
    }
    case 'round': {
      // To multiples of a unit, half away from zero; to nothing, it stays as it is.
      const [value, unit] = [valueAt(e.of, look), valueAt(e.to, look)];
      return isZero(unit) ? value : multiplyRatio(ratio(roundRatio(divided(value, unit))), unit);
    }
    case 'if':
      return holds(e.test, look) ? valueAt(e.then, look) : valueAt(e.otherwise, look);
    default:
      return assertNever(e);
  }
}

function divided(a: Ratio, b: Ratio): Ratio {
  const value = divideRatio(a, b);
  if (!value) throw new DividesByZero();
  return value;
}

function holds<N>(test: Test<N>, look: ValueOf<N>): boolean {
  if (test.kind !== 'compare') {
    const left = holds(test.left, look);
    return test.kind === 'and' ? left && holds(test.right, look) : left || holds(test.right, look);
  }
  const order = compareRatio(valueAt(test.left, look), valueAt(test.right, look));
  switch (test.sign) {
    case '<':
      return order < 0;
    case '<=':
      return order <= 0;
    case '>':
      return order > 0;
    case '>=':
      return order >= 0;
    case '=':
      return order === 0;
    case '<>':
      return order !== 0;
    default:
      return assertNever(test.sign);
  }
}
