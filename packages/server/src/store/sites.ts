// Sites with their places.
import type { Policy, Site, Slot, SlotId } from '@dusky-otter/core/contract';
import { DEFAULT_DEVICES, SHIPPED_SLOTS } from '@dusky-otter/core/slots';
import { DEFAULT_POLICY } from '@dusky-otter/core/weight';
import type { Transaction } from 'sequelize';
import { PlaceModel, SiteModel } from '../database/site-models.ts';
import { ProblemError } from '../problems.ts';
import type { InTransaction } from './reading.ts';

/** @throws ProblemError no-such-site */
export async function readSite(id: number, options: InTransaction = {}): Promise<Site> {
  const site = await SiteModel.findByPk(id, options);
  if (!site) throw new ProblemError('no-such-site');
  const places = await PlaceModel.findAll({ where: { siteId: id }, order: [['rank', 'ASC']], ...options });
  const { name, address, policy, languages, devices, archived, version } = site;
  return {
    ...{ id, name, address, policy, languages, devices, archived, version },
    slots: places.map((p) => p.value),
    retired: site.retired ?? [],
    everywhere: site.everywhere ?? [],
    terms: site.terms ?? [],
  };
}

/**
 * Holds a site until the transaction ends.
 * @param forChange nobody else may hold it meanwhile; otherwise nobody may change it
 * @returns its version
 * @throws ProblemError no-such-site
 */
export async function holdSite(id: number, forChange: boolean, t: Transaction): Promise<number> {
  const lock = forChange ? t.LOCK.UPDATE : t.LOCK.SHARE;
  const site = await SiteModel.findByPk(id, { attributes: ['id', 'version'], transaction: t, lock });
  if (!site) throw new ProblemError('no-such-site');
  return site.version;
}

/** Writes what is decided on a site, its places apart. */
export async function writeSite(site: Site, t: Transaction): Promise<void> {
  const { id, name, address, policy, languages, devices, everywhere, terms, archived, retired, version } =
    site;
  const values = { name, address, policy, languages, devices, everywhere, terms, archived, retired, version };
  await SiteModel.update(values, { where: { id }, transaction: t });
}

/** Writes a place over the one of its id, or behind all others. */
export async function writePlace(siteId: number, slot: Slot, isNew: boolean, t: Transaction): Promise<void> {
  if (!isNew) {
    await PlaceModel.update({ value: slot }, { where: { siteId, slot: slot.id }, transaction: t });
    await PlaceModel.increment('version', { where: { siteId, slot: slot.id }, transaction: t });
    return;
  }
  const last = await PlaceModel.max<number | null, PlaceModel>('rank', { where: { siteId }, transaction: t });
  await PlaceModel.create(
    { siteId, slot: slot.id, rank: (last ?? -1) + 1, value: slot, version: 1 },
    { transaction: t },
  );
}

export async function dropPlace(siteId: number, slot: SlotId, t: Transaction): Promise<void> {
  await PlaceModel.destroy({ where: { siteId, slot }, transaction: t });
}

/** Makes a site with the places that ship. @returns its id */
export async function insertSite(
  name: string,
  t: Transaction,
  policy: Policy = DEFAULT_POLICY,
): Promise<number> {
  const site = await SiteModel.create(
    { name, address: '', policy, languages: ['en'], devices: DEFAULT_DEVICES, archived: false, version: 1 },
    { transaction: t },
  );
  await PlaceModel.bulkCreate(
    SHIPPED_SLOTS.map((slot, rank) => ({ siteId: site.id, slot: slot.id, rank, value: slot, version: 1 })),
    { transaction: t },
  );
  return site.id;
}

/** Ids of all sites. */
export const allSites = async (): Promise<number[]> =>
  (await SiteModel.findAll({ attributes: ['id'], order: [['id', 'ASC']] })).map(({ id }) => id);
