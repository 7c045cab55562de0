// Files that may take a photo's place: added beside it, or put away. Put in its place they are by an edit.
import type { Offer } from '@dusky-otter/core';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import { OfferModel } from '../database/models.ts';
import type { Parts } from '../parts.ts';
import { dropUnused } from '../sets/originals.ts';
import { findSet } from '../sets/sets.ts';
import { idFrom } from './dto.ts';

type OfSet = FastifyRequest<{ Params: { id: string } }>;
type OfOffer = FastifyRequest<{ Params: { id: string; offer: string } }>;

export const offerRoutes =
  (parts: Parts): FastifyPluginAsync =>
  async (app) => {
    /** The files themselves go as well, where nothing else needs them. */
    const putAway = async (setId: number, which: { id?: number }): Promise<Offer[]> => {
      await findSet(setId);
      const offers = await OfferModel.findAll({ where: { setId, ...which } });
      await OfferModel.destroy({ where: { id: offers.map(({ id }) => id) } });
      await dropUnused(
        offers.map(({ hash }) => hash),
        parts,
      );
      return parts.aftermath.offers(setId);
    };

    app.delete('/sets/:id/offers', (request: OfSet) => putAway(idFrom(request.params.id), {}));

    app.delete('/sets/:id/offers/:offer', (request: OfOffer) =>
      putAway(idFrom(request.params.id), { id: idFrom(request.params.offer) }),
    );

    app.post('/sets/:id/offers/:offer/photo', async (request: OfOffer) => {
      const setId = idFrom(request.params.id);
      const photoId = await parts.takeIn.addOffered(setId, idFrom(request.params.offer));
      await parts.aftermath.offers(setId);
      await parts.aftermath.photos([photoId]);
      await parts.aftermath.set(setId);
      const [photo] = await parts.shelf.photos(setId, [photoId]);
      return { kind: 'new', photo };
    });
  };
