import { fromDayNumber, type DayNumber } from '@/core/calendar';

/** Something that is due on a day. */
export type DueDay = {
  readonly uid: string;
  readonly day: DayNumber;
  readonly summary: string;
  readonly description: string;
};

/**
 * Due days as an iCalendar file (RFC 5545): one all-day event each, lines folded at 75 octets, text escaped. `stamp` is the
 * instant it is written, in ISO 8601.
 */
export function calendarFile(name: string, events: readonly DueDay[], stamp: string): string {
  const at = stamp.replace(/[-:]|\.\d+/g, '');
  const date = (day: DayNumber) => fromDayNumber(day).replaceAll('-', '');
  const lines = [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//Tellan//Due days//EN',
    'CALSCALE:GREGORIAN',
    `X-WR-CALNAME:${escaped(name)}`,
    ...events.flatMap((e) => [
      'BEGIN:VEVENT',
      `UID:${escaped(e.uid)}`,
      `DTSTAMP:${at}`,
      `DTSTART;VALUE=DATE:${date(e.day)}`,
      `DTEND;VALUE=DATE:${date(e.day + 1)}`,
      `SUMMARY:${escaped(e.summary)}`,
      `DESCRIPTION:${escaped(e.description)}`,
      'TRANSP:TRANSPARENT',
      'END:VEVENT',
    ]),
    'END:VCALENDAR',
  ];
  return lines.map(folded).join('\r\n') + '\r\n';
}

const escaped = (text: string): string =>
  text
    .replace(/[\\;,]/g, (c) => `\\${c}`)
    .replace(/\r\n|\r|\n/g, '\\n')
    .replace(/[\u0000-\u0008\u000b-\u001f]/g, '');

const octets = (text: string): number => {
  const c = text.codePointAt(0)!;
  return c < 0x80 ? 1 : c < 0x800 ? 2 : c < 0x10000 ? 3 : 4;
};

/** A line in parts of at most 75 octets, those after the first begun by a space; no letter is cut in two. */
function folded(line: string): string {
  const out: string[] = [];
  let part = '';
  let size = 0;
  for (const letter of line) {
    const n = octets(letter);
    if (size + n > 75) {
      out.push(part);
      part = ' ';
      size = 1;
    }
    part += letter;
    size += n;
  }
  return [...out, part].join('\r\n');
}
