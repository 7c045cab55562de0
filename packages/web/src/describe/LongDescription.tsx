// The long description: written here, or a link to a document that says it.
import { descriptionAddress } from '@dusky-otter/core/words';
import { lazy, Suspense, useState } from 'react';
import type { Described } from './described.ts';
import { useWordsDraft } from './TextField.tsx';

const LongEditor = lazy(async () => ({ default: (await import('./LongEditor.tsx')).LongEditor }));

export function LongDescription({
  described,
  onKey,
}: {
  described: Described;
  onKey: (event: KeyboardEvent) => boolean;
}) {
  const draft = useWordsDraft(described, 'longDescription');
  const address = descriptionAddress(draft.text);
  const [linking, setLinking] = useState(address !== null);
  return (
    <section aria-labelledby="long-description" data-long>
      <div className="mb-1 flex flex-wrap items-baseline gap-2">
        <h2 id="long-description" className="font-body text-[13.5px] font-semibold">
          Long description
        </h2>
        <small className="text-[12.5px] text-ink-2">folded below the photo</small>
      </div>
      {linking ? (
        <>
          <input
            className="field text-[15px]"
            inputMode="url"
            spellCheck={false}
            aria-label="Address of the document"
            placeholder="/firing-guide, or https://…"
            value={draft.text}
            onChange={(event) => draft.change(event.target.value)}
            onBlur={draft.flush}
          />
          <p className="mt-1 text-[12.5px] text-ink-2">
            {draft.text.trim() === '' || address
              ? 'The page links to it below the photo. The document must be readable by everybody, too.'
              : 'This is no address: it goes out as a text. An address begins with / or https://.'}
          </p>
        </>
      ) : (
        <Suspense fallback={<p className="text-ink-2">Opening…</p>}>
          <LongEditor draft={draft} language={described.language} label="Long description" onKey={onKey} />
        </Suspense>
      )}
      <span role="group" aria-label="How it is given" className="mt-1 flex gap-1">
        <button className="chip h-[24px]" aria-pressed={!linking} onClick={() => setLinking(false)}>
          Written here
        </button>
        <button className="chip h-[24px]" aria-pressed={linking} onClick={() => setLinking(true)}>
          In a document
        </button>
      </span>
    </section>
  );
}
