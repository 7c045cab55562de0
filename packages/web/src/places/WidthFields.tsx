// A width said in words or typed as CSS: both are shown, whichever was written, with the error at its character.
import { UnknownWords, type CssError } from '@dusky-otter/core/css';
import { useId, useState } from 'react';
import { widthRead } from './drafts.ts';

const SAYINGS = [
  'half of a 1140 px column',
  '4 across with 16 px between in 1200 px',
  'at most 960 × 720',
  '420 px column',
  'three in a row, one on phones',
  'half the text column, full width on phones',
];

/** The sentence under a text, with a pointer at the character that can't be read. */
export function WidthError({ id, error }: { id: string; error: CssError }) {
  const { text, position, message } = error;
  return (
    <p id={id} role="alert" className="relative pt-4 text-[12.5px] leading-snug text-rust">
      {!(error instanceof UnknownWords) && (
        <span
          aria-hidden="true"
          className="absolute left-[10px] top-[-1px] overflow-hidden whitespace-pre font-figure text-[12.5px] leading-none"
          style={{ maxWidth: '100%' }}
        >
          <span className="invisible">{text.slice(0, position)}</span>▲
        </span>
      )}
      <b>■</b> {message}
    </p>
  );
}

/** What was taken for granted in a width. */
export function WidthNotes({ notes }: { notes: readonly string[] }) {
  return notes.length === 0 ? null : <p className="mt-1 text-[12.5px] text-ink-2">{notes.join(' ')}</p>;
}

interface Props {
  text: string;
  change: (text: string) => void;
}

export function WidthFields({ text, change }: Props) {
  const id = useId();
  const { read, error, mend } = widthRead(text);
  // What can't be read stays in the field it is being typed in.
  const [typedAs, setTypedAs] = useState<'words' | 'css'>(read && !read.words ? 'css' : 'words');
  const words = read ? (read.words ? text : '') : typedAs === 'words' ? text : '';
  const css = read ? read.css : typedAs === 'css' ? text : '';
  const told = error ? { 'aria-invalid': true, 'aria-describedby': `${id}-error` } : {};
  return (
    <>
      <section>
        <label htmlFor={`${id}-words`} className="font-[650]">
          Say how wide it is
        </label>
        <input
          id={`${id}-words`}
          className="field mt-1"
          value={words}
          maxLength={500}
          placeholder="such as: half of a 1140 px column"
          onChange={(event) => {
            setTypedAs('words');
            change(event.target.value);
          }}
          {...(typedAs === 'words' && told)}
        />
        <div className="mt-1.5 flex flex-wrap gap-x-3 gap-y-0.5 text-[12.5px]">
          {SAYINGS.filter((saying) => saying !== text).map((saying) => (
            <button
              key={saying}
              className="text-left text-kelp underline underline-offset-2"
              onClick={() => {
                setTypedAs('words');
                change(saying);
              }}
            >
              {saying}
            </button>
          ))}
        </div>
      </section>
      <section className="mt-2.5 border-t border-rule pt-2.5">
        <label htmlFor={`${id}-css`} className="font-[650]">
          Type it as CSS
        </label>
        <input
          id={`${id}-css`}
          className="field mt-1 font-figure text-[12.5px]"
          spellCheck={false}
          maxLength={500}
          // As it is typed: read and written anew, the cursor would jump.
          value={typedAs === 'css' && !read?.words ? text : css}
          onChange={(event) => {
            setTypedAs('css');
            change(event.target.value);
          }}
          {...(typedAs === 'css' && told)}
        />
        {error ? (
          <>
            <WidthError id={`${id}-error`} error={error} />
            <p className="mt-1 text-[12.5px] text-ink-2">
              Drawn as last understood.{' '}
              {error instanceof UnknownWords &&
                'Say it like one of those above, or measure it on a page of the site. '}
              {mend !== null && (
                <button className="chip ml-1" onClick={() => change(mend)}>
                  Mend it: <span className="font-figure">{mend}</span>
                </button>
              )}
            </p>
          </>
        ) : null}
        <WidthNotes notes={read?.notes ?? []} />
      </section>
    </>
  );
}
