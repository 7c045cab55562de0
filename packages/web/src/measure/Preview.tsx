// The measured page small, with its pictures numbered; and the windows that it was looked at in.
import { SWEPT } from '@dusky-otter/core/pages';
import { useEffect, useRef } from 'react';
import type { AssembledPage } from './assemble.ts';
import { SealedFrame, UNSCROLLED } from './frame.ts';

/** One window of the page, small, with its pictures numbered. */
export function Preview({
  assembled,
  width,
  scale,
  labels,
}: {
  assembled: AssembledPage;
  width: number;
  scale: number;
  labels: (string | null)[];
}) {
  const element = useRef<HTMLIFrameElement>(null);
  const said = JSON.stringify(labels);
  useEffect(() => {
    if (!element.current) return;
    const frame = new SealedFrame(element.current);
    // A preview that does not come is not missed: the rows say the same.
    frame
      .open(assembled)
      .then(() => frame.mark(JSON.parse(said) as (string | null)[]))
      .catch(() => undefined);
    return () => frame.close();
  }, [assembled, said]);
  return (
    <figure>
      <figcaption className="mb-1 text-[12.5px] font-[560] text-[#1c1c1c]">{width} px window</figcaption>
      <div className="overflow-hidden bg-white" style={{ width: width * scale, height: 2200 * scale }}>
        <iframe
          ref={element}
          title={`The page in a window of ${width} px, its pictures numbered`}
          sandbox="allow-scripts"
          {...UNSCROLLED}
          tabIndex={-1}
          style={{ width, height: 2200, transform: `scale(${scale})`, transformOrigin: '0 0', border: 0 }}
        />
      </div>
    </figure>
  );
}

/** The windows that were looked at, and where widths change their rule. */
export function SweepLine({ windows, breaks }: { windows: readonly number[]; breaks: readonly number[] }) {
  const at = (window: number) => ((window - SWEPT.from) / (SWEPT.to - SWEPT.from)) * 428 + 4;
  return (
    <svg
      className="block w-full max-w-[436px]"
      viewBox="0 0 436 38"
      role="img"
      aria-label={`Looked at in ${windows.length} windows from ${SWEPT.from} to ${SWEPT.to} px. Widths change their rule at ${breaks.join(', ') || 'no window'}${breaks.length > 0 ? ' px' : ''}.`}
    >
      <path d="M4 12H432" stroke="var(--rule-strong)" />
      {windows.map((window) => (
        <path key={window} d={`M${at(window)} 7v10`} stroke="var(--kelp)" strokeWidth="1.5" />
      ))}
      {breaks.map((window, n) => (
        <g key={window} fill="var(--dusk)" fontSize="12" fontWeight="600">
          <path d={`M${at(window)} 1l4 6h-8z`} />
          {(n === 0 || at(window) - at(breaks[n - 1]!) > 34) && (
            <text x={Math.min(418, Math.max(16, at(window)))} y="33" textAnchor="middle">
              {Math.round(window)}
            </text>
          )}
        </g>
      ))}
    </svg>
  );
}
