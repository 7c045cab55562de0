// The middle of a bench: a page at one of four screens, with the choice of the screen above it.
import { useState } from 'react';
import { useSize } from '../ui/stage.ts';
import { Proof } from './Proof.tsx';
import { SCREENS, type ProofScreen } from './screens.ts';

export function ProofPane({ address, title }: { address: string; title: string }) {
  const [screen, setScreen] = useState<ProofScreen>(SCREENS[2]);
  const [pane, room] = useSize<HTMLDivElement>();
  const scale = Math.min(1, Math.max(280, room.width) / screen.width);
  // As much of the page as there is room for; where the pane is as high as its content, a screen's worth.
  const height = Math.max(screen.height, room.height / scale);
  return (
    <section className="flex min-h-0 min-w-0 flex-col bg-neutral" aria-label="Proof">
      <div
        role="group"
        aria-label="Screen"
        className="flex flex-wrap gap-1.5 border-b border-rule bg-sheet px-3 py-2"
      >
        {SCREENS.map((one) => (
          <button
            key={one.name}
            className="chip"
            aria-pressed={one === screen}
            onClick={() => setScreen(one)}
          >
            {one.name}, {one.width} px
          </button>
        ))}
      </div>
      <div
        ref={pane}
        className="min-h-0 flex-1 overflow-auto p-3"
        role="region"
        tabIndex={0}
        aria-label="Proof, scrolls"
      >
        <Proof
          key={screen.name}
          address={address}
          width={screen.width}
          height={height}
          scale={scale}
          title={`${title} at ${screen.width} px`}
        />
      </div>
    </section>
  );
}
