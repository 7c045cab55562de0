// What may come a moment after the rest of its screen.
import { useDeferredValue, type ReactNode } from 'react';

/** Drawn in small pieces once everything around it is there, so that opening a screen never blocks the page for long. */
export function Later({ children }: { children: ReactNode }) {
  const due = useDeferredValue(true, false);
  return due ? children : null;
}
