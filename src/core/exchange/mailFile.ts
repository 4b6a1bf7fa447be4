import { wholeLetters } from '@/core/model';
import { base64Of } from './base64';

/** A message with one file beside it, ready for someone's mail program. */
export type MailDraft = {
  readonly from: { readonly name: string; readonly address: string };
  readonly to: { readonly name: string; readonly address: string };
  readonly subject: string;
  readonly text: string;
  readonly attachment: { readonly name: string; readonly type: string; readonly bytes: Uint8Array };
  /** The instant it is written, in ISO 8601, and something that no other message has. */
  readonly at: string;
  readonly id: string;
};

/**
 * A message by RFC 5322 with MIME parts (RFC 2045, 2046), words beyond ASCII in heads by RFC 2047, the file's name by RFC 2231,
 * and everything but heads in base64. It is marked as not sent yet (`X-Unsent`), as mail programs do with drafts.
 */
export function mailFile({ from, to, subject, text, attachment, at, id }: MailDraft): string {
  const edge = `=_tellan_${id.replace(/[^A-Za-z0-9]/g, '')}`;
  const { name, type, bytes } = attachment;
  return [
    `From: ${mailbox(from)}`,
    `To: ${mailbox(to)}`,
    `Subject: ${words(subject, 'Subject: '.length)}`,
    `Date: ${mailDate(at)}`,
    `Message-ID: <${id.replace(/[^A-Za-z0-9.-]/g, '-')}@tellan.invalid>`,
    'X-Unsent: 1',
    'MIME-Version: 1.0',
    `Content-Type: multipart/mixed; boundary="${edge}"`,
    '',
    `--${edge}`,
    'Content-Type: text/plain; charset=utf-8',
    'Content-Transfer-Encoding: base64',
    '',
    ...lines(base64Of(new TextEncoder().encode(text.replace(/\r\n|\r|\n/g, '\r\n')))),
    `--${edge}`,
    `Content-Type: ${type}`,
    'Content-Transfer-Encoding: base64',
    'Content-Disposition: attachment;',
    ` filename*=utf-8''${encodeURIComponent(wholeLetters(name)).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`)}`,
    '',
    ...lines(base64Of(bytes)),
    `--${edge}--`,
    '',
  ].join('\r\n');
}

/* Node, workers and browsers alike have it; its shape is told here as for TextDecoder. */
declare const TextEncoder: { new (): { encode(text: string): Uint8Array } };

/** Base64 in lines of at most 76 letters. */
const lines = (text: string): string[] => text.match(/.{1,76}/g) ?? [''];

/** Whether an address can stand in a head as it is: no spaces, angles or line ends. */
export const isAddress = (address: string): boolean =>
  /^[^\s<>@"(),;:\\[\]]+@[^\s<>@"(),;:\\[\]]+$/.test(address);

function mailbox({ name, address }: MailDraft['to']): string {
  const plain = isAddress(address) ? address : 'nobody@invalid';
  const said = name.replace(/[\u0000-\u001f]+/g, ' ').trim();
  return said === '' ? plain : `${words(said, 6)}\r\n <${plain}>`;
}

/** Words of a head: as they are where they are plain, else encoded in parts of at most 75 letters, folded. */
function words(text: string, before: number): string {
  const plain = text.replace(/[\u0000-\u001f]+/g, ' ').trim();
  if (
    /^[A-Za-z0-9 !#$%&'*+\-/=^_`{|}~.,:?]*$/.test(plain) &&
    plain.length + before <= 74 &&
    !plain.includes('=?')
  )
    return /[.,:?]/.test(plain) && before === 6 ? `"${plain}"` : plain;
  const parts: string[] = [];
  let part = '';
  // 39 octets become 52 letters; the frame around them has twelve, the head's name ten at most. No letter is cut in two.
  for (const letter of plain) {
    if (new TextEncoder().encode(part + letter).length > 39) {
      parts.push(part);
      part = '';
    }
    part += letter;
  }
  parts.push(part);
  return parts.map((p) => `=?utf-8?B?${base64Of(new TextEncoder().encode(p))}?=`).join('\r\n ');
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** An ISO 8601 instant of UTC as RFC 5322 writes it. */
function mailDate(at: string): string {
  const [, year, month, day, time] = /^(\d{4})-(\d\d)-(\d\d)T(\d\d:\d\d:\d\d)/.exec(at) ?? [];
  if (!year) return 'Thu, 01 Jan 1970 00:00:00 +0000';
  return `${Number(day)} ${MONTHS[Number(month) - 1]} ${year} ${time} +0000`;
}
