import { useEffect, useState } from 'react';

/** Whether that many milliseconds have passed since this was first drawn. */
export function useAfter(millis: number): boolean {
  const [hasPassed, setPassed] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setPassed(true), millis);
    return () => clearTimeout(timer);
  }, [millis]);
  return hasPassed;
}
