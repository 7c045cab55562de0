// The arrangement as it will be, at a screen's width: real files, sketches of those that are not made. What changes is
// loaded behind what is shown, and takes its place when it is there: nothing flashes.
import { useEffect, useRef, useState } from 'react';

interface Props {
  address: string;
  width: number;
  height: number;
  scale: number;
  title: string;
}

interface Shown {
  /** Two frames take turns. */
  front: 0 | 1;
  sources: [string, string];
}

export function Proof({ address, width, height, scale, title }: Props) {
  const [{ front, sources }, setShown] = useState<Shown>({ front: 0, sources: [address, ''] });
  const loaded = useRef<[string, string]>(['', '']);
  const frames = useRef<(HTMLIFrameElement | null)[]>([null, null]);
  useEffect(() => {
    setShown((before) => {
      if (before.sources[before.front] === address) return before;
      const behind = before.front === 0 ? 1 : 0;
      // What stands behind already, and was seen before: it takes its place again.
      if (before.sources[behind] === address)
        return loaded.current[behind] === address ? { ...before, front: behind } : before;
      const next: Shown['sources'] = [...before.sources];
      next[behind] = address;
      return { ...before, sources: next };
    });
  }, [address]);
  const arrived = (n: 0 | 1) => {
    loaded.current[n] = sources[n];
    if (n === front || sources[n] !== address) return;
    // Where one was on the page, one stays.
    const top = frames.current[front]?.contentWindow?.scrollY ?? 0;
    frames.current[n]?.contentWindow?.scrollTo(0, top);
    setShown((before) => ({ ...before, front: n }));
  };
  return (
    <div className="relative bg-white" style={{ width: width * scale, height: height * scale }}>
      {([0, 1] as const).map((n) =>
        sources[n] === '' ? null : (
          <iframe
            key={n}
            ref={(frame) => {
              frames.current[n] = frame;
            }}
            title={n === front ? title : 'the same, being made'}
            aria-hidden={n !== front}
            tabIndex={n === front ? 0 : -1}
            src={sources[n]}
            sandbox="allow-same-origin allow-scripts"
            onLoad={() => arrived(n)}
            className="absolute left-0 top-0 origin-top-left border-0 bg-white"
            style={{
              width,
              height,
              transform: `scale(${scale})`,
              visibility: n === front ? 'visible' : 'hidden',
            }}
          />
        ),
      )}
    </div>
  );
}
