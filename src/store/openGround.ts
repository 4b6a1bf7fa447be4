import { useEffect } from 'react';
import type { Ground } from '@/core/ground';
import { saysOfCash, useCashChecks, useGround } from './ground';

/**
 * The ground of an open book; for screens that are shown only when one is. With it come the checks of the money ahead:
 * asked for from here, where a screen has most of their code already, and not from the frame around it, they do not
 * bring that code a second time.
 */
export function useOpenGround(): Ground {
  const ground = useGround();
  if (!ground) throw new Error('No book is open');
  const asks = saysOfCash(ground.book);
  useEffect(() => {
    if (asks && !useCashChecks.getState().reckon)
      void import('@/core/checks/cashChecks').then(({ checkCash }) =>
        useCashChecks.setState({ reckon: checkCash }),
      );
  }, [asks]);
  return ground;
}
