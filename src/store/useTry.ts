import { useRouter } from 'next/navigation';
import { useBookStore } from './bookStore';
import { setSession, type TryFrom } from './session';

/**
 * Tries a change of what stands here, in place of making it: goes to What-if with it begun. What is approved can be tried too;
 * null where the book is only read.
 */
export function useTry(): ((begin: TryFrom) => void) | null {
  const router = useRouter();
  const readOnly = useBookStore((s) => s.readOnly);
  if (readOnly) return null;
  return (trying) => {
    setSession({ trying });
    router.push('/whatif');
  };
}
