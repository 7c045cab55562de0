// A line that says what has just happened; it goes by itself, errors stay until they are put away.
import { useEffect } from 'react';
import { useScreen } from '../screen/screen.ts';

export function Notices() {
  const notice = useScreen((state) => state.notice);
  useEffect(() => {
    if (!notice || notice.tone === 'bad') return;
    const timer = setTimeout(() => useScreen.setState({ notice: null }), 5000);
    return () => clearTimeout(timer);
  }, [notice]);
  return (
    <div
      role="status"
      aria-live="polite"
      className="pointer-events-none fixed bottom-[58px] left-1/2 z-40 -translate-x-1/2"
    >
      {notice && (
        <div
          className={`pointer-events-auto flex items-center gap-3 rounded-paper border bg-raised px-3 py-2 ${notice.tone === 'bad' ? 'border-rust text-rust' : 'border-edge'}`}
        >
          <span className="max-w-[70ch]">{notice.text}</span>
          <button className="chip" onClick={() => useScreen.setState({ notice: null })}>
            Put away
          </button>
        </div>
      )}
    </div>
  );
}
