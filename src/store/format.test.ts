import { minor } from '@/core/money';
import { bookWith } from '@/core/test/build';
import { fileNameOf } from '@/platform/download';
import { dayText, moneyFormat, percentText } from './format';

describe('money as the book’s settings say', () => {
  const book = bookWith([]);
  const large = bookWith([], { settings: { ...book.settings, thousands: true } });
  const loud = bookWith([], { settings: { ...book.settings, cents: true, negatives: 'minus' } });
  test.each([
    ['a cost without cents', moneyFormat(book).text(minor(-123456)), '(1,235)'],
    ['to the cent', moneyFormat(book).exact(minor(-123456)), '(1,234.56)'],
    ['with cents and minus', moneyFormat(loud).text(minor(-123456)), '−1,234.56'],
    ['a rise', moneyFormat(book).signed(minor(50000)), '+500'],
    ['a fall', moneyFormat(book).signed(minor(-50000)), '−500'],
    ['no change', moneyFormat(book).signed(minor(0)), '–'],
    ['nothing', moneyFormat(book).text(null), ''],
    ['in thousands', moneyFormat(large).text(minor(-123456)), '(1.2)'],
    ['a rise in thousands', moneyFormat(large).signed(minor(50000)), '+0.5'],
    ['to the cent beside thousands', moneyFormat(large).exact(minor(-123456)), 'USD\u00a0(1,234.56)'],
    ['what rounds to nothing, in a sentence', moneyFormat(large).told(minor(-1200)), 'USD\u00a0(12.00)'],
    ['what does not', moneyFormat(large).told(minor(-12000)), '(0.1)'],
  ])('%s', (_n, shown, expected) => expect(shown).toBe(expected));
  test('the same object while the settings stay, so that rows are not drawn again', () => {
    expect(moneyFormat(bookWith([], { name: 'Other', settings: book.settings }))).toBe(moneyFormat(book));
  });
});

test.each([
  [234, '+23.4%'],
  [-5, '−0.5%'],
  [0, '0.0%'],
  [123456, '+>999%'],
  [null, ''],
])('%s per mille', (n, text) => expect(percentText(n)).toBe(text));

test('a day in words', () => expect(dayText('2026-06-12T15:00:00Z')).toBe('12 Jun 2026'));

test.each([
  ['Pellow Creek', 'Pellow Creek'],
  ['a/b\\c:d', 'a b c d'],
  ['../../etc', 'etc'],
  ['', 'tellan'],
  ['x'.repeat(200), 'x'.repeat(80)],
])('the file name of %j', (text, name) => expect(fileNameOf(text).trim()).toBe(name));
