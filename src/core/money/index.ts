export {
  minor,
  ZERO,
  MOST_AMOUNT,
  add,
  subtract,
  negate,
  sum,
  sumBlank,
  UnsafeMoneyError,
  type Minor,
} from './minor';
export { minorDigits, isCurrencyCode, unitOf } from './currency';
export { parsePercent, percent, percentFraction, percentOf, uplift, type Percent } from './percent';
export { divideRounded, roundTo, type Rounding } from './round';
export { splitByWeights, splitEven, splitLike, roundParts } from './split';
export { parseAmount, amountOfNumber, type NumberFormat, type ParsedAmount } from './parse';
export {
  formatAmount,
  editText,
  decimalText,
  plainDecimal,
  numberFormatOf,
  type AmountStyle,
} from './format';
export {
  addRatio,
  compareRatio,
  divideRatio,
  isZero,
  multiplyRatio,
  negateRatio,
  ratio,
  ratioOfPercent,
  ratioOfText,
  roundRatio,
  type Ratio,
} from './ratio';
