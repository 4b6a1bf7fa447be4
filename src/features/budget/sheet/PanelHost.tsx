'use client';

import { memo, useDeferredValue, type RefObject } from 'react';
import { useDebouncedValue } from '@mantine/hooks';
import { lineKey } from '@/core/model';
import { ReasoningPanel } from '../reasoning/ReasoningPanel';

/** A line that the cursor only passes is not explained. */
const PANEL_REST_MS = 150;

export type PanelFacts = Omit<Parameters<typeof ReasoningPanel>[0], 'noteField'>;

/**
 * The reasoning panel of what is selected. It follows at once when the hand comes to rest on a line, and not at each
 * key of a hand in motion: the figure that was just typed never waits for it.
 */
export function PanelHost({
  panel,
  account,
  noteField,
}: {
  readonly panel: PanelFacts | null;
  readonly account: string | null;
  readonly noteField: RefObject<HTMLTextAreaElement | null>;
}) {
  const [settled] = useDebouncedValue(panel, PANEL_REST_MS, { leading: true });
  const shown = useDeferredValue(settled);
  return (
    // Of a line that the hand has left nothing can be pressed any more.
    <div style={linesOf(shown) === linesOf(panel) ? undefined : { pointerEvents: 'none' }}>
      <PanelOf panel={shown} account={account} noteField={noteField} />
    </div>
  );
}

const linesOf = (panel: PanelFacts | null): string | undefined => panel?.refs.map(lineKey).join();

const PanelOf = memo(function PanelOf({
  panel,
  account,
  noteField,
}: {
  readonly panel: PanelFacts | null;
  readonly account: string | null;
  readonly noteField: RefObject<HTMLTextAreaElement | null>;
}) {
  if (!panel)
    return (
      <p className="faded">
        {account
          ? 'The segments of this account are added up here. Choose one of them above to see how its line is made.'
          : 'Choose a line to see how it is made.'}
      </p>
    );
  return <ReasoningPanel key={linesOf(panel)} {...panel} noteField={noteField} />;
});
