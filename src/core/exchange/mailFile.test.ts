import PostalMime from 'postal-mime';
import ICAL from 'ical.js';
import { toDayNumber, type Day } from '@/core/calendar';
import { calendarFile } from './calendarFile';
import { wholeLetters } from '@/core/model';
import { isAddress, mailFile, type MailDraft } from './mailFile';

const bytes = Uint8Array.from({ length: 1000 }, (_, i) => (i * 37) % 256);
const draft = (change: Partial<MailDraft> = {}): MailDraft => ({
  from: { name: 'Ines Marlowe', address: 'ines@yard.example' },
  to: { name: 'Tom', address: 'tom@yard.example' },
  subject: 'Your lines of the budget',
  text: 'Please fill in the sheet.\nThank you.',
  attachment: { name: 'North Yard.xlsx', type: 'application/octet-stream', bytes },
  at: '2026-11-26T22:10:05.000Z',
  id: 'b1-u1-h1',
  ...change,
});

test('a kept parser reads back who, what and the file, byte by byte', async () => {
  const mail = await PostalMime.parse(mailFile(draft()));
  expect(mail.from).toMatchObject({ name: 'Ines Marlowe', address: 'ines@yard.example' });
  expect(mail.to).toMatchObject([{ name: 'Tom', address: 'tom@yard.example' }]);
  expect([mail.subject, mail.date]).toEqual(['Your lines of the budget', '2026-11-26T22:10:05.000Z']);
  expect(mail.text?.trim().replace(/\r/g, '')).toBe('Please fill in the sheet.\nThank you.');
  expect(mail.attachments).toHaveLength(1);
  expect(mail.attachments[0]).toMatchObject({ filename: 'North Yard.xlsx', disposition: 'attachment' });
  expect(new Uint8Array(mail.attachments[0]!.content as ArrayBuffer)).toEqual(bytes);
});

test.each([
  [
    'beyond ASCII',
    'Zoë Ångström',
    'Größe & Übersicht — “Frühling” 2027, für alle Beteiligten der Bootswerft am Fluß',
  ],
  ['marks that heads keep for themselves', 'Tom, Dr. "T"', 'A: b; <c> =?utf-8?B?eA==?='],
  ['line ends that would begin another head', 'Tom\r\nBcc: all@x.example', 'Hello\r\nBcc: all@x.example'],
  ['long', 'T'.repeat(70), 'word '.repeat(60).trim()],
])('names and subjects %s', async (_, name, subject) => {
  const text = mailFile(draft({ to: { name, address: 'tom@yard.example' }, subject }));
  const mail = await PostalMime.parse(text);
  const flat = (t: string) => t.replace(/[\r\n]+/g, ' ');
  expect(mail.subject).toBe(flat(subject));
  expect(mail.to?.[0]).toMatchObject({ name: flat(name), address: 'tom@yard.example' });
  expect(mail.bcc ?? []).toEqual([]);
  // RFC 5322, 2.1.1: lines of at most 998 letters, 78 where it can be; every one ends with CRLF.
  expect(text.split('\r\n').every((line) => line.length <= 78)).toBe(true);
  expect(/[^\r]\n/.test(text)).toBe(false);
});

test('what is no address is none', () => {
  expect(['a@b.example', 'a b@c', 'a@b\r\nBcc: x@y', '', '<a@b>'].map(isAddress)).toEqual([
    true,
    false,
    false,
    false,
    false,
  ]);
  expect(mailFile(draft({ to: { name: 'Tom', address: 'x\r\nBcc: y@z' } }))).toContain('<nobody@invalid>');
});

test('a due day is read by a kept parser of RFC 5545', () => {
  const text = calendarFile(
    'Spring; round, 2027',
    [
      {
        uid: 'u1@x',
        day: toDayNumber('2026-12-12' as Day),
        summary: 'Return, please; now',
        description: 'a\nb',
      },
    ],
    '2026-11-26T22:10:05.000Z',
  );
  const [event] = new ICAL.Component(ICAL.parse(text)).getAllSubcomponents('vevent');
  const read = new ICAL.Event(event!);
  expect([read.summary, read.description, read.startDate.toString(), read.endDate.toString()]).toEqual([
    'Return, please; now',
    'a\nb',
    '2026-12-12',
    '2026-12-13',
  ]);
});

test('a file whose name was cut inside a letter of two units still goes out, with the replacement letter', async () => {
  const name = `Yard ${'⚓🛥'.repeat(30)}`;
  for (let n = 60; n < 72; n++) {
    const mail = await PostalMime.parse(
      mailFile(draft({ attachment: { ...draft().attachment, name: `${name.slice(0, n)}.xlsx` } })),
    );
    expect(mail.attachments[0]!.filename).toBe(`${wholeLetters(name.slice(0, n))}.xlsx`);
  }
});
test.each([
  ['whole', '🛥 boat', '🛥 boat'],
  ['cut behind', 'boat \ud83d', 'boat \ufffd'],
  ['cut before', '\udee5 boat', '\ufffd boat'],
  ['two halves that are no letter', '\udee5\ud83d', '\ufffd\ufffd'],
])('letters that are %s', (_, text, whole) => {
  expect(wholeLetters(text)).toBe(whole);
  expect(() => encodeURIComponent(wholeLetters(text))).not.toThrow();
});
