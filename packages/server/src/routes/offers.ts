// Files that may take a photo's place: added beside it, or put away. Put in its place they are by an edit.
import type { Offer } from '@dusky-otter/core/contract';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import type { Parts } from '../parts.ts';
import { putAwayOffers } from '../changes/offers.ts';
import { offersOf } from '../store/originals.ts';
import { idFrom } from './dto.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'changes' | 'queries' | 'takeIn' | 'vault'>;

type OfSet = FastifyRequest<{ Params: { id: string } }>;
type OfOffer = FastifyRequest<{ Params: { id: string; offer: string } }>;

export const offerRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    const putAway = async (setId: number, which: { id?: number }): Promise<Offer[]> => {
      await putAwayOffers(parts.changes, parts.vault, setId, which);
      return offersOf(setId);
    };

    app.delete('/sets/:id/offers', (request: OfSet) => putAway(idFrom(request.params.id), {}));

    app.delete('/sets/:id/offers/:offer', (request: OfOffer) =>
      putAway(idFrom(request.params.id), { id: idFrom(request.params.offer) }),
    );

    app.post('/sets/:id/offers/:offer/photo', async (request: OfOffer) => {
      const setId = idFrom(request.params.id);
      const photoId = await parts.takeIn.addOffered(setId, idFrom(request.params.offer));
      const [photo] = await parts.queries.photos(setId, [photoId]);
      return { kind: 'new', photo };
    });
  };
