// What is tried at the Arrange bench and not kept yet: it is there again when one comes back, and each kind keeps the
// options that it was tried with. Kept in the window alone, for as long as it is open.
import { optionsFor } from '@dusky-otter/core/arrange';
import type { Arranged, ArrangementKind, ArrangementOptions } from '@dusky-otter/core/contract';
import { create } from 'zustand';
import { createJSONStorage, persist } from 'zustand/middleware';

/** Arrangements whose tries are kept; the oldest go. */
const KEPT = 40;

type Tried = Pick<Arranged, 'options' | 'container'>;

interface Tries {
  /** What is shown in place of what is kept; null: what is kept. */
  tried: Tried | null;
  /** Options by kind, as they were tried last. */
  kinds: Partial<Record<ArrangementKind, ArrangementOptions>>;
}

const NONE: Tries = { tried: null, kinds: {} };

export const useTries = create<{ of: Record<string, Tries> }>()(
  persist(() => ({ of: {} }), { name: 'tries', storage: createJSONStorage(() => sessionStorage) }),
);

export interface Trial {
  tried: Tried | null;
  /** Shows something in place of what is kept. */
  change: (tried: Tried) => void;
  /** Shows what is kept again; what was tried comes back with its kind. */
  leave: () => void;
  /** Nothing was tried: it is kept now. */
  forget: () => void;
  /** Options of a kind: as they were tried, else what can be taken over from others. */
  optionsOf: (kind: ArrangementKind, from: ArrangementOptions) => ArrangementOptions;
}

const same = (a: Tried, b: Tried): boolean => JSON.stringify(a) === JSON.stringify(b);

/** What is tried of an arrangement. @param name names it among all sites */
export function useTrial(name: string, kept: Tried): Trial {
  const { tried, kinds } = useTries((state) => state.of[name]) ?? NONE;
  const put = (next: Tries) =>
    useTries.setState(({ of }) => {
      const others = Object.entries(of).filter(([other]) => other !== name);
      return { of: Object.fromEntries([...others.slice(1 - KEPT), [name, next]]) };
    });
  return {
    tried,
    change: ({ options, container }) => {
      // As it is kept, nothing is tried.
      const isKept = same({ options, container }, { options: kept.options, container: kept.container });
      put({ tried: isKept ? null : { options, container }, kinds: { ...kinds, [options.kind]: options } });
    },
    leave: () => put({ tried: null, kinds }),
    forget: () => put(NONE),
    optionsOf: (kind, from) =>
      kind === kept.options.kind ? (kinds[kind] ?? kept.options) : (kinds[kind] ?? optionsFor(kind, from)),
  };
}
