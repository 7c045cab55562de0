// A text that is being typed: saved after a pause, on leaving the field, and when the field goes away.
import { useCallback, useEffect, useRef, useState } from 'react';

const PAUSE = 700;

export interface Draft {
  text: string;
  change: (text: string) => void;
  flush: () => void;
}

/** `save` is called with the newest text only when it differs from what is saved. */
export function useDraft(saved: string, save: (text: string) => void): Draft {
  const [typed, setTyped] = useState<string | null>(null);
  const newest = useRef({ typed, saved, save });
  useEffect(() => {
    newest.current = { ...newest.current, saved, save };
  });
  const flush = useCallback(() => {
    const now = newest.current;
    if (now.typed !== null && now.typed !== now.saved) now.save(now.typed);
    now.typed = null;
    setTyped(null);
  }, []);
  useEffect(() => {
    if (typed === null) return;
    const timer = setTimeout(() => {
      const now = newest.current;
      if (now.typed !== null && now.typed !== now.saved) now.save(now.typed);
    }, PAUSE);
    return () => clearTimeout(timer);
  }, [typed]);
  useEffect(
    () => () => {
      const now = newest.current;
      if (now.typed !== null && now.typed !== now.saved) now.save(now.typed);
      now.typed = null;
    },
    [],
  );
  const change = useCallback((text: string) => {
    newest.current.typed = text;
    setTyped(text);
  }, []);
  return { text: typed ?? saved, change, flush };
}
