// The describe bench: the photo as large as fits, what it is here for, its words with live checks, and how they are heard.
import type { Role, Words } from '@dusky-otter/core/contract';
import { frameSpace } from '@dusky-otter/core/geometry';
import { shownName } from '@dusky-otter/core/naming';
import { slotsOf } from '@dusky-otter/core/plan';
import { slotsIn } from '@dusky-otter/core/slots';
import { withShown } from '@dusky-otter/core/words';
import { useEffect, useRef, useState, type KeyboardEvent as ReactKeyboardEvent } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { api } from '../api/client.ts';
import { stageFor, useSize } from '../ui/stage.ts';
import { notify, notifyFailure } from '../screen/screen.ts';
import { useAround, useCounts, useRows, useSet, useSetPlaces, useSite, type Row } from '../server/hooks.ts';
import { allSaved } from '../server/state.ts';
import { useBenchKeys } from '../ui/bench-keys.ts';
import { OneBench } from '../editing/OneBench.tsx';
import { TurnedView } from '../ui/CropPicture.tsx';
import { wordsHold } from '../editing/edits.ts';
import { focusSoon } from '../ui/reveal.ts';
import { AltBox } from './AltBox.tsx';
import { CompareSheet, soundingAs } from './CompareSheet.tsx';
import { useDescribed } from './described.ts';
import { Known } from './Known.tsx';
import { LanguageChips } from './LanguageChips.tsx';
import { LinkFields } from './LinkFields.tsx';
import { LongDescription } from './LongDescription.tsx';
import { ReadAloud } from './ReadAloud.tsx';
import { SiteTerms } from './SiteTerms.tsx';
import { PlaceChips, SharedWith } from './PlaceChips.tsx';
import { RoleChoice } from './RoleChoice.tsx';
import { ROLES } from './roles.ts';
import { ShownBoxes } from './WordsInPicture.tsx';
import { TextField } from './TextField.tsx';
import { Head } from '../ui/Head.tsx';

/** Where one goes on writing: the first field, or the way to the next photo where there is nothing to write. */
const focusFirst = (role: Role | null): void =>
  document
    .querySelector<HTMLElement>(
      role === null
        ? '[data-role-question]'
        : role === 'decorative'
          ? '[data-next-open]'
          : '[data-field="alt"]',
    )
    ?.focus();

/** The field that a role asks for beside the alt text, where nothing is in it: an address, or a long description. */
function dueAfterAlt(role: Role | null, { link, longDescription }: Words): string | null {
  if (role === 'functional' && link.trim() === '') return '[data-field="link"]';
  if (role === 'complex' && longDescription.trim() === '') return '[data-long] [contenteditable="true"]';
  return null;
}

/** What a key in a field leads to, or null: Enter to the next open one, Alt and arrows to the neighbours, Esc out. */
function leaving(
  event: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'altKey' | 'ctrlKey' | 'metaKey'>,
  manyLines = false,
) {
  if (event.key === 'Enter' && (event.ctrlKey || event.metaKey || (!manyLines && !event.shiftKey)))
    return 'open';
  if (event.altKey && event.key === 'ArrowDown') return 'next';
  if (event.altKey && event.key === 'ArrowUp') return 'previous';
  return event.key === 'Escape' ? 'out' : null;
}

function Bench({ row, setId }: { row: Row; setId: number }) {
  const navigate = useNavigate();
  const site = useSite();
  const set = useSet();
  const left = useCounts()?.open.describe ?? 0;
  const [asked, setAsked] = useSearchParams();
  const languages = site?.languages ?? ['en'];
  const language = languages.find((one) => one === asked.get('language')) ?? languages[0]!;
  /** A language in the address; the first one needs no saying. */
  const inLanguage = (one: string): Record<string, string> => (one === languages[0] ? {} : { language: one });
  const [asksText, setAsksText] = useState(false);
  /** The words that several photos have, while they are told apart. */
  const [comparing, setComparing] = useState<string | null>(null);
  const around = useAround(row.id);
  const near = [around?.previous, row.id, around?.next].filter((id) => id != null);
  const versions = useRows(near).map(({ id, version }) => `${id}.${version}`);
  const setPlaces = useSetPlaces();
  const places = site ? slotsIn(site, slotsOf(row, setPlaces)) : [];
  const spot = places.find(({ id }) => id === asked.get('place')) ?? null;
  const place = spot ?? places[0];
  const described = useDescribed(row, setId, language, spot?.id ?? null);
  const main = useRef<HTMLElement>(null);
  const [canvas, room] = useSize<HTMLDivElement>();
  const { role } = described.row.words;
  /** What was said last: keys are quicker than what is drawn. */
  const given = useRef(role);
  useEffect(() => {
    given.current = role;
  }, [role]);
  const settle = (): void => {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
  };
  const go = (id: number | null | undefined): void => {
    if (id == null) return;
    settle();
    // The next photo is described everywhere, in the language that one writes in.
    const search = new URLSearchParams(inLanguage(language)).toString();
    void navigate({ pathname: `/sets/${setId}/describe/${id}`, search });
  };
  const nextOpen = async () => {
    settle();
    try {
      // What was written a moment ago is open no more.
      await allSaved();
      const next = await api.next(setId, 'all', 'describe', row.id);
      if (next && next.id !== row.id) go(next.id);
      else {
        notify(next ? 'No other photo lacks words.' : 'Every photo has its words.');
        main.current?.focus();
      }
    } catch (error) {
      notifyFailure(error);
    }
  };
  const answer = (chosen: Role) => {
    setAsksText(false);
    given.current = chosen;
    described.save({ role: chosen }, { done: ' chosen' });
    // The field may only just be coming.
    requestAnimationFrame(() => focusFirst(chosen));
  };
  const answerText = (onPage: boolean) => {
    answer(onPage ? 'decorative' : 'text');
    // Who says so has said why nothing carries them.
    if (onPage && (row.original.shows ?? []).length > 0)
      described.save(
        { kept: { ...described.row.words.kept, 'text-not-carried': 'The words are on the page as text.' } },
        { done: ' changed' },
      );
  };
  const choose = (n: number) => {
    const chosen = ROLES[n]!.role;
    if (chosen === 'text' && role !== 'text') setAsksText(true);
    else answer(chosen);
  };
  const act = (where: ReturnType<typeof leaving>): boolean => {
    if (where === null) return false;
    if (where === 'open') void nextOpen();
    else if (where === 'out') {
      settle();
      main.current?.focus();
    } else go(around?.[where]);
    return true;
  };
  const press = (event: ReactKeyboardEvent) => {
    const { target, nativeEvent } = event;
    // Enter that ends a composition is the writing system's own; buttons and the editor have their own keys.
    const isField = target instanceof HTMLTextAreaElement || target instanceof HTMLInputElement;
    if (nativeEvent.isComposing || !isField || (target.type === 'checkbox' && event.key !== 'Escape')) return;
    const where = leaving(event);
    // From the alt text Enter goes on to what the role asks for as well, while that is empty.
    const due =
      where === 'open' && target.dataset.field === 'alt'
        ? dueAfterAlt(given.current, described.row.words)
        : null;
    // It may only just be coming: the editor is fetched when it is first needed.
    if (due !== null)
      focusSoon(
        () => document.querySelector<HTMLElement>(due),
        () => document.activeElement === target,
      );
    else if (!act(where)) return;
    event.preventDefault();
    event.stopPropagation();
  };
  useBenchKeys({
    ...Object.fromEntries(ROLES.map((_, n) => [String(n + 1), () => choose(n)])),
    ...(asksText && { y: () => answerText(true), n: () => answerText(false) }),
    j: () => go(around?.next),
    k: () => go(around?.previous),
    w: () => void nextOpen(),
    e: () => focusFirst(role),
    Escape: () => (asksText ? setAsksText(false) : void navigate(`/sets/${setId}/describe`)),
  });
  useEffect(() => focusFirst(role), []); // eslint-disable-line react-hooks/exhaustive-deps -- where writing begins is decided when the photo is opened
  const stage = stageFor(frameSpace(row.original, row.frame), room);
  const complex = role === 'complex';
  const long = (
    <LongDescription
      described={described}
      onKey={(event) => !event.isComposing && act(leaving(event, true))}
    />
  );
  return (
    <main
      ref={main}
      tabIndex={-1}
      className="flex min-h-0 min-w-0 flex-col bg-sheet outline-none max-[1000px]:overflow-auto"
    >
      <Head title={shownName(row.words, row.fileName)} oneLine="to 1000">
        <span className="whitespace-nowrap text-ink-2">
          {around ? `${around.index + 1} of ${around.total}` : ''}
          {`, ${left} left`}
        </span>
        <LanguageChips
          row={row}
          setId={setId}
          languages={languages}
          chosen={language}
          choose={(one) =>
            setAsked({ ...inLanguage(one), ...(spot && { place: spot.id }) }, { replace: true })
          }
        />
        <span className="ml-auto" />
        <button className="btn" disabled={!around?.previous} onClick={() => go(around?.previous)}>
          Previous
        </button>
        <button className="btn" disabled={!around?.next} onClick={() => go(around?.next)}>
          Next
        </button>
        <button className="btn btn-main" data-next-open onClick={() => void nextOpen()}>
          Save, next without words
        </button>
        <Link to={`/sets/${setId}/describe`} className="btn">
          Back to the table
        </Link>
      </Head>
      <div className="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_440px_262px] max-[1200px]:grid-cols-[minmax(0,1fr)_420px] max-[1000px]:block max-[1000px]:flex-none">
        <div className="flex min-h-0 flex-col">
          <div className="min-h-0 flex-1 bg-neutral p-5 max-[1000px]:h-[38vh] max-[1000px]:flex-none max-[1000px]:p-2">
            <div ref={canvas} className="grid h-full place-items-center">
              {stage.scale > 0 && (
                <div
                  role="img"
                  aria-label={row.words.alt || shownName(row.words, row.fileName)}
                  className="relative overflow-hidden"
                  style={{ width: stage.width, height: stage.height }}
                >
                  <TurnedView photo={row} size="bench" />
                  <ShownBoxes row={row} />
                </div>
              )}
            </div>
          </div>
          <Known
            row={described.row}
            takeOver={(field) =>
              described.save({ [field]: row.original.found[field] }, { done: ' taken over' })
            }
            put={(field) =>
              described.save(withShown(described.row.words, row.original.shows ?? [], field), {
                done: ' from the picture',
              })
            }
          />
        </div>
        <div
          className="grid min-h-0 content-start gap-4 overflow-auto border-l border-rule-strong px-4 py-3.5 max-[1000px]:border-l-0 max-[1000px]:border-t"
          onKeyDown={press}
        >
          {row.toRead && (
            <p className="flex flex-wrap items-baseline gap-2 border-b border-rule pb-2">
              <b className="font-semibold text-amber">
                ▲ Another picture took its place: read its words again.
              </b>
              <button className="chip" onClick={() => wordsHold([row])}>
                They hold
              </button>
            </p>
          )}
          <PlaceChips
            row={row}
            places={places}
            chosen={spot?.id ?? null}
            choose={(slot) =>
              setAsked({ ...inLanguage(language), ...(slot !== null && { place: slot }) }, { replace: true })
            }
            language={language === languages[0] ? null : language}
          />
          <SharedWith row={row} setId={setId} />
          <RoleChoice role={role} asksText={asksText} answer={choose} answerText={answerText} />
          <AltBox described={described} compare={() => setComparing(described.row.words.alt)} />
          <SiteTerms row={described.row} near={near} />
          {role === 'functional' && <LinkFields described={described} />}
          {complex && long}
          <TextField
            described={described}
            field="caption"
            label="Caption"
            hint="shown to everyone"
            rows={2}
          />
          <TextField described={described} field="title" label="Title" hint="and file name" />
          <TextField described={described} field="credit" label="Credit" />
          {!complex && role !== 'decorative' && long}
        </div>
        <div className="min-h-0 overflow-auto border-l border-rule-strong bg-paper max-[1200px]:col-span-full max-[1200px]:border-l-0 max-[1200px]:border-t">
          <ReadAloud
            setId={setId}
            photos={near}
            slot={place?.id}
            here={near.indexOf(row.id)}
            version={versions.join()}
            language={languages[0]!}
            about={`${set?.name ?? ''}${place ? `, ${place.name.toLowerCase()}` : ''}, as a screen reader goes through it here`}
          />
        </div>
      </div>
      {comparing !== null && (
        <CompareSheet
          setId={setId}
          find={() => soundingAs(setId, comparing)}
          onClose={() => setComparing(null)}
        />
      )}
    </main>
  );
}

export const DescribeBench = () => (
  <OneBench stop="describe">{(row, setId) => <Bench key={row.id} row={row} setId={setId} />}</OneBench>
);
