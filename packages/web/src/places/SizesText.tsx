// The sizes attribute that a place comes to, by shape, to be copied.
import type { Slot } from '@dusky-otter/core/contract';
import { sizesOf } from '@dusky-otter/core/css';
import { ratioOf } from '@dusky-otter/core/geometry';
import { spanOf, widestByHeight } from '@dusky-otter/core/slots';
import { notify, notifyFailure } from '../screen/screen.ts';
import { HEAD, PART } from './fields.tsx';
import { shapeSaid } from './shapes-said.ts';

const ANY = { width: 1, height: 1 };

export function SizesText({ slot }: { slot: Slot }) {
  const texts = slot.shapes.map((part) => {
    // What a height leaves of a photo of its own shape hangs on the photo.
    const widest = part.shape === 'own' ? null : widestByHeight(slot, ratioOf(part.shape, ANY));
    return { part, text: sizesOf(slot.rule, spanOf(part), null, widest) };
  });
  const copy = () =>
    navigator.clipboard
      .writeText(texts.map(({ text }) => text).join('\n'))
      .then(() => notify('The sizes text is copied.'), notifyFailure);
  return (
    <section className={PART}>
      <div className={HEAD}>
        <span>
          The <span className="font-figure">sizes</span> text that comes out
        </span>
        <button
          className="ml-auto text-[12.5px] font-normal text-kelp underline underline-offset-2"
          onClick={() => void copy()}
        >
          Copy
        </button>
      </div>
      <pre className="whitespace-pre-wrap border border-rule bg-raised px-1.5 py-1 font-figure text-[12px]">
        {texts.map(({ part, text }) => (
          <span key={part.shape} className="block">
            {texts.length > 1 && (
              <span className="block font-body text-ink-2">
                {part.from > 0 ? `from ${part.from} px` : 'below'}, {shapeSaid(part.shape)}
              </span>
            )}
            {text}
          </span>
        ))}
      </pre>
    </section>
  );
}
