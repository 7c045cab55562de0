// The reading preview: what a screen reader says of the page, in order, from the markup that goes out.
import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { api, sentenceOf } from '../api/client.ts';
import { notifyFailure } from '../screen/screen.ts';
import { usePreparation } from '../server/hooks.ts';
import { aloud, announcementsOf, type Announcement } from './announce.ts';
import { readLive } from './live-page.ts';

function One({ one, here = false }: { one: Announcement; here?: boolean }) {
  return (
    <li
      className="border-l-2 border-rule-strong py-1 pl-2.5 text-ink-2 data-[care=true]:border-amber data-[here=true]:border-focus data-[here=true]:bg-sheet"
      data-care={one.care !== null}
      data-here={here}
      {...(here && { 'aria-current': true })}
    >
      {one.role && <span>{one.role}</span>}
      {one.role && one.text && ', '}
      {one.text && (
        <b className="font-[560] text-ink" {...(one.language && { lang: one.language })}>
          {one.text}
        </b>
      )}
      {one.care && <small className="block text-[12px] text-amber">▲ {one.care}</small>}
      {one.inside.length > 0 && (
        <ol className="mt-0.5">
          {one.inside.map((inner, n) => (
            <One key={n} one={inner} />
          ))}
        </ol>
      )}
    </li>
  );
}

/** Reads announcements by the browser's own voice, one after the other. */
function useVoice(list: readonly Announcement[], language: string) {
  const [speaking, setSpeaking] = useState(false);
  const voice = 'speechSynthesis' in window ? window.speechSynthesis : null;
  useEffect(() => () => voice?.cancel(), [voice]);
  const stop = () => {
    voice?.cancel();
    setSpeaking(false);
  };
  const start = () => {
    if (!voice) return;
    voice.cancel();
    list.forEach((one, n) => {
      const said = new SpeechSynthesisUtterance(aloud(one));
      said.lang = one.language ?? language;
      if (n === list.length - 1) said.onend = () => setSpeaking(false);
      said.onerror = () => setSpeaking(false);
      voice.speak(said);
    });
    setSpeaking(list.length > 0);
  };
  return { can: voice !== null, speaking, start, stop };
}

/** Figures however deep they stand. */
const figuresIn = (list: readonly Announcement[]): number =>
  list.reduce((sum, { role, inside }) => sum + (role === 'figure' ? 1 : 0) + figuresIn(inside), 0);

/** What is heard of a page, the one before until another one was read. */
function useAnnouncements(html: string | undefined, setId: number, whole: boolean): Announcement[] {
  const [heard, setHeard] = useState<Announcement[]>([]);
  useEffect(() => {
    if (html === undefined) return;
    const gone = new AbortController();
    readLive(html, setId, gone.signal, ({ body }) =>
      announcementsOf(whole ? body : (body.querySelector('main') ?? body)),
    ).then(setHeard, (error: unknown) => {
      if (!gone.signal.aborted) notifyFailure(error);
    });
    return () => gone.abort();
  }, [html, setId, whole]);
  return heard;
}

interface Props {
  setId: number;
  photos: readonly number[];
  /** The page is read from its head on, not its places alone. */
  whole?: boolean;
  /** The place that is read. */
  slot: string | undefined;
  /** Which of the photos is being written at. */
  here: number;
  /** Another one after every change that may be heard. */
  version: string;
  language: string;
  /** What is read, in words. */
  about: string;
}

export function ReadAloud({ setId, photos, whole = false, slot, here, version, language, about }: Props) {
  const { data, error, refetch } = useQuery({
    queryKey: ['reading', setId, photos.join(), slot, version],
    queryFn: () => api.reading(setId, photos, slot),
    placeholderData: (before) => before,
    staleTime: Infinity,
    gcTime: 0,
  });
  const list = useAnnouncements(data, setId, whole);
  const figures = list.flatMap(({ role }, n) => (role === 'figure' ? [n] : []));
  const { made = 0, wanted = 0 } = usePreparation() ?? {};
  // What has no files yet is not read: once they are made it is. Of those that are missing in between only the end counts.
  const isMissing = data !== undefined && figuresIn(list) < photos.length;
  const progress = list.length === 0 ? made : made === wanted;
  useEffect(() => {
    if (isMissing) void refetch();
  }, [isMissing, progress, refetch]);
  const current = figures.length === photos.length ? figures[here] : undefined;
  const { can, speaking, start, stop } = useVoice(list, language);
  return (
    <section aria-labelledby="read-aloud" className="min-h-0 overflow-auto bg-paper p-4 text-[13px]">
      <div className="flex items-baseline gap-2">
        <h2 id="read-aloud" className="text-[14px] font-semibold">
          Read aloud
        </h2>
        {can && list.length > 0 && (
          <button className="chip ml-auto h-[24px]" onClick={speaking ? stop : start}>
            {speaking ? 'Be quiet' : 'Let me hear it'}
          </button>
        )}
      </div>
      <p className="text-ink-2">{about}</p>
      {error && <p className="mt-2 text-rust">{sentenceOf(error)}</p>}
      {data !== undefined && list.length === 0 && (
        <p className="mt-2 text-ink-2">Nothing of it can be read yet: its files are still being made.</p>
      )}
      <ol className="mt-2.5 grid">
        {list.map((one, n) => (
          <One key={n} one={one} here={n === current} />
        ))}
      </ol>
    </section>
  );
}
