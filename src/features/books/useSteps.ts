import { useEffect, useState } from 'react';

const STEP_MS = 24;

/** Counts up to a number of steps, each after the one before has been painted: large pages come part by part. */
export function useSteps(most: number): number {
  const [step, setStep] = useState(0);
  useEffect(() => {
    if (step >= most) return;
    const timer = setTimeout(() => setStep(step + 1), STEP_MS);
    return () => clearTimeout(timer);
  }, [step, most]);
  return step;
}
