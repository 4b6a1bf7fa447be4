'use client';

import { Dialog } from '@/components/Dialog';
import classes from './Shell.module.css';

const KEYS: readonly (readonly [title: string, keys: readonly (readonly [string, string])[]])[] = [
  [
    'Everywhere',
    [
      ['?', 'This page'],
      ['Ctrl Z', 'Undo'],
      ['Ctrl Shift Z', 'Redo'],
    ],
  ],
  [
    'The worksheet',
    [
      ['Arrows', 'Move; with Shift, select a range'],
      ['Home / End', 'First column / the year'],
      ['Ctrl Home / End', 'First line / last line'],
      ['Page Up / Down', 'A screen up / down'],
      ['0–9 − (', 'Type over what is there'],
      [
        'Enter or F2',
        'Change what is there; Enter again keeps it and goes down, Tab goes right, Esc leaves it as it was',
      ],
      ['>', 'Fill the selection to the right with its first column'],
      ['] and }', 'Carry the month on to those after it: of these lines, of every line'],
      ['a, p', 'Add or take an amount, a percentage, over the selection'],
      ['t, r', 'Set the selection’s total and spread it; round it, keeping the total'],
      ['~', 'Swap the sign'],
      ['c', 'Copy from other months or another budget'],
      ['Shift Delete', 'Make these months blank for every line'],
      ['Space', 'Select the whole line'],
      ['Delete', 'Make blank: nothing is said for the month'],
      ['Backspace', 'Restore what the method gives'],
      ['Ctrl C, X, V', 'Copy, cut and paste blocks, to and from spreadsheets'],
      ['n, l', 'Write the note of the line; mark it as looked at'],
      ['/', 'Find and filter lines'],
      ['w', 'Give the sheet the whole window, and back'],
      ['Ctrl K', 'Do or find anything by typing its name'],
    ],
  ],
  [
    'The ruler',
    [
      ['← →', 'Choose the month before / after'],
      ['Shift ← →', 'Widen the range, where a range can be chosen'],
    ],
  ],
];

/** The keys, by where they work. */
export function KeyHelp({ opened, onClose }: { readonly opened: boolean; readonly onClose: () => void }) {
  return (
    <Dialog opened={opened} onClose={onClose} title={<span className="title">Keys</span>} size="lg">
      {KEYS.map(([title, keys]) => (
        <section key={title}>
          <div className="label" style={{ marginBottom: 6 }}>
            {title}
          </div>
          <dl className={classes.keys}>
            {keys.map(([key, what]) => (
              <div key={key} style={{ display: 'contents' }}>
                <dt>
                  <kbd>{key}</kbd>
                </dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
    </Dialog>
  );
}
