export { runChecks, type Check, type CheckCode, type CheckInput } from './checks';
export { checkBook } from './checkBook';
