// Places of the site that a set belongs to: how they are used, what a change would cost.
import { arrangementIn, slotsOfArrangement } from '@dusky-otter/core/arrange';
import type { Policy, Site, Slot } from '@dusky-otter/core/contract';
import { prefixProblem } from '@dusky-otter/core/html';
import { slotProblem } from '@dusky-otter/core/places';
import { openIn, placementIn } from '@dusky-otter/core/plan';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { loadPhotos, photosInParts } from '../store/photos.ts';
import { readSetPlaces } from '../store/sets.ts';
import { findSet } from '../store/sets.ts';
import { nothingToSee } from '../look/looked-at.ts';
import { alikeOf, type Photos } from '../forecast/alike.ts';
import { evenly, forecastOf, MOST_PLANNED } from '../forecast/forecast.ts';
import { goneSignal } from './body.ts';
import { PolicyDto } from './command-dto.ts';
import { costOfPlace, placesInUse } from '../answers/places.ts';
import { checked, idFrom, PlaceCostDto, screenFrom, type ScreenAsked } from './dto.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'ledgers' | 'previews' | 'preparer' | 'sites' | 'vault'>;

type ById = FastifyRequest<{ Params: { id: string } }>;
type ByScreen = FastifyRequest<{ Params: { id: string }; Querystring: ScreenAsked }>;

export const placeRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    const siteOf = async (setId: number) => parts.sites.get((await findSet(setId)).siteId);

    app.get('/sets/:id/places', async (request: ById) => {
      const setId = idFrom(request.params.id);
      return placesInUse(await siteOf(setId), setId, parts.preparer);
    });

    /** Photos of a set without those in the bin: never all of a large one in memory. */
    const photosOf = (setId: number, [language]: Site['languages']): Photos => ({
      async *inParts() {
        for await (const part of photosInParts(setId, language!)) yield part.filter(({ binned }) => !binned);
      },
      one: async (id) => (await loadPhotos(setId, language!, [id]))[0],
    });
    /** Some of these photos, evenly. */
    const someOf = (setId: number, site: Site, ids: readonly number[]) =>
      loadPhotos(setId, site.languages[0]!, evenly(ids, MOST_PLANNED));
    const { previews, vault, preparer } = parts;
    const made = { previews, vault, states: preparer };

    app.get('/sets/:id/alike', async (request: ByScreen, reply) => {
      const setId = idFrom(request.params.id);
      const screen = screenFrom(request.query);
      const site = await siteOf(setId);
      const photos = photosOf(setId, site.languages);
      return alikeOf(photos, await readSetPlaces(setId), site, screen, made, goneSignal(reply)).catch(
        nothingToSee,
      );
    });

    app.post('/sets/:id/policy/forecast', async (request: ById, reply) => {
      const setId = idFrom(request.params.id);
      const policy = checked(PolicyDto, request.body);
      const problem = policy.prefix === undefined ? null : prefixProblem(policy.prefix);
      if (problem) throw new ProblemError('impossible-edit', problem);
      const site = await siteOf(setId);
      const ids = (await parts.ledgers.get(setId)).ids('all');
      const photos = await someOf(setId, site, ids);
      // As an edit would: a part that is left out stays as it is.
      const after: Policy = Object.assign({}, site.policy, policy);
      const then = { ...site, policy: after };
      const setPlaces = await readSetPlaces(setId);
      return forecastOf(photos, ids.length, setPlaces, site, then, made, goneSignal(reply)).catch(
        nothingToSee,
      );
    });

    // What an arrangement would weigh with other options: its files, and what screens load of it.
    app.post('/sets/:id/arrangements/forecast', async (request: ById, reply) => {
      const setId = idFrom(request.params.id);
      const { slot, value } = checked(PlaceCostDto, request.body);
      const site = await siteOf(setId);
      const arrangement = value && arrangementIn(value);
      const problem = value && slotProblem(value);
      if (problem) throw new ProblemError('impossible-edit', problem);
      if (!arrangement || value.id !== slot) throw new ProblemError('bad-request');
      const { cell, large } = slotsOfArrangement(arrangement);
      const isOwn = ({ id, of }: Slot) => id === slot || of === slot;
      const [before, then] = [site.slots.filter(isOwn), [cell, ...(large ? [large] : [])]];
      const ids = (await parts.ledgers.get(setId)).members(slot);
      const photos = (await someOf(setId, site, ids)).map((photo) => ({
        ...photo,
        placements: [placementIn(photo, slot)],
      }));
      return forecastOf(
        photos,
        ids.length,
        // As the page would show it, whether it does or not.
        openIn(),
        { ...site, slots: before },
        { ...site, slots: then },
        made,
        goneSignal(reply),
        ({ of }) => of === undefined,
      ).catch(nothingToSee);
    });

    app.post('/sets/:id/places/cost', async (request: ById) => {
      const setId = idFrom(request.params.id);
      const { slot, value } = checked(PlaceCostDto, request.body);
      const problem = value && (value.id === slot ? slotProblem(value) : 'A place keeps its short name.');
      if (problem) throw new ProblemError('impossible-edit', problem);
      return costOfPlace(await siteOf(setId), slot, value, parts.preparer);
    });
  };
