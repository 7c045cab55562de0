// Plans: words that a table has for files which are not in a set yet. They are kept, and given to the photos as they come.
import {
  comparedName,
  matched,
  placesMeant,
  wordsFileInTurns,
  wordsChange,
  type MatchedLine,
  type PlannedWords,
} from '@dusky-otter/core';
import type { Transaction } from 'sequelize';
import {
  MembershipModel,
  PlaceModel,
  PlacementModel,
  SiteModel,
  type PhotoModel,
  type SetModel,
} from '../database/models.ts';
import { PlannedWordsModel } from '../database/words-models.ts';
import { listFor, wordsIn, writeWords } from '../sets/photos.ts';
import type { SetLedger } from '../ledger/set-ledger.ts';
import { inTurns } from '../turns.ts';

/** Lines of a table with the photos of a set that they speak of. */
export async function matchedIn(ledger: SetLedger, text: string) {
  const file = await inTurns(wordsFileInTurns(text));
  const photos = ledger.all
    .filter(({ binned }) => !binned)
    .map(({ id, fileName, hash }) => ({ id, fileName, hash }));
  return { ...file, lines: matched(file.lines, photos) };
}

/** Lines that speak of no photo that is there, and can be taken. */
export const waitingIn = (lines: readonly MatchedLine[]): PlannedWords[] =>
  lines
    .filter(({ planned, photos }) => photos.length === 0 && planned.problem === null)
    .map(({ planned }) => planned);

/** Keeps lines for photos that are still to come; a line for the same file replaces the one before. @returns how many */
export async function keepPlan(setId: number, lines: readonly PlannedWords[]): Promise<number> {
  const rows = lines.map(({ fileName, hash, words, places }) => ({
    setId,
    fileName,
    name: comparedName(fileName).slice(0, 255),
    hash,
    words,
    places,
  }));
  await PlannedWordsModel.bulkCreate(rows, { updateOnDuplicate: ['fileName', 'words', 'places'] });
  return rows.length;
}

/** What waits for a file, by its hash or its name. */
async function waitingFor(setId: number, { originalHash, fileName }: PhotoModel, t: Transaction) {
  const name = comparedName(fileName).slice(0, 255);
  const find = (where: { hash: string; name?: string }) =>
    PlannedWordsModel.findOne({ where: { setId, ...where }, transaction: t, lock: true });
  return (await find({ hash: originalHash })) ?? (await find({ hash: '', name }));
}

/**
 * Gives a photo that has come into a set what a plan has for it; the plan then waits no more. It was written for this
 * page, and goes before what the file says of itself; of a photo that others have described already nothing is changed.
 */
export async function followPlan(
  photo: PhotoModel,
  set: Pick<SetModel, 'id' | 'siteId'>,
  described: boolean,
  t: Transaction,
): Promise<void> {
  const plan = await waitingFor(set.id, photo, t);
  if (!plan) return;
  const site = await SiteModel.findByPk(set.siteId, { transaction: t });
  const language = site!.languages[0]!;
  const now = await wordsIn(photo.id, language, t);
  const { added, conflicts } = wordsChange(now, plan.words);
  await writeWords(photo.id, language, { ...now, ...added, ...(!described && conflicts) }, t);
  await placeBy(plan.places, photo.id, set, t);
  await plan.destroy({ transaction: t });
}

/** Puts a photo that arrived where its plan says; names that no place of the site has are left out. */
async function placeBy(
  places: readonly string[] | null,
  photoId: number,
  set: Pick<SetModel, 'id' | 'siteId'>,
  t: Transaction,
): Promise<void> {
  if (!places) return;
  const known = await PlaceModel.findAll({ where: { siteId: set.siteId }, transaction: t });
  const { slots } = placesMeant(
    places,
    known.map(({ slot, value }) => ({ id: slot, name: value.name })),
  );
  if (slots.length === 0) return;
  for (const slot of slots) {
    const { id: arrangementId } = await listFor(set, slot, t);
    const own = { arrangementId, photoId, position: null, link: '', words: {}, crops: {} };
    await PlacementModel.create(own, { transaction: t });
  }
  await MembershipModel.update({ follows: false }, { where: { setId: set.id, photoId }, transaction: t });
}
