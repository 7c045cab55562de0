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
  /** Which page of the arrangement each begins with: where one was, one stays. */
  pages: [string, string];
}

const withOne = ([first, second]: [string, string], n: 0 | 1, value: string): [string, string] =>
  n === 0 ? [value, second] : [first, value];

/** Where one is in a frame: how far down, and on which page of the arrangement. */
function placeIn(frame: HTMLIFrameElement | null | undefined): { top: number; page: string } {
  try {
    const { scrollY, location } = frame!.contentWindow!;
    return { top: scrollY, page: new URLSearchParams(location.search).get('page') ?? '1' };
  } catch {
    // Nothing there yet, or a link has led to a page of others.
    return { top: 0, page: '1' };
  }
}

const onPage = (address: string, page: string): string =>
  address === '' || page === '1' ? address : `${address}${address.includes('?') ? '&' : '?'}page=${page}`;

export function Proof({ address, width, height, scale, title }: Props) {
  const [{ front, sources, pages }, setShown] = useState<Shown>({
    ...{ front: 0, sources: [address, ''], pages: ['1', '1'] },
  });
  const loaded = useRef<[string, string]>(['', '']);
  const frames = useRef<(HTMLIFrameElement | null)[]>([null, null]);
  useEffect(() => {
    setShown((before) => {
      if (before.sources[before.front] === address) return before;
      const behind = before.front === 0 ? 1 : 0;
      // What stands behind already, and was seen before: it takes its place again.
      if (before.sources[behind] === address)
        return loaded.current[behind] === address ? { ...before, front: behind } : before;
      const { page } = placeIn(frames.current[before.front]);
      return {
        ...before,
        sources: withOne(before.sources, behind, address),
        pages: withOne(before.pages, behind, page),
      };
    });
  }, [address]);
  const arrived = (n: 0 | 1) => {
    loaded.current[n] = sources[n];
    if (n === front || sources[n] !== address) return;
    const { top, page } = placeIn(frames.current[front]);
    if (page !== pages[n]) {
      // Another page was chosen meanwhile: that one is waited for.
      setShown((before) => ({ ...before, pages: withOne(before.pages, n, page) }));
      return;
    }
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
            src={onPage(sources[n], pages[n])}
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
