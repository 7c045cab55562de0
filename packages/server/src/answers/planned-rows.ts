// Rows of photos whose plans are kept: a page that is looked at while somebody edits is assembled after every save, and
// of all its photos one was changed.
import type { Photo, PhotoRow, PlannedVariant, SetPlaces, Site } from '@dusky-otter/core/contract';
import { planPhoto, withFiles } from '@dusky-otter/core/plan';
import { withLoss, type FileStates } from './sent.ts';

/** Plans that are kept: of a set that is larger the rest is planned each time. */
const KEPT = 4_000;

interface Kept {
  /** Everything that a plan hangs on. */
  of: string;
  planned: readonly PlannedVariant[];
}

export class PlannedRows {
  private readonly kept = new Map<number, Kept>();
  /** Photos that were planned, in all. */
  planned = 0;

  /** A photo with its files, planned once a version of it, of its site and of where its set is seen. */
  rowOf(photo: Photo, setPlaces: SetPlaces, site: Site, states: FileStates): PhotoRow {
    const variants = withFiles(this.planOf(photo, setPlaces, site), states);
    return { ...withLoss(photo, states), variants };
  }

  private planOf(photo: Photo, setPlaces: SetPlaces, site: Site): readonly PlannedVariant[] {
    const of = JSON.stringify([
      photo.version,
      photo.binned,
      photo.placements,
      site.id,
      site.version,
      setPlaces,
    ]);
    const before = this.kept.get(photo.id);
    if (before?.of === of) return before.planned;
    this.planned += 1;
    const planned = planPhoto(photo, setPlaces, site);
    if (before || this.kept.size < KEPT) this.kept.set(photo.id, { of, planned });
    return planned;
  }
}
