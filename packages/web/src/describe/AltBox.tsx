// The alt text with what the checks say of it.
import type { Words } from '@dusky-otter/core/contract';
import type { Described } from './described.ts';
import { Findings } from './Findings.tsx';
import { roleOf } from './roles.ts';
import { useWordsDraft } from './TextField.tsx';
import { useCallback, useDeferredValue, useEffect, useRef, useState } from 'react';

const field = () => document.querySelector<HTMLTextAreaElement>('[data-field="alt"]');

const NONE: readonly string[] = [];

export function AltBox({ described, compare }: { described: Described; compare?: () => void }) {
  const { row, save, language } = described;
  const draft = useWordsDraft(described, 'alt');
  // Letters are drawn first; what the checks say of them follows.
  const checked = useDeferredValue(draft.text);
  const [taken, setTaken] = useState<string | null>(null);
  const decorative = row.words.role === 'decorative';
  const newest = useRef(draft);
  useEffect(() => {
    newest.current = draft;
  });
  // The same function as long as nothing but letters change: what the checks say is not drawn again for each.
  const mend = useCallback(
    (change: Partial<Words>) => {
      const { text, flush } = newest.current;
      flush();
      save(change, { done: ' mended' });
      // Who mends goes on writing; and what was taken out can be looked at, and put back.
      setTaken(change.alt === '' ? text : null);
      field()?.focus();
    },
    [save],
  );
  const putBack = () => {
    if (taken !== null) save({ alt: taken }, { done: ' put back' });
    setTaken(null);
    field()?.focus();
  };
  return (
    <div>
      <label className="block">
        <span className="mb-1 flex items-baseline gap-2 text-[13.5px] font-semibold">
          Alt text
          <small className="ml-auto text-[12.5px] font-normal text-ink-2">
            {Array.from(draft.text).length} characters
          </small>
        </span>
        <textarea
          rows={3}
          data-field="alt"
          disabled={decorative && draft.text === ''}
          className="field resize-none text-[15px] leading-snug disabled:border-dashed disabled:bg-transparent disabled:text-ink-3"
          lang={language}
          dir="auto"
          spellCheck
          placeholder={roleOf(row.words.role)?.ask ?? 'What would someone miss without this picture?'}
          value={draft.text}
          onChange={(event) => {
            setTaken(null);
            draft.change(event.target.value);
          }}
          onBlur={draft.flush}
        />
      </label>
      {taken !== null && draft.text === '' && (
        <p role="status" className="mt-1 flex flex-wrap items-baseline gap-2 text-[13px]">
          Taken out: “{taken}”
          <button className="chip h-[24px]" onClick={putBack}>
            Put back
          </button>
        </p>
      )}
      <Findings
        described={described}
        alt={checked}
        // Whose words are alike is known of what is saved, not of what is being typed.
        sameAs={checked === row.words.alt ? row.sameAs : NONE}
        mend={mend}
        {...(compare && { compare })}
      />
    </div>
  );
}
