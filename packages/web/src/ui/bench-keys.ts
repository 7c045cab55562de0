// Keys of a bench that are not about the thing in focus.
import { useEffect } from 'react';
import { isTyping } from './typing.ts';

/** True where a key is meant for something else: a text, a menu of the browser, a dialog. */
export const isTaken = (event: KeyboardEvent): boolean =>
  isTyping(event.target) ||
  event.ctrlKey ||
  event.metaKey ||
  event.altKey ||
  document.querySelector('[role="dialog"]') !== null;

export function useBenchKeys(keys: Record<string, () => void>): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const action = isTaken(event) ? undefined : keys[event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  });
}
