// A box to tick with its name beside it.
import type { ReactNode } from 'react';

interface Props {
  checked: boolean;
  set: (on: boolean) => void;
  /** Of the line it stands in. */
  className?: string;
  children: ReactNode;
}

export const Tick = ({ checked, set, className = '', children }: Props) => (
  <label className={`flex items-baseline gap-2 ${className}`}>
    <input
      type="checkbox"
      className="size-[15px] shrink-0 translate-y-[2px] accent-kelp"
      checked={checked}
      onChange={(event) => set(event.target.checked)}
    />
    {children}
  </label>
);
