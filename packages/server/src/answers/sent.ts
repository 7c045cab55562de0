// Photos as they are sent to a screen: decisions, the files they have, and what their set's ledger knows of them.
import type { Photo, PhotoRow, SentPhoto, SetPlaces, Site } from '@dusky-otter/core/contract';
import { planPhoto, variantsOf, type Files } from '@dusky-otter/core/plan';
import type { SetLedger } from '../ledger/set-ledger.ts';

/** What is known of files and originals beyond their plan. */
export interface FileStates extends Files {
  /** What became of an original on the disk, as a sentence; null where it is what it was. */
  lossOf(hash: string): string | null;
}

/** A photo whose original says what became of it on the disk. */
export function withLoss(photo: Photo, states: FileStates): Photo {
  const damage = states.lossOf(photo.original.hash);
  return damage === null ? photo : { ...photo, original: { ...photo.original, damage } };
}

/** @param setPlaces where photos of the set are seen */
export function sentPhoto(
  photo: Photo,
  setPlaces: SetPlaces,
  site: Site,
  states: FileStates,
  ledger: SetLedger,
): SentPhoto {
  const files: SentPhoto['files'] = {};
  const failures: SentPhoto['failures'] = {};
  for (const { key } of planPhoto(photo, setPlaces, site)) {
    const stored = states.get(key);
    const failure = states.failureOf(key);
    if (stored) files[key] = stored;
    else if (failure !== null) failures[key] = failure;
  }
  const { id } = photo;
  return {
    ...withLoss(photo, states),
    files,
    failures,
    sameAs: ledger.sameAs(id),
    speaking: ledger.speaking(id),
    asOf: performance.timeOrigin + performance.now(),
  };
}

/** A photo with its files, as markup and hand-over need it. */
export function rowOf(photo: Photo, setPlaces: SetPlaces, site: Site, states: FileStates): PhotoRow {
  return { ...withLoss(photo, states), variants: variantsOf(photo, setPlaces, site, states) };
}

/**
 * Photos with their files, a breath at a time: planning thousands of photos takes seconds.
 * @param rowFor makes one row, where plans are kept
 */
export function* rowsInTurns(
  photos: readonly Photo[],
  setPlaces: SetPlaces,
  site: Site,
  states: FileStates,
  rowFor: typeof rowOf = rowOf,
): Generator<void, PhotoRow[], void> {
  const rows: PhotoRow[] = [];
  for (const photo of photos) {
    rows.push(rowFor(photo, setPlaces, site, states));
    yield;
  }
  return rows;
}
