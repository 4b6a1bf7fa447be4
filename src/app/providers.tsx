'use client';

import type { ReactNode } from 'react';
import { MantineProvider } from '@mantine/core';
import { theme } from '@/components/theme';
import { Shell } from '@/features/shell/Shell';

export function Providers({ children, nonce }: { readonly children: ReactNode; readonly nonce?: string }) {
  return (
    <MantineProvider theme={theme} defaultColorScheme="auto" getStyleNonce={() => nonce ?? ''}>
      <Shell>{children}</Shell>
    </MantineProvider>
  );
}
