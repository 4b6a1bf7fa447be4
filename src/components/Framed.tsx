'use client';

import { useMemo, type ReactNode } from 'react';
import { FrameContext, type Frame } from './pictureFrame';

/** What pictures within carry when they leave; the same object while it stays, so that none is drawn again for it. */
export function Framed({ message, of, children }: Frame & { readonly children: ReactNode }) {
  const frame = useMemo(() => ({ message, of }), [message, of]);
  return <FrameContext value={frame}>{children}</FrameContext>;
}
