// The galleries of an index: which set each cover leads to, and a text below it.
import type { Arrangement, Gallery, IndexOptions, PageEntry } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { useQuery } from '@tanstack/react-query';
import { api, sentenceOf } from '../api/client.ts';
import { notifyFailure } from '../screen/screen.ts';
import { useSetId, useSet, useSite, type Row } from '../server/hooks.ts';
import { TextLine } from '../ui/TextLine.tsx';
import { photosOf } from '../editing/photos.ts';
import { putInto } from '../editing/placing.ts';
import { saveArrangement } from './edits.ts';

/** What a cover may lead to: a page, or an arrangement on one. */
interface Target {
  value: string;
  set: number;
  part?: string;
  name: string;
}

function targetsOf(pages: readonly PageEntry[], setId: number, own: string): Target[] {
  return pages.flatMap(({ set, title, photos, parts }) => [
    ...(set === setId ? [] : [{ value: `${set}`, set, name: `${title} (${photos})` }]),
    ...parts
      .filter(({ slot }) => slot !== own)
      .map((part) => ({
        ...{ value: `${set} ${part.slot}`, set, part: part.slot },
        name: `${set === setId ? 'this page' : title}: ${part.title} (${part.photos})`,
      })),
  ]);
}

interface Props {
  arrangement: Arrangement & { options: IndexOptions };
  rows: readonly Row[];
}

export function Galleries({ arrangement, rows }: Props) {
  const setId = useSetId();
  const here = useSet();
  const site = useSite()!;
  const { options, shortName } = arrangement;
  const { data, error } = useQuery({ queryKey: ['pages', setId], queryFn: () => api.pages(setId) });
  const others = (data?.pages ?? []).filter((page) => page.set !== setId);
  const targets = targetsOf(data?.pages ?? [], setId, shortName);
  const put = (galleries: readonly Gallery[], what: string, began?: number) =>
    saveArrangement(site, { ...arrangement, options: { ...options, galleries } }, what, began);
  const change = (photo: number, part: Partial<Gallery>, what: string, began?: number) => {
    const known = options.galleries.find((one) => one.photo === photo);
    const next = { ...(known ?? { photo, set: setId, text: '' }), ...part };
    put([...options.galleries.filter((one) => one.photo !== photo), next], what, began);
  };
  const leadTo = (photo: number, { set, part }: Target) => {
    const text = options.galleries.find((one) => one.photo === photo)?.text ?? '';
    const next = { photo, set, ...(part !== undefined && { part }), text };
    put([...options.galleries.filter((one) => one.photo !== photo), next], 'gallery');
  };
  /** The first photo of a set becomes the cover that leads to it. */
  const add = async (set: number) => {
    try {
      const [first] = (await api.page(set, 'all', 0, 1)).photos;
      if (!first) return notifyFailure(new Error('That set has no photo yet that could be its cover.'));
      await api.borrow(setId, [first.id]);
      const [photo] = await photosOf(setId, [first.id]);
      putInto([photo!], { set: here!, site }, shortName);
      put([...options.galleries, { photo: first.id, set, text: '' }], 'another gallery');
    } catch (failure) {
      notifyFailure(failure);
    }
  };
  const missing = others.filter(({ set }) => !options.galleries.some((one) => one.set === set));
  return (
    <section className="grid gap-2 border-t border-rule-strong pt-3" aria-labelledby="galleries">
      <h2 id="galleries" className="font-title text-[14px] font-[600]">
        Galleries
      </h2>
      {error && <p role="alert">{sentenceOf(error)}</p>}
      {rows.map((row) => {
        const gallery = options.galleries.find(({ photo }) => photo === row.id);
        const value = gallery ? [gallery.set, gallery.part].filter((one) => one !== undefined).join(' ') : '';
        const target = targets.find((one) => one.value === value);
        const page = data?.pages.find(({ set }) => set === gallery?.set);
        const name = shownName(row.words, row.fileName);
        return (
          <div key={row.id} className="grid gap-1.5 border-t border-rule pt-1.5">
            <label className="grid gap-1 text-[12px] text-ink-2">
              <span className="truncate">{name} leads to</span>
              <select
                className="field"
                value={value}
                disabled={targets.length === 0}
                onChange={({ target: { value: chosen } }) => {
                  const next = targets.find((one) => one.value === chosen);
                  if (next) leadTo(row.id, next);
                  else
                    put(
                      options.galleries.filter(({ photo }) => photo !== row.id),
                      'gallery',
                    );
                }}
              >
                <option value="">nothing yet</option>
                {targets.map((one) => (
                  <option key={one.value} value={one.value}>
                    {one.name}
                  </option>
                ))}
                {gallery && !target && <option value={value}>what is gone: it is a picture alone</option>}
              </select>
            </label>
            {gallery && (
              <TextLine
                label="Text below it"
                most={1000}
                saved={gallery.text}
                version={site.version}
                save={(text, began) => change(row.id, { text }, 'text of a gallery', began)}
                {...(page && { hint: <>Lies in the folder {page.folder}/</> })}
              />
            )}
          </div>
        );
      })}
      {missing.length > 0 ? (
        <label className="grid gap-1 text-[12px] text-ink-2">
          Another gallery, with its first photo as cover
          <select
            className="field"
            value=""
            onChange={({ target: { value } }) => value !== '' && void add(Number(value))}
          >
            <option value="">choose a set…</option>
            {missing.map(({ set, title }) => (
              <option key={set} value={set}>
                {title}
              </option>
            ))}
          </select>
        </label>
      ) : (
        data && (
          <p className="text-[12.5px] text-ink-2">
            {others.length === 0
              ? 'The site has no other set yet. Make one, and it can be a gallery here.'
              : 'Every other set of the site is a gallery here.'}
          </p>
        )
      )}
    </section>
  );
}
