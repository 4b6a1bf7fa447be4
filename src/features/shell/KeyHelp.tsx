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
      ['Ctrl K', 'Do or find anything by typing its name'],
    ],
  ],
  [
    'The variance report',
    [
      ['Arrows', 'Move; up from the first row into the heads, where Enter changes a column'],
      ['Enter', 'To the explanation of the line'],
      ['] and [', 'The next flagged line that waits for a word, the one before'],
    ],
  ],
  [
    'The worksheet',
    [
      ['Arrows', 'Move; with Shift, select a range'],
      ['Home / End', 'First column / the year'],
      ['Ctrl Home / End', 'First line / last line'],
      ['Page Up / Down', 'A screen up / down'],
      [
        'Letters, 0–9, =',
        'Type over what is there: an amount, or a sum such as 52000/12 or +10%; arrows take it and move on',
      ],
      [
        'Enter or F2',
        'Change what is there; Enter again keeps it and goes down, Tab goes right, Esc leaves it as it was',
      ],
      ['Alt F', 'Fill the selection to the right with its first column'],
      ['Alt M, Alt Shift M', 'Carry the month on to those after it: of these lines, of every line'],
      ['Alt A, Alt P', 'Add or take an amount, a percentage, over the selection'],
      ['Alt T, Alt R', 'Set the selection’s total and spread it; round it, keeping the total'],
      ['Alt S', 'Swap the sign'],
      ['Alt C', 'Copy from other months or another budget'],
      ['Shift Delete', 'Make these months blank for every line'],
      ['Space', 'Select the whole line'],
      ['Delete', 'Make blank: nothing is said for the month'],
      ['Backspace', 'Restore what the method gives'],
      ['Ctrl C, X, V', 'Copy, cut and paste blocks, to and from spreadsheets'],
      ['Alt N, Alt L', 'Write the note of the line; mark it as looked at'],
      ['Ctrl Shift F', 'Find and filter lines'],
      ['Alt W', 'Give the sheet the whole window, and back'],
    ],
  ],
  ['Statements', [['D', 'The cash flow in its other form: from profit, or by whom']]],
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
