import { found } from './finding';

const accounts = [
  '1000 Current account',
  '6000 Rent',
  '6010 Rent of tools',
  '4100 Winterberths',
  '4200 Büromiete',
];
const of = (typed: string) => found(accounts, (a) => a, typed);

test('what begins a word is found before what lies within one', () => {
  expect(of('rent')).toEqual(['6000 Rent', '6010 Rent of tools']);
  expect(of('RENT too')).toEqual(['6010 Rent of tools']);
  expect(of('60')).toEqual(['6000 Rent', '6010 Rent of tools']);
  expect(of('berth')).toEqual(['4100 Winterberths']);
  expect(of('miete')).toEqual(['4200 Büromiete']);
  expect(of('of tools')).toEqual(['6010 Rent of tools']);
});

test('nothing typed is everything; what nobody has is nothing; a letter with its accent apart is the letter', () => {
  expect(of('  ')).toEqual(accounts);
  expect(of('zebra')).toEqual([]);
  expect(of('bu\u0308ro')).toEqual(['4200 Büromiete']);
});
