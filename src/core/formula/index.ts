export { figureOfKey, keyOfFigure, keyOfName, nameOfKey, type FigureName, type Name } from './names';
export {
  keptFormula,
  parseFormula,
  shownFormula,
  type Expression,
  type FormulaIssue,
  type Named,
  type Parsed,
  type Test,
} from './parse';
export { evaluate, type Evaluated, type ValueOf } from './evaluate';
