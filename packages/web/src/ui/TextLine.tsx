// One line of text that saves itself after a pause, on leaving it, and on Enter.
import { directionOf } from '@dusky-otter/core/html';
import type { ReactNode } from 'react';
import { useDraft } from '../screen/draft.ts';

interface Props {
  label: string;
  saved: string;
  /** Of what is written in. */
  version: number;
  most: number;
  save: (text: string, began: number) => void;
  /** What is wrong with a text, as a sentence: then it is not saved. */
  problemOf?: (text: string) => string | null;
  hint?: ReactNode;
  placeholder?: string;
  mono?: boolean;
  /** Of what is written; the screen's where left out. */
  language?: string;
}

export function TextLine({
  label,
  saved,
  version,
  most,
  save,
  problemOf,
  hint,
  placeholder,
  mono = false,
  language,
}: Props) {
  const draft = useDraft(saved, version, (text, began) => {
    if (!problemOf?.(text)) save(text, began);
  });
  const problem = draft.text === saved ? null : (problemOf?.(draft.text) ?? null);
  return (
    <label className="grid gap-1 text-[12px] text-ink-2">
      {label}
      <input
        className={`field text-[14px] text-ink ${mono ? 'font-figure' : ''}`}
        maxLength={most}
        lang={language}
        dir={language === undefined ? undefined : directionOf(language)}
        placeholder={placeholder}
        aria-invalid={problem !== null || undefined}
        value={draft.text}
        onChange={(event) => draft.change(event.target.value)}
        onBlur={() => {
          // What can't be saved stays in the field with its sentence: nothing that was typed is lost.
          if (!problem) draft.flush();
        }}
        onKeyDown={(event) => event.key === 'Enter' && !problem && draft.flush()}
      />
      {problem ? (
        <span role="alert" className="text-rust">
          {problem}
        </span>
      ) : (
        hint && <span>{hint}</span>
      )}
    </label>
  );
}
