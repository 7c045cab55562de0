// The head of a stop or a bench: its name, and what can be done there.
import type { ReactNode } from 'react';

interface Props {
  title: string;
  /** It stays on one line, and the name is cut off before what stands beside it, until the window is narrower than that. */
  oneLine?: 'to 900' | 'to 1000';
  children?: ReactNode;
}

const LINES = {
  several: 'flex-wrap py-2',
  'to 900': 'max-[900px]:flex-wrap max-[900px]:py-2',
  'to 1000': 'max-[1000px]:flex-wrap max-[1000px]:py-2',
} as const;

export const Head = ({ title, oneLine, children }: Props) => (
  <div
    className={`flex min-h-[52px] shrink-0 items-center gap-2.5 border-b border-rule px-4 ${LINES[oneLine ?? 'several']}`}
  >
    <h1
      className={`mr-1.5 text-[20px] font-[620] tracking-[-.015em] ${oneLine ? 'truncate leading-tight' : 'leading-none'}`}
    >
      {title}
    </h1>
    {children}
  </div>
);
