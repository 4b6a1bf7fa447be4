export {
  BASE,
  figureOfKey,
  keyOfFigure,
  keyOfName,
  keyOfWritten,
  nameOfKey,
  writtenOfKey,
  type BaseName,
  type FigureName,
  type Name,
  type WrittenName,
} from './names';
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
