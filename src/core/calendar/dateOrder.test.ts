import { dateOrderOf } from './dateOrder';

/* Against the runtime's own CLDR data: which of day and month comes first. */
test.each([
  ['en-US', 'mdy'],
  ['en-GB', 'dmy'],
  ['de-DE', 'dmy'],
  ['es-PR', 'mdy'],
  ['sv-SE', 'dmy'],
  ['ja-JP', 'dmy'],
] as const)('%s: %s', (locale, order) => expect(dateOrderOf(locale)).toBe(order));
