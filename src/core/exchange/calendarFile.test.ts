import fc from 'fast-check';
import { toDayNumber, type Day } from '@/core/calendar';
import { calendarFile } from './calendarFile';

const STAMP = '2026-11-09T09:40:00.000Z';
const unfolded = (text: string) => text.replace(/\r\n /g, '');

test('an event of RFC 5545: all day, with its end on the day after, text escaped', () => {
  const text = calendarFile(
    'Pellow; Creek, Co-op',
    [{ uid: 't1-1@x', day: toDayNumber('2026-12-31' as Day), summary: 'Sales tax', description: 'a\nb' }],
    STAMP,
  );
  expect(text.split('\r\n')).toEqual([
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Tellan//Due days//EN',
    'CALSCALE:GREGORIAN',
    'X-WR-CALNAME:Pellow\\; Creek\\, Co-op',
    'BEGIN:VEVENT',
    'UID:t1-1@x',
    'DTSTAMP:20261109T094000Z',
    'DTSTART;VALUE=DATE:20261231',
    'DTEND;VALUE=DATE:20270101',
    'SUMMARY:Sales tax',
    'DESCRIPTION:a\\nb',
    'TRANSP:TRANSPARENT',
    'END:VEVENT',
    'END:VCALENDAR',
    '',
  ]);
});

test('no line is longer than 75 octets, and folding loses nothing (RFC 5545, 3.1)', () =>
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), (summary) => {
      const plain = summary.replace(/[\u0000-\u001f\\;,]/g, '');
      const text = calendarFile('x', [{ uid: 'u', day: 0, summary: plain, description: '' }], STAMP);
      for (const line of text.split('\r\n'))
        expect(new TextEncoder().encode(line).length).toBeLessThanOrEqual(75);
      expect(unfolded(text)).toContain(`SUMMARY:${plain}\r\n`);
    }),
  ));
