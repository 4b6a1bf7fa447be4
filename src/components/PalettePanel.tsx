'use client';

import { useMemo, useState } from 'react';
import { Modal, TextInput } from '@mantine/core';
import classes from './Palette.module.css';

type PaletteItem = {
  readonly id: string;
  readonly name: string;
  readonly of: string;
  readonly key?: string;
  readonly run: () => void;
};

const SHOWN = 60;

/** Whether all words of a query are in a text, anywhere. */
const meets = (text: string, words: readonly string[]): boolean => words.every((w) => text.includes(w));

/** Everything that can be done or gone to, found by typing. */
export function PalettePanel({
  items,
  onClose,
}: {
  readonly items: readonly PaletteItem[];
  readonly onClose: () => void;
}) {
  const [query, setQuery] = useState('');
  const [at, setAt] = useState(0);
  const found = useMemo(() => {
    const words = query.toLowerCase().split(/\s+/).filter(Boolean);
    return items.filter((i) => meets(`${i.name} ${i.of}`.toLowerCase(), words)).slice(0, SHOWN);
  }, [items, query]);
  const run = (item: PaletteItem | undefined) => {
    if (!item) return;
    onClose();
    item.run();
  };
  return (
    <Modal
      opened
      onClose={onClose}
      withCloseButton={false}
      padding={0}
      size={520}
      yOffset="14vh"
      centered={false}
    >
      <TextInput
        data-autofocus
        autoFocus
        size="sm"
        aria-label="Do or find"
        role="combobox"
        aria-expanded
        aria-controls="palette-list"
        aria-activedescendant={found[at] ? `palette-${at}` : undefined}
        placeholder="Do or find: a tool, a line by code or name, a budget"
        value={query}
        onChange={(e) => {
          setQuery(e.currentTarget.value);
          setAt(0);
        }}
        onKeyDown={(e) => {
          const step = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
          if (step !== 0) {
            e.preventDefault();
            setAt(Math.max(0, Math.min(found.length - 1, at + step)));
          } else if (e.key === 'Enter') run(found[at]);
        }}
      />
      <ul id="palette-list" role="listbox" aria-label="Found" className={classes.list}>
        {found.map((item, i) => (
          <li
            key={item.id}
            id={`palette-${i}`}
            role="option"
            aria-selected={i === at}
            ref={i === at ? (li) => li?.scrollIntoView({ block: 'nearest' }) : undefined}
            onPointerMove={() => i !== at && setAt(i)}
            onClick={() => run(item)}
          >
            <span>{item.name}</span>
            <span className={classes.of}>{item.key ? <kbd>{item.key}</kbd> : item.of}</span>
          </li>
        ))}
        {found.length === 0 && <li className="faded">Nothing is called that.</li>}
      </ul>
    </Modal>
  );
}
