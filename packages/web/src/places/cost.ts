// What a change of a place costs, asked once it rests: counting files goes through all photos of a site.
import type { Slot } from '@dusky-otter/core/contract';
import { useEffect, useMemo, useState } from 'react';
import { api } from '../api/client.ts';

const REST = 400;

/** What is being typed, once nothing has been changed for a moment. */
export function useRested<T>(value: T): T {
  const text = JSON.stringify(value);
  const [rested, setRested] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setRested(text), REST);
    return () => clearTimeout(timer);
  }, [text]);
  return useMemo(() => JSON.parse(rested) as T, [rested]);
}

/** Files that a place would make and let go; one answer for all that ask. */
export const costQuery = (setId: number, value: Slot, siteVersion: number) => ({
  queryKey: ['place-cost', setId, value, siteVersion],
  queryFn: () => api.placeCost(setId, value.id, value),
});
