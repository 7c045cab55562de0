// A text of a photo: saved while one types and on leaving, in the language that is written in.
import type { WordsText } from '@dusky-otter/core/contract';
import { useDraft } from '../screen/draft.ts';
import type { Described } from './described.ts';

interface Props {
  described: Described;
  field: WordsText;
  label: string;
  hint?: string;
  /** Rows of a text of several lines; one line where left out. */
  rows?: number;
}

export const useWordsDraft = ({ row, save }: Described, field: WordsText) =>
  useDraft(row.words[field], row.version, (text, began) => save({ [field]: text }, { began }));

export function TextField({ described, field, label, hint, rows }: Props) {
  const draft = useWordsDraft(described, field);
  const shared = {
    className: 'field resize-none text-[15px] leading-snug',
    value: draft.text,
    'data-field': field,
    onChange: (event: { target: { value: string } }) => draft.change(event.target.value),
    onBlur: draft.flush,
    ...(field === 'link'
      ? { inputMode: 'url' as const, spellCheck: false, autoCapitalize: 'none' }
      : { lang: described.language, spellCheck: true, dir: 'auto' as const }),
  };
  return (
    <label className="block">
      <span className="mb-1 flex items-baseline gap-2 text-[13.5px] font-semibold">
        {label}
        {hint && <small className="ml-auto text-[12.5px] font-normal text-ink-2">{hint}</small>}
      </span>
      {rows === undefined ? <input {...shared} /> : <textarea rows={rows} {...shared} />}
    </label>
  );
}
