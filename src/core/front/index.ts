export { bankBeside, type BankBeside } from './bank';
export { owedOn, type Late, type Owed } from './owed';
export { toldOf, whyOf, type Why, type WhyLine } from './why';
