'use client';

import { ScreenStopped } from '@/features/shell/ScreenStopped';

/** A screen broke: the frame around it stands. */
export default function ErrorPage({ error, reset }: { readonly error: Error; readonly reset: () => void }) {
  return <ScreenStopped error={error} again={reset} />;
}
