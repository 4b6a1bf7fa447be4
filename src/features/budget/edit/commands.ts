import { minorDigits, numberFormatOf, parseAmount, parsePercent, unitOf, type Minor } from '@/core/money';
import type { Rect } from '@/core/sheet';
import { clearEdit, fillEdit, restoreEdit, type Edit, type EditContext } from './edits';
import { addAmount, carryOn, clearMonths, raiseBy, roundSelection, setTotal, swapSign } from './tools';

/** What a tool asks for before it does its work. */
export type Ask = { readonly label: string; readonly hint: string };

/** A tool over the selection: in the menu, by its key, and in the palette. */
export type Tool = {
  readonly id: string;
  readonly name: string;
  /** As it is pressed: letters alone are typed into the sheet, so tools have keys with Alt. */
  readonly key: string;
  readonly ask?: Ask;
  readonly run: (c: EditContext, rect: Rect, text: string) => Edit;
};

function amountOf(c: EditContext, text: string) {
  const read = parseAmount(text, minorDigits(c.book.currency), numberFormatOf(c.book.locale));
  return read.ok && read.value !== null && !read.percent ? read.value : null;
}

/** A tool that works with an amount; anything else typed is said. */
const withAmount =
  (tool: (c: EditContext, rect: Rect, amount: Minor) => Edit): Tool['run'] =>
  (c, rect, text) => {
    const amount = amountOf(c, text);
    return amount === null ? { trouble: 'That is not an amount.' } : tool(c, rect, amount);
  };

export const TOOLS: readonly Tool[] = [
  { id: 'fill', name: 'Fill right with the first column', key: 'Alt F', run: (c, r) => fillEdit(c, r) },
  { id: 'carry', name: 'Carry on to the months after', key: 'Alt M', run: (c, r) => carryOn(c, r, false) },
  {
    id: 'carryColumn',
    name: 'Carry on for every line, from here on',
    key: 'Alt Shift M',
    run: (c, r) => carryOn(c, r, true),
  },
  {
    id: 'add',
    name: 'Add or take an amount…',
    key: 'Alt A',
    ask: { label: 'Add to each month', hint: 'An amount; with a minus it is taken away' },
    run: withAmount(addAmount),
  },
  {
    id: 'percent',
    name: 'Add or take a percentage…',
    key: 'Alt P',
    ask: { label: 'Change each month by', hint: 'A percentage: 3 or −2.5' },
    run(c, r, text) {
      const p = parsePercent(text);
      return p === null ? { trouble: 'That is not a percentage.' } : raiseBy(c, r, p);
    },
  },
  {
    id: 'total',
    name: 'Set the total and spread it…',
    key: 'Alt T',
    ask: { label: 'Total of the selection', hint: 'Months change in proportion; blanks alone share evenly' },
    run: withAmount(setTotal),
  },
  {
    id: 'round',
    name: 'Round, keeping the total…',
    key: 'Alt R',
    ask: { label: 'Round months to', hint: '1, 10, 100, 1,000 …' },
    run(c, r, text) {
      const amount = amountOf(c, text);
      return amount === null || amount <= 0 || amount % unitOf(c.book.currency) !== 0
        ? { trouble: 'Write a whole amount to round to, such as 10 or 100.' }
        : roundSelection(c, r, amount);
    },
  },
  { id: 'turn', name: 'Swap the sign', key: 'Alt S', run: (c, r) => swapSign(c, r) },
  { id: 'clear', name: 'Make blank', key: 'Delete', run: (c, r) => clearEdit(c, r) },
  {
    id: 'clearMonths',
    name: 'Make these months blank for every line',
    key: 'Shift Delete',
    run: (c, r) => clearMonths(c, r),
  },
  {
    id: 'restore',
    name: 'Restore what the method gives',
    key: 'Backspace',
    run: (c, r) => restoreEdit(c, r),
  },
];

/** A key as lists of keys write it: "Alt F", "Alt Shift M". Letters go by their place, whatever Alt makes of them. */
export function keyPressed(e: {
  readonly key: string;
  readonly code: string;
  readonly altKey: boolean;
  readonly shiftKey: boolean;
  readonly ctrlKey: boolean;
  readonly metaKey: boolean;
}): string {
  const letter = /^Key([A-Z])$/.exec(e.code)?.[1] ?? e.key;
  return [
    e.ctrlKey || e.metaKey ? 'Ctrl' : '',
    e.altKey ? 'Alt' : '',
    e.shiftKey ? 'Shift' : '',
    letter.length === 1 ? letter.toUpperCase() : letter,
  ]
    .filter(Boolean)
    .join(' ');
}
