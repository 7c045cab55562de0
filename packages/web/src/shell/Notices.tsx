// Lines that say what has just happened; a plain one goes by itself, errors stay until they are put away.
import { useEffect } from 'react';
import type { Notice } from '../screen/notices.ts';
import { putAway, useScreen } from '../screen/screen.ts';

const READ_MS = 5000;

function Line({ notice }: { notice: Notice }) {
  useEffect(() => {
    if (notice.tone === 'bad') return;
    const timer = setTimeout(() => putAway(notice), READ_MS);
    return () => clearTimeout(timer);
  }, [notice]);
  return (
    <div
      className={`pointer-events-auto flex items-center gap-3 rounded-paper border bg-raised px-3 py-2 ${notice.tone === 'bad' ? 'border-rust text-rust' : 'border-edge'}`}
    >
      <span className="max-w-[70ch]">{notice.text}</span>
      <button className="chip" onClick={() => putAway(notice)}>
        Put away
      </button>
    </div>
  );
}

export function Notices() {
  const notices = useScreen((state) => state.notices);
  return (
    <div
      role="status"
      aria-live="polite"
      className="pointer-events-none fixed inset-x-3 bottom-[58px] z-40 flex max-h-[60vh] flex-col items-center gap-1.5 overflow-y-auto"
    >
      {notices.map((notice) => (
        <Line key={`${notice.tone} ${notice.text}`} notice={notice} />
      ))}
    </div>
  );
}
