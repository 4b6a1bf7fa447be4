import { segmentName, type Account, type Axis, type LineRef } from '@/core/model';

/** What a line is called on the screen: its code, its name, and its segment where the budget has several. */
export const lineLabel = (
  account: Account | undefined,
  axis: Axis | null,
  { segment }: Pick<LineRef, 'segment'>,
): string =>
  [account?.code, account?.name, axis ? `· ${segmentName(axis, segment)}` : ''].filter(Boolean).join(' ');
