// Texts between the pictures of a feed: a heading, a passage, or both, each before a picture or behind all of them.
import type { Arrangement, FeedOptions, FeedPart } from '@dusky-otter/core/contract';
import { beginningOf } from '@dusky-otter/core/html';
import { shownName } from '@dusky-otter/core/naming';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import { useSite, type Row } from '../server/hooks.ts';
import { TextLine } from '../ui/TextLine.tsx';
import { saveArrangement } from './edits.ts';

const PassageEditor = lazy(() => import('../editing/PassageEditor.tsx'));

interface Props {
  arrangement: Arrangement & { options: FeedOptions };
  rows: readonly Row[];
}

/** Open from the beginning where there is something to write; then as it is left. */
function Folded({ begun, children }: { begun: boolean; children: ReactNode }) {
  const [open, setOpen] = useState(begun);
  return (
    <details
      className="border-t border-rule pt-1.5"
      open={open}
      onToggle={({ currentTarget }) => setOpen(currentTarget.open)}
    >
      {children}
    </details>
  );
}

export function Between({ arrangement, rows }: Props) {
  const site = useSite()!;
  const { options } = arrangement;
  const put = (between: readonly FeedPart[], what: string, began?: number) =>
    saveArrangement(site, { ...arrangement, options: { ...options, between } }, what, began);
  const change = (n: number, part: Partial<FeedPart>, what: string, began?: number) =>
    put(
      options.between.map((one, at) => (at === n ? { ...one, ...part } : one)),
      what,
      began,
    );
  const nameOf = ({ heading, passage }: FeedPart) => heading.trim() || beginningOf(passage) || 'Empty text';
  return (
    <section className="grid gap-2 border-t border-rule-strong pt-3" aria-labelledby="texts-between">
      <h2 id="texts-between" className="font-title text-[14px] font-[600]">
        Texts between the pictures
      </h2>
      {options.between.map((part, n) => (
        <Folded key={n} begun={nameOf(part) === 'Empty text'}>
          <summary className="cursor-pointer truncate text-[13px]">{nameOf(part)}</summary>
          <div className="grid gap-2 py-2">
            <label className="grid gap-1 text-[12px] text-ink-2">
              Stands
              <select
                className="field"
                value={part.before ?? ''}
                onChange={({ target: { value } }) =>
                  change(n, { before: value === '' ? null : Number(value) }, 'place of a text')
                }
              >
                {rows.map((row) => (
                  <option key={row.id} value={row.id}>
                    before {shownName(row.words, row.fileName)}
                  </option>
                ))}
                {part.before !== null && !rows.some(({ id }) => id === part.before) && (
                  <option value={part.before}>before a picture that is gone: at the end</option>
                )}
                <option value="">behind all pictures</option>
              </select>
            </label>
            <TextLine
              label="Heading"
              most={200}
              saved={part.heading}
              version={site.version}
              save={(heading, began) => change(n, { heading }, 'heading', began)}
            />
            <Suspense fallback={<p className="text-ink-2">Opening…</p>}>
              <PassageEditor
                passage={part.passage}
                version={site.version}
                label={`Text ${n + 1} of ${arrangement.title}`}
                language={site.languages[0] ?? 'en'}
                save={(passage, began) => change(n, { passage }, 'text', began)}
              />
            </Suspense>
            <button
              className="chip justify-self-start"
              onClick={() =>
                put(
                  options.between.filter((_, at) => at !== n),
                  'text taken out',
                )
              }
            >
              Take this text out
            </button>
          </div>
        </Folded>
      ))}
      <button
        className="btn justify-self-start"
        onClick={() =>
          put([...options.between, { before: rows[0]?.id ?? null, heading: '', passage: [] }], 'another text')
        }
      >
        Another text
      </button>
    </section>
  );
}
