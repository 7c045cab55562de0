// Words edited in place: the alt text with live checks and the role; at Describe also title, caption and credit.
import type { Role, Words, WordsText } from '@dusky-otter/core/contract';
import { checkPhoto, openFindings } from '@dusky-otter/core/words';
import { ROLES } from '../describe/roles.ts';
import { useDraft } from '../screen/draft.ts';
import { useSite, type Row } from '../server/hooks.ts';
import { StateTag } from '../ui/marks.tsx';
import { FIELD_NAMES, inWords, saveWords, wordsHold } from '../editing/edits.ts';

function RoleChoice({ row, short }: { row: Row; short: boolean }) {
  const { role } = row.words;
  const label = `Role of ${row.fileName}`;
  if (!short) {
    return (
      <div role="group" aria-label={label} className="flex flex-wrap gap-1">
        {ROLES.map(({ role: id, name }) => (
          <button
            key={id}
            className="chip"
            aria-pressed={role === id}
            onClick={() => saveWords(row, { role: role === id ? null : id })}
          >
            {name}
          </button>
        ))}
      </div>
    );
  }
  return (
    <select
      aria-label={label}
      className="h-[20px] rounded-paper border border-rule-strong bg-raised px-1 text-[12px] text-ink-2"
      value={role ?? ''}
      onChange={(event) => saveWords(row, { role: (event.target.value || null) as Role | null })}
    >
      <option value="">No role yet</option>
      {ROLES.map(({ role: id, name }) => (
        <option key={id} value={id}>
          {name}
        </option>
      ))}
    </select>
  );
}

/** What a mend would make of the words, for who asks before pressing. */
const mendInWords = (mend: Partial<Words>): string =>
  Object.entries(mend)
    .map(([field, text]) => `${FIELD_NAMES[field as keyof Words]}: ${inWords(text) || 'empty'}`)
    .join('; ');

/** The first finding with its reason and mend, or what is settled. */
function Finding({ row, alt }: { row: Row; alt: string }) {
  // Whose words are alike is known of what is saved, not of what is being typed.
  const sameAs = alt === row.words.alt ? row.sameAs : [];
  const language = useSite()?.languages[0] ?? 'en';
  const words = { ...row.words, alt };
  const [finding] = openFindings(words, checkPhoto(row, words, { sameAs, language }));
  if (row.toRead)
    return (
      <span
        className="inline-flex min-w-0 items-center gap-2"
        title="Another picture took this photo’s place; its words are those of the one before."
      >
        <StateTag state="care">Replaced: read again</StateTag>
        <button className="chip h-[22px]" onClick={() => wordsHold([row])}>
          They hold
        </button>
      </span>
    );
  if (!finding) {
    return (
      <StateTag state="ready">
        {row.words.role === 'decorative' ? 'Decorative: leaves with an empty alt' : 'Words in order'}
      </StateTag>
    );
  }
  return (
    <span className="inline-flex min-w-0 items-center gap-2" title={finding.why}>
      <StateTag state={finding.severity}>{finding.sentence}</StateTag>
      {finding.mend && (
        <button
          className="rounded-paper border border-rule-strong bg-raised px-1.5 text-[12px] hover:border-edge"
          onClick={() => saveWords(row, finding.mend!, { done: ' mended' })}
          title={mendInWords(finding.mend)}
        >
          Mend
        </button>
      )}
    </span>
  );
}

function TextField({
  row,
  field,
  label,
  lines = 1,
}: {
  row: Row;
  field: WordsText;
  label: string;
  lines?: number;
}) {
  const draft = useDraft(row.words[field], row.version, (text, began) =>
    saveWords(row, { [field]: text }, { began }),
  );
  const shared = {
    className: 'field mt-0.5 block resize-none text-[15px] leading-snug',
    lang: useSite()?.languages[0],
    dir: 'auto' as const,
    spellCheck: true,
    value: draft.text,
    onChange: (event: { target: { value: string } }) => draft.change(event.target.value),
    onBlur: draft.flush,
  };
  return (
    <label className="block min-w-0 text-[12px] text-ink-2">
      {label}
      {lines > 1 ? <textarea rows={lines} {...shared} /> : <input {...shared} />}
    </label>
  );
}

function AltField({
  row,
  rows,
  big,
  onText,
}: {
  row: Row;
  rows: number;
  big: boolean;
  onText?: (text: string) => React.ReactNode;
}) {
  const draft = useDraft(row.words.alt, row.version, (alt, began) => saveWords(row, { alt }, { began }));
  const decorative = row.words.role === 'decorative';
  const language = useSite()?.languages[0];
  return (
    <>
      <textarea
        rows={rows}
        data-alt-of={row.id}
        lang={language}
        dir="auto"
        spellCheck
        aria-label={`Alt text of ${row.fileName}`}
        disabled={decorative}
        className={`field block resize-none leading-snug disabled:border-dashed disabled:bg-transparent disabled:text-ink-3 ${big ? 'text-[15px]' : 'border-transparent bg-transparent px-1.5 py-1 hover:border-rule-strong hover:bg-raised focus:border-edge focus:bg-raised'} ${draft.text || decorative ? '' : 'border-dashed !border-edge !bg-raised'}`}
        placeholder={decorative ? 'Not read aloud' : 'What would someone miss without this picture?'}
        value={decorative ? '' : draft.text}
        onChange={(event) => draft.change(event.target.value)}
        onBlur={draft.flush}
      />
      {onText?.(draft.text)}
    </>
  );
}

/** The cell of the plain table. */
export function WordsCell({ row }: { row: Row }) {
  return (
    <AltField
      row={row}
      rows={2}
      big={false}
      onText={(alt) => (
        <div className="mt-1 flex items-center gap-x-3 gap-y-1 overflow-hidden whitespace-nowrap pl-1.5 max-[1120px]:flex-wrap">
          <RoleChoice row={row} short />
          <Finding row={row} alt={alt} />
        </div>
      )}
    />
  );
}

/** The wide cell at Describe. */
export function TextCell({ row }: { row: Row }) {
  return (
    <div className="grid grid-cols-[minmax(0,5fr)_minmax(0,4fr)] gap-4 max-[700px]:grid-cols-1">
      <div>
        <RoleChoice row={row} short={false} />
        <div className="mt-2">
          <AltField
            row={row}
            rows={3}
            big
            onText={(alt) => (
              <div className="mt-1 flex items-center gap-3">
                <Finding row={row} alt={alt} />
                <span className="ml-auto whitespace-nowrap text-[12px] text-ink-2">
                  {alt.length} characters
                </span>
              </div>
            )}
          />
        </div>
      </div>
      <div className="grid content-start gap-1.5">
        <div className="grid grid-cols-2 gap-2">
          <TextField row={row} field="title" label="Title, and file name" />
          <TextField row={row} field="credit" label="Credit" />
        </div>
        <TextField row={row} field="caption" label="Caption, shown to everyone" lines={2} />
        <TextField
          row={row}
          field="longDescription"
          label="Long description, folded below the photo"
          lines={2}
        />
      </div>
    </div>
  );
}
