// What edits touched, at which versions: whether somebody else was there in between, part by part.
import { overlap, type SentEdit, type Touched } from '@dusky-otter/core/edits';
import { Op, type Transaction } from 'sequelize';
import { inParts } from '../database/in-parts.ts';
import { EditModel, TouchModel } from '../database/models.ts';
import { ProblemError } from '../problems.ts';

/** Versions of what a change holds. */
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

/** Names a photo, a set or a site among all of them. */
const nameOf = (entity: Touched['entity'], id: number): string => `${entity} ${id}`;

function entitiesOf(touched: readonly Touched[]): Entity[] {
  const found = new Map<string, Entity>();
  for (const { entity, id, part } of touched) {
    const key = nameOf(entity, id);
    const known = found.get(key) ?? { entity, id, parts: [] };
    known.parts.push(part);
    found.set(key, known);
  }
  return [...found.values()];
}

const LONGEST_PART = 120;

const seenOf = ({ entity, id }: Entity, { photos, set, site }: SentEdit['seen']): number | undefined =>
  entity === 'photo' ? photos[id] : entity === 'set' ? set : site;

const versionOf = ({ entity, id }: Pick<Entity, 'entity' | 'id'>, versions: Versions): number | undefined =>
  entity === 'photo' ? versions.photo(id) : versions[entity]();

/**
 * What touched some of these behind the lowest of their versions, by `nameOf`; whoever asks looks at each version by
 * itself.
 */
async function touchesBehind(
  entities: readonly { entity: Touched['entity']; id: number; version: number }[],
  other: { window?: { [Op.ne]: string }; editId?: { [Op.ne]: number } },
  t: Transaction,
): Promise<Map<string, TouchModel[]>> {
  const found = new Map<string, TouchModel[]>();
  for (const entity of ['photo', 'set', 'site'] as const) {
    for (const part of inParts(entities.filter((one) => one.entity === entity))) {
      const version = { [Op.gt]: Math.min(...part.map((one) => one.version)) };
      const where = { entity, entityId: part.map(({ id }) => id), version, ...other };
      for (const touch of await TouchModel.findAll({ where, transaction: t })) {
        const name = nameOf(entity, touch.entityId);
        found.set(name, [...(found.get(name) ?? []), touch]);
      }
    }
  }
  return found;
}

/**
 * Another window may have changed what an edit was made on. Its own earlier edits are no hindrance, nor are those that
 * touched other parts.
 * @throws ProblemError version-missing, no-such-photo; stale, naming the photos
 */
export async function checkTouched(
  touched: readonly Touched[],
  versions: Versions,
  { seen, window }: Pick<SentEdit, 'seen' | 'window'>,
  t: Transaction,
): Promise<void> {
  const behind = entitiesOf(touched).flatMap((one) => {
    const now = versionOf(one, versions);
    if (now === undefined) throw new ProblemError('no-such-photo');
    const version = seenOf(one, seen);
    if (version === undefined) throw new ProblemError('version-missing');
    return version < now ? [{ ...one, version }] : [];
  });
  const others = await touchesBehind(behind, { window: { [Op.ne]: window } }, t);
  const stale = behind.filter(({ entity, id, version, parts }) =>
    others
      .get(nameOf(entity, id))
      ?.some(
        (touch) =>
          touch.version > version && parts.some((part) => overlap(part.slice(0, LONGEST_PART), touch.part)),
      ),
  );
  if (stale.length === 0) return;
  throw new ProblemError('stale', undefined, {
    photos: stale.filter(({ entity }) => entity === 'photo').map(({ id }) => id),
    set: stale.some(({ entity }) => entity === 'set'),
    site: stale.some(({ entity }) => entity === 'site'),
  });
}

/**
 * An edit is taken back, or done again, only where nobody else changed the same after it: what they did must stay.
 * @throws ProblemError changed-since
 */
export async function checkStep(
  editId: number,
  window: string,
  label: string,
  t: Transaction,
): Promise<void> {
  const own = await TouchModel.findAll({ where: { editId }, transaction: t });
  const behind = own.map(({ entity, entityId, version }) => ({ entity, id: entityId, version }));
  const later = await touchesBehind(behind, { editId: { [Op.ne]: editId } }, t);
  const same = own.flatMap(({ entity, entityId, part, version }) =>
    (later.get(nameOf(entity, entityId)) ?? []).filter(
      (touch) => touch.window !== window && touch.version > version && overlap(touch.part, part),
    ),
  );
  if (same.length === 0) return;
  const where = { id: [...new Set(same.map((touch) => touch.editId))], undone: false };
  if ((await EditModel.count({ where, transaction: t })) === 0) return;
  throw new ProblemError(
    'changed-since',
    `“${label}” stays: the same was changed in another window since. Change it by hand if you want it otherwise.`,
  );
}

/** Notes what an edit touched, at the versions that it made. */
export async function writeTouches(
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
    version: versionOf({ entity, id }, versions) ?? 0,
    window,
  }));
  for (const some of inParts(rows))
    await TouchModel.bulkCreate(some, { transaction: t, updateOnDuplicate: ['version', 'window'] });
}
