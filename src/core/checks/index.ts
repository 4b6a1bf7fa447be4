export { runChecks, type Check, type CheckCode, type CheckInput } from './checks';
