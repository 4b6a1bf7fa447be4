'use client';

import { useState } from 'react';
import dynamic from 'next/dynamic';
import type { ModalProps } from '@mantine/core';

const DialogPart = dynamic<ModalProps>(() => import('./DialogPart').then((m) => m.DialogPart));

/** A dialog, whose frame is loaded when one is opened first: no screen needs it to be drawn. */
export function Dialog(props: ModalProps) {
  const [wanted, setWanted] = useState(props.opened);
  if (props.opened && !wanted) setWanted(true);
  return wanted ? <DialogPart {...props} /> : null;
}
