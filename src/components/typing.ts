/** What stood in text fields when they were come to: undo belongs to the field only once something was typed into it. */
const began = new WeakMap<Element, string>();

const isTextField = (target: EventTarget | null): target is HTMLInputElement | HTMLTextAreaElement =>
  target instanceof HTMLTextAreaElement ||
  (target instanceof HTMLInputElement &&
    !/^(checkbox|radio|button|submit|file|range|color)$/.test(target.type));

/** Remembers what a field held when it was come to; to be told of every focus. */
export function noticeFocus(target: EventTarget | null): void {
  if (isTextField(target)) began.set(target, target.value);
}

/** Whether text is being typed there: keys belong to the text then. */
export const isTyping = (target: EventTarget | null): boolean =>
  isTextField(target) || (target instanceof HTMLElement && target.isContentEditable);

/** Whether something was typed into the field since it was come to, which its own undo takes back. */
export const hasTyped = (target: EventTarget | null): boolean =>
  isTextField(target)
    ? began.has(target)
      ? began.get(target) !== target.value
      : target.value !== target.defaultValue
    : target instanceof HTMLElement && target.isContentEditable;

/** What was typed in a field is taken, and the hand stays in it: an undo is the book's again, once it is drawn anew. */
export function typingTaken(field: HTMLInputElement): void {
  requestAnimationFrame(() => began.set(field, field.value));
}

/** Whether a dialog is over the screen there. */
export const inDialog = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('[role="dialog"]') !== null;
