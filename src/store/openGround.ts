import { useEffect } from 'react';
import type { Ground } from '@/core/ground';
import { whenIdle } from './whenIdle';
import { saysOfCash, useCashChecks, useGround } from './ground';

const REST_MS = 400;

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
    if (!asks || useCashChecks.getState().reckon) return;
    const load = () =>
      import('@/core/checks/cashChecks').then(({ checkCash }) =>
        useCashChecks.setState({ reckon: checkCash }),
      );
    // Nobody waits for a check: what the screen itself shows comes first.
    return whenIdle([load], REST_MS);
  }, [asks]);
  return ground;
}
