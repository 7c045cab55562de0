// What edits touched, at which versions: whether somebody else was there in between, part by part.
import { overlap, type SentEdit, type Touched } from '@dusky-otter/core';
import { Op, type Transaction } from 'sequelize';
import { EditModel, TouchModel } from '../database/models.ts';
import { ProblemError } from '../problems.ts';

/** Versions of what a transaction has locked. */
export interface Versions {
  photo: (id: number) => number | undefined;
  set: () => number;
  site: () => number;
}

/** A photo, a set or a site, and the parts of it that an edit touches. */
interface Entity {
  entity: Touched['entity'];
  id: number;
  parts: string[];
}

function entitiesOf(touched: readonly Touched[]): Entity[] {
  const found = new Map<string, Entity>();
  for (const { entity, id, part } of touched) {
    const key = `${entity} ${id}`;
    const known = found.get(key) ?? { entity, id, parts: [] };
    known.parts.push(part);
    found.set(key, known);
  }
  return [...found.values()];
}

const LONGEST_PART = 120;

export class Touches {
  private seenOf({ entity, id }: Entity, { photos, set, site }: SentEdit['seen']): number | undefined {
    return entity === 'photo' ? photos[id] : entity === 'set' ? set : site;
  }

  private versionOf({ entity, id }: Pick<Entity, 'entity' | 'id'>, versions: Versions): number | undefined {
    return entity === 'photo' ? versions.photo(id) : versions[entity]();
  }

  /**
   * Another window may have changed what an edit was made on. Its own earlier edits are no hindrance, nor are those
   * that touched other parts.
   * @throws ProblemError version-missing, no-such-photo; stale, naming the photos
   */
  async check(
    touched: readonly Touched[],
    versions: Versions,
    { seen, window }: Pick<SentEdit, 'seen' | 'window'>,
    t: Transaction,
  ): Promise<void> {
    const stale: Entity[] = [];
    for (const one of entitiesOf(touched)) {
      const now = this.versionOf(one, versions);
      if (now === undefined) throw new ProblemError('no-such-photo');
      const saw = this.seenOf(one, seen);
      if (saw === undefined) throw new ProblemError('version-missing');
      if (saw < now && (await this.othersBehind(one, saw, window, t))) stale.push(one);
    }
    if (stale.length === 0) return;
    throw new ProblemError('stale', undefined, {
      photos: stale.filter(({ entity }) => entity === 'photo').map(({ id }) => id),
      set: stale.some(({ entity }) => entity === 'set'),
      site: stale.some(({ entity }) => entity === 'site'),
    });
  }

  /** Whether another window touched one of the parts behind a version. */
  private async othersBehind({ entity, id, parts }: Entity, version: number, window: string, t: Transaction) {
    const others = await TouchModel.findAll({
      where: { entity, entityId: id, version: { [Op.gt]: version }, window: { [Op.ne]: window } },
      transaction: t,
    });
    return others.some((touch) => parts.some((part) => overlap(part.slice(0, LONGEST_PART), touch.part)));
  }

  /**
   * An edit is taken back, or done again, only where nobody else changed the same after it: what they did must stay.
   * @throws ProblemError changed-since
   */
  async checkStep(editId: number, window: string, label: string, t: Transaction): Promise<void> {
    for (const { entity, entityId, part, version } of await TouchModel.findAll({
      where: { editId },
      transaction: t,
    })) {
      const later = await TouchModel.findAll({
        where: { entity, entityId, version: { [Op.gt]: version }, editId: { [Op.ne]: editId } },
        transaction: t,
      });
      const same = later.filter((touch) => touch.window !== window && overlap(touch.part, part));
      if (same.length === 0) continue;
      const standing = await EditModel.count({
        where: { id: same.map((touch) => touch.editId), undone: false },
        transaction: t,
      });
      if (standing > 0)
        throw new ProblemError(
          'changed-since',
          `“${label}” stays: the same was changed in another window since. Change it by hand if you want it otherwise.`,
        );
    }
  }

  /** Notes what an edit touched, at the versions that it made. */
  async write(
    editId: number,
    touched: readonly Touched[],
    versions: Versions,
    window: string,
    t: Transaction,
  ): Promise<void> {
    const rows = touched.map(({ entity, id, part }) => ({
      editId,
      entity,
      entityId: id,
      part: part.slice(0, LONGEST_PART),
      version: this.versionOf({ entity, id }, versions) ?? 0,
      window,
    }));
    await TouchModel.bulkCreate(rows, { transaction: t, updateOnDuplicate: ['version', 'window'] });
  }
}
