// A text that is being typed: saved after a pause, on leaving the field, and when the field goes away.
import { useCallback, useEffect, useRef, useState } from 'react';

const PAUSE = 700;

export interface Draft {
  text: string;
  change: (text: string) => void;
  flush: () => void;
}

/**
 * `save` is called with the newest text only when it differs from what is saved, and with the version on which the
 * typing was begun: what another window writes meanwhile must not be written over unseen.
 */
export function useDraft(saved: string, version: number, save: (text: string, began: number) => void): Draft {
  const [typed, setTyped] = useState<string | null>(null);
  const newest = useRef({ typed, saved, version, began: version, sent: null as string | null, save });
  useEffect(() => {
    newest.current = { ...newest.current, saved, version, save };
  });
  const settle = useCallback(() => {
    const now = newest.current;
    // What was sent already is not sent again: another window may have written over it knowingly.
    if (now.typed === null || now.typed === now.saved || now.typed === now.sent) return;
    now.sent = now.typed;
    now.save(now.typed, now.began);
  }, []);
  const flush = useCallback(() => {
    settle();
    newest.current.typed = null;
    setTyped(null);
  }, [settle]);
  useEffect(() => {
    if (typed === null) return;
    const timer = setTimeout(settle, PAUSE);
    return () => clearTimeout(timer);
  }, [typed, settle]);
  useEffect(() => {
    // The page itself may go, by Back or a reload: what was typed is kept before it does.
    window.addEventListener('pagehide', settle);
    return () => {
      window.removeEventListener('pagehide', settle);
      settle();
      newest.current.typed = null;
    };
  }, [settle]);
  const change = useCallback((text: string) => {
    const now = newest.current;
    if (now.typed === null) [now.began, now.sent] = [now.version, null];
    now.typed = text;
    setTyped(text);
  }, []);
  return { text: typed ?? saved, change, flush };
}
