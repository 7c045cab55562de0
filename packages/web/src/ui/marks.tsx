// Our own marks: the otter, the seal, the ring, and the signs for a state. State is never colour alone.
import type { Stop } from '@dusky-otter/core/contract';
import { SEAL_PARTS, type PartState, type Severity } from '@dusky-otter/core/readiness';

export function Mark() {
  return (
    <svg width="26" height="20" viewBox="0 0 26 20" fill="none" aria-hidden="true">
      <path
        d="M1 14c4-1 4-6 9-8 5-1.800 9 .4 10.500 2.600L25 10l-3.600 2c-2 3-5.400 4-8.400 3.600-4-.6-6 2.400-12 2.400"
        stroke="var(--focus)"
        strokeWidth="2"
        strokeLinecap="round"
        strokeLinejoin="round"
      />
      <circle cx="19.300" cy="10" r="1.100" fill="var(--focus)" />
    </svg>
  );
}

const SIGNS: Record<PartState, string> = { todo: '○', ready: '●', care: '▲', stop: '■' };
const TONES: Record<PartState, string> = {
  todo: 'text-ink-2',
  ready: 'text-moss',
  care: 'text-amber',
  stop: 'text-rust',
};

/** ○ to do, ● ready, ▲ needs care, ■ can't go out, with its words. */
export function StateTag({ state, children }: { state: PartState | Severity; children: React.ReactNode }) {
  return (
    <span
      className={`inline-flex items-baseline gap-1.5 text-[12px] font-[560] leading-tight ${TONES[state]}`}
    >
      <span aria-hidden="true">{SIGNS[state]}</span>
      <span>{children}</span>
    </span>
  );
}

const PART_NAMES: Record<Stop, string> = {
  frame: 'framed',
  weigh: 'weighed',
  describe: 'described',
  arrange: 'placed',
};
const STROKES: Record<PartState, { stroke: string; dash?: string }> = {
  ready: { stroke: 'var(--moss)' },
  todo: { stroke: 'var(--rule-strong)' },
  care: { stroke: 'var(--amber)', dash: '4 2' },
  stop: { stroke: 'var(--rust)', dash: '1.500 2' },
};

function arc(part: number): string {
  const from = (part * Math.PI) / 2 - Math.PI / 2 + 0.09;
  const to = from + Math.PI / 2 - 0.18;
  const point = (angle: number) =>
    `${(17 + 13 * Math.cos(angle)).toFixed(2)} ${(17 + 13 * Math.sin(angle)).toFixed(2)}`;
  return `M${point(from)}A13 13 0 0 1 ${point(to)}`;
}

/** Four arcs for framed, weighed, described, placed; whole when the photo can go out. */
export function Seal({ parts, title }: { parts: Record<Stop, PartState>; title: string }) {
  const ready = SEAL_PARTS.filter((part) => parts[part] === 'ready').length;
  const missing = SEAL_PARTS.filter((part) => parts[part] !== 'ready').map(
    (part) => `not ${PART_NAMES[part]}`,
  );
  const label =
    ready === 4 ? 'Ready: framed, weighed, described, placed' : `${ready} of 4: ${missing.join(', ')}`;
  return (
    <svg width="34" height="34" viewBox="0 0 34 34" role="img" aria-label={label}>
      <title>{title || label}</title>
      {SEAL_PARTS.map((part, index) => {
        const { stroke, dash } = STROKES[parts[part]];
        return (
          <path
            key={part}
            d={arc(index)}
            fill="none"
            strokeWidth="5"
            stroke={stroke}
            strokeDasharray={dash}
          />
        );
      })}
      <text
        x="17"
        y="21"
        textAnchor="middle"
        fontFamily="var(--font-figure)"
        fontSize="11"
        fontWeight="650"
        fill="var(--ink)"
      >
        {ready === 4 ? '✓' : `${ready}/4`}
      </text>
    </svg>
  );
}

/** How much of something is done, 0 to 1, as a ring. */
export function Ring({ part }: { part: number }) {
  const turn = 2 * Math.PI * 7;
  return (
    <svg width="18" height="18" viewBox="0 0 18 18" aria-hidden="true">
      <circle cx="9" cy="9" r="7" fill="none" stroke="var(--rule-strong)" strokeWidth="3.500" />
      <circle
        cx="9"
        cy="9"
        r="7"
        fill="none"
        stroke="var(--focus)"
        strokeWidth="3.500"
        strokeDasharray={`${turn * part} ${turn}`}
        transform="rotate(-90 9 9)"
      />
    </svg>
  );
}
