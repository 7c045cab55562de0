// Another original in a photo's place: the edit that puts it there, and the sentences for what it changes.
import type { Offer, Photo } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { frameReplaced } from '@dusky-otter/core/geometry';
import { shownName } from '@dusky-otter/core/naming';
import { notifyFailure } from '../screen/screen.ts';
import { edit } from '../server/state.ts';
import { photosOf } from '../editing/photos.ts';

/** Words that say something of the picture. */
const hasWords = ({ words: { alt, caption, title, longDescription } }: Photo): boolean =>
  [alt, caption, title, longDescription].some((text) => text.trim() !== '');

const commandFor = (photo: Photo, { original, fileName }: Offer): Command => ({
  kind: 'original',
  photo: photo.id,
  original: original.hash,
  fileName,
  frame: frameReplaced(photo, original).frame,
  toRead: photo.toRead || hasWords(photo),
});

/** Puts files in the places of the photos that they were offered for; of several for one photo the newest. */
export async function putInPlace(setId: number, offers: readonly Offer[]): Promise<void> {
  const newest = new Map(offers.map((offer) => [offer.photo, offer]));
  try {
    const photos = await photosOf(setId, [...newest.keys()]);
    const what =
      photos.length === 1 ? shownName(photos[0]!.words, photos[0]!.fileName) : `${photos.length} photos`;
    edit(
      `picture of ${what} replaced`,
      photos.map((photo) => commandFor(photo, newest.get(photo.id)!)),
    );
  } catch (error) {
    notifyFailure(error);
  }
}
