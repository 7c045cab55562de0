// Words as tables: what a table would change of a set, plans for files that are still to come, and the words taken out.
import 'reflect-metadata';
import type { Language, Photo, Site, SlotId, Words, WordsPreview } from '@dusky-otter/core/contract';
import { wordsCsv } from '@dusky-otter/core/markup';
import { placementIn, standsIn } from '@dusky-otter/core/plan';
import {
  NO_WORDS,
  placementsSaid,
  placesMeant,
  TermCount,
  wordsChange,
  type PlannedWords,
} from '@dusky-otter/core/words';
import { IsString, MaxLength } from 'class-validator';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { loadPhotos, photosInParts, standingIn } from '../store/photos.ts';
import { setPlacesIn } from '../store/sets.ts';
import { waitingPlan } from '../store/plans.ts';
import { findSet, setsIn } from '../store/sets.ts';
import { rowsInTurns } from '../answers/sent.ts';
import { inTurns } from '../turns.ts';
import { matchedIn, waitingIn } from '../answers/planned-words.ts';
import { dropPlan, keepPlan } from '../changes/plans.ts';
import { checked, idFrom } from './dto.ts';
import { IfGiven } from './quality-dto.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'changes' | 'ledgers' | 'preparer' | 'reader' | 'sites'>;

/** Characters of a table. */
const LONGEST_TABLE = 4_000_000;
/** Lines of one kind that are shown of a table; the rest is counted. */
const MOST_SHOWN = 2_000;

class TableDto {
  @IsString() @MaxLength(LONGEST_TABLE) text!: string;
  /** The site's first one where nothing is said. */
  @IfGiven() @IsString() @MaxLength(35) language?: string;
}

type OfSet = FastifyRequest<{ Params: { id: string } }>;
type TableOf = FastifyRequest<{ Params: { id: string }; Querystring: { language?: string } }>;

/** @throws ProblemError bad-request for a language that the site does not have */
function languageOf(site: Pick<Site, 'languages'>, asked: string | undefined): Language {
  const language = asked ?? site.languages[0]!;
  if (!site.languages.includes(language))
    throw new ProblemError('bad-request', 'The site has no such language.');
  return language;
}

/** What hangs on a language; what a photo is here for, and where its link opens, does not. */
const textsOf = (words: Partial<Words>): Partial<Words> =>
  Object.fromEntries(Object.entries(words).filter(([part]) => part !== 'role' && part !== 'newWindow'));

/** Nothing is said that is not said already. */
const isAlike = ({ added, conflicts }: ReturnType<typeof wordsChange>): boolean =>
  Object.keys(added).length + Object.keys(conflicts).length === 0;

/** What a line says of a photo in single places, in a language; null for the site's first. */
function hereOf({ here = [] }: PlannedWords, photo: Photo, site: Site, language: Language | null) {
  const unknown: string[] = [];
  // A place may be named by its name and by its short name: what is said first counts.
  const said = new Map<SlotId, Partial<Words>>();
  for (const { place, words } of here) {
    const [slot] = placesMeant([place], site.slots).slots;
    if (slot === undefined) unknown.push(place);
    else said.set(slot, { ...words, ...said.get(slot) });
  }
  const found = [...said].flatMap(([slot, words]) => {
    const { words: main, others } = placementIn(photo, slot);
    const now: Partial<Words> = language === null ? main : (others?.[language] ?? {});
    const { added, conflicts } = wordsChange({ ...NO_WORDS, ...now }, words);
    return isAlike({ added, conflicts }) ? [] : [{ slot, now, added, conflicts }];
  });
  return { found, unknown };
}

/** What a table would change of the words in a language, line by line. Places go with the first language alone. */
async function previewOf(
  parts: Needs,
  setId: number,
  { text, language: asked }: TableDto,
): Promise<WordsPreview> {
  const set = await findSet(setId);
  const site = await parts.sites.get(set.siteId);
  const language = languageOf(site, asked);
  const isMain = language === site.languages[0];
  const setPlaces = await setPlacesIn(set);
  const { lines, unknown, problem } = await matchedIn(await parts.ledgers.get(setId), text);
  const clear = lines.filter(({ planned, photos }) => planned.problem === null && photos.length === 1);
  const photos = await loadPhotos(
    setId,
    language,
    clear.map((line) => line.photos[0]!),
  );
  const byId = new Map(photos.map((photo) => [photo.id, photo]));
  /** Lines that say something of places in which their photo does not stand. */
  const elsewhere: WordsPreview['unclear'] = [];
  const changes = clear.flatMap(({ planned, photos: [id] }) => {
    const photo = byId.get(id!);
    if (!photo) return [];
    const { added, conflicts } = wordsChange(photo.words, isMain ? planned.words : textsOf(planned.words));
    const places = isMain && planned.places && placesMeant(planned.places, site.slots);
    const slots: SlotId[] | null = places && places.slots.length > 0 ? places.slots : null;
    const standing = slots ?? standsIn(photo, setPlaces);
    const said = hereOf(planned, photo, site, isMain ? null : language);
    const here = said.found.filter(({ slot }) => standing.includes(slot));
    for (const { slot } of said.found.filter((one) => !here.includes(one)))
      elsewhere.push({
        line: planned.line,
        fileName: photo.fileName,
        sentence: `It does not stand in ${site.slots.find(({ id }) => id === slot)!.name}: its words there are left out.`,
      });
    if (isAlike({ added, conflicts }) && slots === null && here.length === 0) return [];
    const { original, fileName, words } = photo;
    return [
      {
        line: planned.line,
        photo: { id: photo.id, fileName, words, original: { hash: original.hash } },
        ...{ added, conflicts, slots, here },
        unknownPlaces: [...(places ? places.unknown : []), ...said.unknown],
      },
    ];
  });
  const unclear = lines.flatMap(({ planned: { line, fileName, problem: wrong }, photos: { length } }) =>
    wrong !== null || length > 1
      ? [{ line, fileName, sentence: wrong ?? `${length} photos are called so: name it by its SHA-256.` }]
      : [],
  );
  const waiting = waitingIn(lines);
  return {
    ...{ problem, unknown, changes },
    lines: lines.length,
    alike: clear.length - changes.length,
    unclear: [...unclear, ...elsewhere].slice(0, MOST_SHOWN),
    waiting: { count: waiting.length, names: waiting.slice(0, MOST_SHOWN).map(({ fileName }) => fileName) },
  };
}

export const wordsRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    app.post('/sets/:id/words', (request: OfSet) =>
      previewOf(parts, idFrom(request.params.id), checked(TableDto, request.body)),
    );

    // A photo's words hold in every set that it stands in.
    app.get(
      '/sets/:id/photos/:photo/sets',
      async (request: FastifyRequest<{ Params: { id: string; photo: string } }>) => {
        const setId = idFrom(request.params.id);
        const photoId = idFrom(request.params.photo, 'no-such-photo');
        const { siteId } = await findSet(setId);
        const ids = await standingIn(photoId);
        if (!ids.includes(setId)) throw new ProblemError('no-such-photo');
        const others = await setsIn(siteId, { id: ids.filter((id) => id !== setId) });
        return others.map(({ id, name }) => ({ id, name }));
      },
    );

    /** Terms of the site that stand in every alt text of the page: they tell no photo from another. */
    app.get('/sets/:id/terms', async (request: OfSet) => {
      const set = await findSet(idFrom(request.params.id));
      const site = await parts.sites.get(set.siteId);
      const count = new TermCount(site.terms);
      if (site.terms.length > 0)
        for await (const photos of photosInParts(set.id, site.languages[0]!))
          for (const { binned, words } of photos)
            if (!binned && words.role !== 'decorative') count.add(words.alt);
      return { inEvery: count.inEvery() };
    });

    /** Words in a picture are looked for at once; what is found comes with the photo's next version. */
    app.post(
      '/sets/:id/photos/:photo/words-shown',
      async (request: FastifyRequest<{ Params: { id: string; photo: string } }>, reply) => {
        const set = await findSet(idFrom(request.params.id));
        const photoId = idFrom(request.params.photo, 'no-such-photo');
        const [photo] = await loadPhotos(set.id, 'en', [photoId]);
        if (!photo) throw new ProblemError('no-such-photo');
        if (photo.original.shows === undefined) parts.reader.readNow(photo.original.hash);
        return reply.code(202).send({});
      },
    );

    app.get('/sets/:id/words.csv', async (request: TableOf, reply) => {
      const set = await findSet(idFrom(request.params.id));
      const site = await parts.sites.get(set.siteId);
      const setPlaces = await setPlacesIn(set);
      const language = languageOf(site, request.query.language);
      const photos = await loadPhotos(set.id, language);
      // What a photo is here for is said in the first language.
      const main = language === site.languages[0] ? photos : await loadPhotos(set.id, site.languages[0]!);
      const roles = new Map(main.map(({ id, words }) => [id, words.role]));
      const standing = photos
        .filter(({ binned }) => !binned)
        .map((photo) => ({
          ...photo,
          words: { ...photo.words, role: roles.get(photo.id) ?? null },
          ...(language !== site.languages[0] && { placements: placementsSaid(photo.placements, language) }),
        }));
      const rows = await inTurns(rowsInTurns(standing, setPlaces, site, parts.preparer));
      return reply
        .header('content-disposition', `attachment; filename="words-${language}.csv"`)
        .type('text/csv; charset=utf-8')
        .send(wordsCsv(rows, { slots: site.slots, setPlaces }));
    });

    /** Lines of a table for files that are not there yet are kept for them. */
    app.post('/sets/:id/plan', async (request: OfSet) => {
      const setId = idFrom(request.params.id);
      await findSet(setId);
      const { text } = checked(TableDto, request.body);
      const { lines } = await matchedIn(await parts.ledgers.get(setId), text);
      return { kept: await keepPlan(parts.changes, setId, waitingIn(lines)) };
    });

    app.get('/sets/:id/plan', async (request: OfSet) => {
      const setId = idFrom(request.params.id);
      await findSet(setId);
      return waitingPlan(setId, MOST_SHOWN);
    });

    app.delete('/sets/:id/plan', async (request: OfSet) => {
      const setId = idFrom(request.params.id);
      return { gone: await dropPlan(parts.changes, setId) };
    });
  };
