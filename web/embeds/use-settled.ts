import { useEffect, useState } from 'react';

const SETTLES_MILLIS = 350;

/** A value once it has stopped changing for a moment, for what is dear to show anew. */
export function useSettled<T>(value: T): T {
  const [settled, setSettled] = useState(value);
  const text = JSON.stringify(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(JSON.parse(text)), SETTLES_MILLIS);
    return () => clearTimeout(timer);
  }, [text]);
  return settled;
}
