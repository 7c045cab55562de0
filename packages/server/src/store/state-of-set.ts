// One name for everything that is decided in a set: two that are equal hand over the same.
import { createHash } from 'node:crypto';
import type { Transaction } from 'sequelize';
import { MembershipModel, PhotoModel, SetModel } from '../database/models.ts';
import { SiteModel } from '../database/site-models.ts';
import { inParts } from '../database/in-parts.ts';

/**
 * The versions of a set, its site, its photos, the site's other pages and what stands on all of them, as a hash: every
 * change of one of them makes another.
 */
export async function stateOfSet(setId: number, siteId: number, t?: Transaction): Promise<string> {
  const raw = { raw: true as const, ...(t && { transaction: t }) };
  const hash = createHash('sha256');
  const site = await SiteModel.findByPk(siteId, { ...(t && { transaction: t }) });
  const sources = site?.everywhere?.map(({ set }) => set) ?? [];
  const sets = await SetModel.findAll({ where: { siteId }, attributes: ['id', 'version'], ...raw });
  const standing = await MembershipModel.findAll({
    where: { setId: [setId, ...sources], binned: false },
    attributes: ['photoId', 'position'],
    order: [
      ['setId', 'ASC'],
      ['photoId', 'ASC'],
    ],
    ...raw,
  });
  hash.update(JSON.stringify([site?.version, sets, standing]));
  for (const id of inParts([...new Set(standing.map(({ photoId }) => photoId))])) {
    const versions = { where: { id }, attributes: ['id', 'version'] };
    hash.update(JSON.stringify(await PhotoModel.findAll({ ...versions, order: [['id', 'ASC']], ...raw })));
  }
  return hash.digest('hex');
}
