export {
  minor,
  ZERO,
  MOST_AMOUNT,
  TOO_LARGE,
  isAmount,
  isTooLarge,
  plus,
  add,
  subtract,
  negate,
  sum,
  sumBlank,
  sameFigure,
  UnsafeMoneyError,
  type Minor,
} from './minor';
export { minorDigits, isCurrencyCode, unitOf } from './currency';
export { parsePercent, percent, percentFraction, percentOf, uplift, type Percent } from './percent';
export { divideRounded, roundTo, type Rounding } from './round';
export { evenPart, splitByWeights, splitEven, splitLike, roundParts } from './split';
export { arithmetic, readTyped } from './arithmetic';
export { parseAmount, amountOfNumber, type NumberFormat, type ParsedAmount } from './parse';
export {
  formatAmount,
  perMilleText,
  editText,
  typedDigits,
  decimalText,
  plainDecimal,
  numberFormatOf,
  TOO_LARGE_TEXT,
  mostAmountText,
  type AmountStyle,
} from './format';
export {
  addRatio,
  compounded,
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
