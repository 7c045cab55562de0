// What the checks say of a text while it is typed: each with its reason, an example, a mend, or a note that keeps it.
import type { Words } from '@dusky-otter/core/contract';
import {
  canBeKept,
  checkPhoto,
  isKept,
  LONGEST_NOTE,
  WORD_CHECKS,
  type WordExample,
  type WordFinding,
} from '@dusky-otter/core/words';
import { memo, useState } from 'react';
import { FIELD_NAMES, inWords } from '../editing/edits.ts';
import { useSite } from '../server/hooks.ts';
import { StateTag } from '../ui/marks.tsx';
import type { Described } from './described.ts';

const exampleText = ({ alt, caption, other, shown }: WordExample): string =>
  [
    alt ? `“${alt}”` : 'an empty alt text',
    caption && `with the caption “${caption}”`,
    shown && `on a picture that shows “${shown}”`,
    other && `beside another photo’s “${other}”`,
  ]
    .filter(Boolean)
    .join(' ');

function Why({ finding }: { finding: WordFinding }) {
  const entry = WORD_CHECKS.find(({ code }) => code === finding.code);
  if (!entry) return null;
  return (
    <dl className="mt-1 grid grid-cols-[auto_1fr] gap-x-2 gap-y-0.5 text-[12.5px] text-ink-2">
      <dt>Found:</dt>
      <dd>{exampleText(entry.found)}</dd>
      <dt>Good:</dt>
      <dd>{exampleText(entry.good)}</dd>
    </dl>
  );
}

function KeepForm({ name, keep, close }: { name: string; keep: (note: string) => void; close: () => void }) {
  const [note, setNote] = useState('');
  return (
    <form
      className="mt-1.5 flex gap-1.5"
      onSubmit={(event) => {
        event.preventDefault();
        keep(note.trim());
      }}
    >
      <input
        autoFocus
        className="field h-[28px] py-0"
        maxLength={LONGEST_NOTE}
        aria-label={`Why it is kept: ${name}`}
        placeholder="Why it stays, for whoever asks"
        value={note}
        onChange={(event) => setNote(event.target.value)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') close();
        }}
      />
      <button className="btn h-[28px]" disabled={note.trim() === ''}>
        Keep
      </button>
      <button type="button" className="btn h-[28px]" onClick={close}>
        Cancel
      </button>
    </form>
  );
}

/** Characters of a mend that are shown before it is made. */
const SHOWN = 110;
const shortened = (text: string): string =>
  text.length > SHOWN ? `${text.slice(0, SHOWN).trimEnd()}…` : text;

/** What a mend would make of the words; one that leaves nothing says so. */
function mendSaid(mend: Partial<Words>): { label: string; text: string } {
  const parts = Object.entries(mend).map(([field, text]) => ({
    field: field as keyof Words,
    text: inWords(text),
  }));
  const empties = parts.length === 1 && parts[0]!.text === '';
  const text = parts
    .map(
      ({ field, text: said }) =>
        `${FIELD_NAMES[field]}: ${said ? `“${shortened(said)}”` : 'empty, to be written anew'}`,
    )
    .join('; ');
  return { label: empties ? 'Take it out' : 'Mend', text };
}

interface Props {
  described: Described;
  /** As it stands in the field. */
  alt: string;
  sameAs: readonly string[];
  mend: (mend: Partial<Words>) => void;
  /** Puts the photos side by side whose words are alike; left out where it can't be done. */
  compare?: () => void;
}

export const Findings = memo(function Findings({ described, alt, sameAs, mend, compare }: Props) {
  const { row, language, save } = described;
  const [open, setOpen] = useState<{ code: string; what: 'why' | 'keep' } | null>(null);
  const words = { ...row.words, alt };
  // Said in the site's own language, of whichever one the words are.
  const site = useSite();
  const spoken = site?.languages[0] ?? language;
  const terms = site?.terms ?? [];
  const findings = checkPhoto(row, words, { sameAs, language, spoken, terms });
  const toggle = (code: string, what: 'why' | 'keep') =>
    setOpen(open?.code === code && open.what === what ? null : { code, what });
  const keep = (code: string, note: string) => {
    save({ kept: { ...row.words.kept, [code]: note } }, { done: ' changed' });
    setOpen(null);
  };
  const giveUp = (code: string) => {
    const { [code]: gone, ...kept } = row.words.kept;
    if (gone !== undefined) save({ kept }, { done: ' changed' });
  };
  return (
    <div aria-live="polite" data-findings>
      {findings.length === 0 && (
        <p className="py-1.5">
          <StateTag state="ready">
            {row.words.role === 'decorative' ? 'Decorative: leaves with an empty alt' : 'Words in order'}
          </StateTag>
        </p>
      )}
      <ul>
        {findings.map((finding) => {
          const { code, sentence, why } = finding;
          const kept = isKept(words, finding);
          const offered = finding.mend && !kept ? mendSaid(finding.mend) : null;
          return (
            <li key={code} className="border-b border-rule py-1.5 text-[13px]" data-finding={code}>
              <div className="flex flex-wrap items-baseline gap-x-2 gap-y-1">
                <StateTag state={kept ? 'ready' : finding.severity}>
                  {sentence}
                  {kept && ' – kept on purpose'}
                </StateTag>
                <span className="ml-auto flex flex-wrap gap-1">
                  {offered && (
                    <button
                      className="chip h-[24px]"
                      title={offered.text}
                      onClick={() => mend(finding.mend!)}
                    >
                      {offered.label}
                    </button>
                  )}
                  {code === 'same-alt' && compare && !kept && (
                    <button className="chip h-[24px]" onClick={compare}>
                      Compare
                    </button>
                  )}
                  <button
                    className="chip h-[24px]"
                    aria-expanded={open?.code === code && open.what === 'why'}
                    onClick={() => toggle(code, 'why')}
                  >
                    Why?
                  </button>
                  {kept ? (
                    <button className="chip h-[24px]" onClick={() => giveUp(code)}>
                      Look at it again
                    </button>
                  ) : (
                    canBeKept(code) && (
                      <button
                        className="chip h-[24px]"
                        aria-expanded={open?.code === code && open.what === 'keep'}
                        onClick={() => toggle(code, 'keep')}
                      >
                        Keep it
                      </button>
                    )
                  )}
                </span>
              </div>
              <p className="mt-0.5 text-[12.5px] text-ink-2">
                {kept ? `Note: ${row.words.kept[code]}` : why}
                {offered && ` It would be then: ${offered.text}.`}
              </p>
              {open?.code === code && open.what === 'why' && <Why finding={finding} />}
              {open?.code === code && open.what === 'keep' && (
                <KeepForm name={sentence} keep={(note) => keep(code, note)} close={() => setOpen(null)} />
              )}
            </li>
          );
        })}
      </ul>
    </div>
  );
});
