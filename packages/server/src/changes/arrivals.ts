// A file that came gets its row: a photo of its own, the one that the site has of it already, or an offer for a photo.
import type { Offer, OriginalFacts } from '@dusky-otter/core/contract';
import { firstFrame } from '@dusky-otter/core/geometry';
import { firstWords, furtherWords, NO_WORDS } from '@dusky-otter/core/words';
import { Op } from 'sequelize';
import type { ViewHashes } from '../codec/protocol.ts';
import { MembershipModel, OfferModel, OriginalModel, PhotoModel, SetModel } from '../database/models.ts';
import { ProblemError } from '../problems.ts';
import { writeWords } from '../store/words.ts';
import type { Vault } from '../vault/vault.ts';
import type { Changes, Done, SetWork } from './changes.ts';
import { followPlan } from './plans.ts';

/** A file that was received and looked at. */
export interface Arrived {
  fileName: string;
  facts: OriginalFacts;
  /** SHA-256 of its views, where they were made now. */
  views: ViewHashes | null;
  /** Where it lies until it is kept. */
  path: string;
  /** The vault has it already, byte for byte. */
  isKept: boolean;
  /** Its place in the set's order. */
  position: string;
  /** The photo whose place it is to take, if the editor says so. */
  replaces?: number;
}

/** What became of it. */
export type Placed =
  | { kind: 'new' | 'already-here' | 'back-from-bin'; photoId: number }
  | { kind: 'from-another-set'; photoId: number; setName: string }
  | { kind: 'offered'; offer: Offer };

/** Photos come to a site one change after the other: it has a picture once. */
const FOR_SITE = { forSite: true };

/** @throws ProblemError no-such-photo where a photo is not in a set, or in its bin */
export async function mustStand(setId: number, photoId: number, work?: SetWork): Promise<void> {
  const where = { setId, photoId, binned: false };
  const here = await MembershipModel.findOne({ where, ...(work && { transaction: work.t }) });
  if (!here) throw new ProblemError('no-such-photo');
}

/** The photo of a set that came as a file of this name; the oldest of several. */
async function namesakeIn({ set, t }: SetWork, fileName: string): Promise<number | null> {
  const photos = await PhotoModel.findAll({
    where: { siteId: set.siteId, fileName },
    attributes: ['id'],
    order: [['id', 'ASC']],
    transaction: t,
  });
  const photoId = photos.map(({ id }) => id);
  const where = { setId: set.id, photoId, binned: false };
  const here = await MembershipModel.findAll({ where, transaction: t });
  return photoId.find((id) => here.some((one) => one.photoId === id)) ?? null;
}

/**
 * Holds the original of a file, and makes sure that it is known and kept: it may have been dropped since it was looked at.
 */
async function keepOriginal(
  work: SetWork,
  vault: Vault,
  { facts, views, path, isKept }: Arrived,
): Promise<void> {
  const { hash } = facts;
  const known = (await work.originals([hash])).get(hash);
  if (!known) await OriginalModel.create({ hash, facts, views }, { transaction: work.t });
  const isThere = isKept && (await vault.has(vault.original(hash)));
  // Done before, and not answered, it lies in the vault already.
  if (!isThere && (await vault.has(path))) await vault.keepOriginal(path, hash);
}

async function newPhoto(work: SetWork, fileName: string, facts: OriginalFacts): Promise<PhotoModel> {
  const { t, site } = work;
  const photo = await PhotoModel.create(
    {
      siteId: site.id,
      originalHash: facts.hash,
      fileName,
      frame: firstFrame(facts.attention),
      quality: {},
      version: 1,
    },
    { transaction: t },
  );
  const [main = 'en'] = site.languages;
  // A name stands on no page before somebody has said so: the file's is offered.
  const nameless = { credit: '' };
  await writeWords(new Map([[photo.id, { ...firstWords(facts.found, main), ...nameless }]]), main, t);
  for (const [language, said] of furtherWords(facts.found, site.languages))
    await writeWords(new Map([[photo.id, { ...NO_WORDS, ...said, ...nameless }]]), language, t);
  return photo;
}

/** Puts a photo into a set where it does not stand yet; from the bin it comes back. */
async function putInto(
  work: SetWork,
  photo: PhotoModel,
  position: string,
  isKnown: boolean,
): Promise<Exclude<Placed, { kind: 'offered' }>> {
  const { t, set } = work;
  const where = { setId: set.id, photoId: photo.id };
  const here = await MembershipModel.findOne({ where, transaction: t });
  if (here && !here.binned) return { photoId: photo.id, kind: 'already-here' };
  await work.pageChanged();
  if (here) {
    await here.update({ binned: false }, { transaction: t });
    await photo.increment('version', { transaction: t });
    return { photoId: photo.id, kind: 'back-from-bin' };
  }
  await MembershipModel.create({ ...where, position, follows: true, binned: false }, { transaction: t });
  await followPlan(work, photo, isKnown);
  if (!isKnown) return { photoId: photo.id, kind: 'new' };
  const elsewhere = await MembershipModel.findOne({
    where: { photoId: photo.id, setId: { [Op.ne]: set.id } },
    transaction: t,
  });
  const other = elsewhere && (await SetModel.findByPk(elsewhere.setId, { transaction: t }));
  return { photoId: photo.id, kind: 'from-another-set', setName: other?.name ?? 'another set' };
}

async function offerFor(work: SetWork, photoId: number, { fileName, facts }: Arrived): Promise<Offer> {
  const { t, set } = work;
  const key = { setId: set.id, photoId, hash: facts.hash };
  const known = await OfferModel.findOne({ where: key, transaction: t });
  const { id } = known ?? (await OfferModel.create({ ...key, fileName }, { transaction: t }));
  return { id, photo: photoId, fileName, original: facts };
}

/** @throws ProblemError no-such-set, no-such-photo, impossible-edit */
export const place = (changes: Changes, vault: Vault, setId: number, arrived: Arrived): Promise<Placed> =>
  changes.inSet(
    setId,
    async (work): Promise<Done<Placed>> => {
      const { t, set } = work;
      const { facts, fileName, position, replaces } = arrived;
      const where = { siteId: set.siteId, originalHash: facts.hash };
      const found = await PhotoModel.findOne({ where, transaction: t });
      const held = await work.photos(found ? [found.id] : []);
      const known = found && held.get(found.id);
      await keepOriginal(work, vault, arrived);
      if (known && replaces !== undefined)
        throw new ProblemError(
          'impossible-edit',
          known.id === replaces
            ? 'This is the file that the photo has already.'
            : `This picture stands in the site already, as “${known.fileName}”.`,
        );
      if (replaces !== undefined) await mustStand(setId, replaces, work);
      const namesake = known ? null : (replaces ?? (await namesakeIn(work, fileName)));
      if (namesake !== null) {
        const offer = await offerFor(work, namesake, arrived);
        return { answer: { kind: 'offered', offer }, effects: { offers: [setId], arrived: true } };
      }
      const photo = known ?? (await newPhoto(work, fileName, facts));
      const answer = await putInto(work, photo, position, known !== undefined && known !== null);
      return { answer, effects: { sets: [setId], photos: [photo.id], arrived: true } };
    },
    FOR_SITE,
  );

/**
 * Takes a file that was offered for a photo into the set beside it.
 * @throws ProblemError no-such-file where it is offered no more
 */
export const addOffered = (
  changes: Changes,
  setId: number,
  offerId: number,
  position: string,
): Promise<number> =>
  changes.inSet(
    setId,
    async (work) => {
      const { t, set } = work;
      const offer = await OfferModel.findOne({ where: { id: offerId, setId }, transaction: t });
      if (!offer) throw new ProblemError('no-such-file');
      const where = { siteId: set.siteId, originalHash: offer.hash };
      const known = await PhotoModel.findOne({ where, transaction: t });
      await work.photos(known ? [known.id] : []);
      const original = (await work.originals([offer.hash])).get(offer.hash);
      if (!original) throw new ProblemError('no-such-file');
      const photo = known ?? (await newPhoto(work, offer.fileName, original.facts));
      await putInto(work, photo, position, known !== null);
      await offer.destroy({ transaction: t });
      return { answer: photo.id, effects: { sets: [setId], photos: [photo.id], offers: [setId] } };
    },
    FOR_SITE,
  );

/**
 * Puts photos of the site that stand in other sets into this one as well, behind its own; from its bin they come back.
 * @param positions one for each
 * @throws ProblemError no-such-photo for one that is not the site's
 */
export const importPhotos = (
  changes: Changes,
  setId: number,
  photoIds: readonly number[],
  positions: readonly string[],
): Promise<undefined> =>
  changes.inSet<undefined>(
    setId,
    async (work) => {
      const held = await work.photos(photoIds);
      for (const [at, id] of photoIds.entries()) {
        const photo = held.get(id);
        if (photo?.siteId !== work.set.siteId) throw new ProblemError('no-such-photo');
        await putInto(work, photo, positions[at]!, true);
      }
      return { answer: undefined, effects: { sets: [setId], photos: [...new Set(photoIds)] } };
    },
    FOR_SITE,
  );
