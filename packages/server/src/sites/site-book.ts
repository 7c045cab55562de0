// Sites as plans need them, read once and kept: a plan asks for the same places and devices thousands of times, and
// widths are found once for each object that is asked about.
import {
  applyToSite,
  DEFAULT_DEVICES,
  DEFAULT_POLICY,
  SHIPPED_SLOTS,
  type Site,
  type SiteCommand,
  type Slot,
} from '@dusky-otter/core';
import type { Transaction } from 'sequelize';
import { PlaceModel, SiteModel } from '../database/models.ts';
import { ProblemError } from '../problems.ts';

type InTransaction = { transaction?: Transaction };

async function read(id: number, options: InTransaction & { lock?: boolean } = {}): Promise<Site> {
  const site = await SiteModel.findByPk(id, options);
  if (!site) throw new ProblemError('no-such-site');
  const places = await PlaceModel.findAll({ where: { siteId: id }, order: [['rank', 'ASC']], ...options });
  const { name, address, policy, languages, devices, away, version } = site;
  return {
    ...{ id, name, address, policy, languages, devices, away, version },
    slots: places.map((p) => p.value),
    retired: site.retired ?? [],
  };
}

async function writeSlot(
  siteId: number,
  before: Slot | undefined,
  slot: Slot,
  t: Transaction,
): Promise<void> {
  if (before) {
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

const isArrangement =
  (slot: string) =>
  ({ id, arranged }: Slot): boolean =>
    id === slot && arranged !== undefined;

/** Makes a site with the places that ship. */
export async function makeSite(name: string): Promise<SiteModel> {
  const site = await SiteModel.create({
    name,
    address: '',
    policy: DEFAULT_POLICY,
    languages: ['en'],
    devices: DEFAULT_DEVICES,
    away: false,
    version: 1,
  });
  await PlaceModel.bulkCreate(
    SHIPPED_SLOTS.map((slot, rank) => ({ siteId: site.id, slot: slot.id, rank, value: slot, version: 1 })),
  );
  return site;
}

export class SiteBook {
  private readonly known = new Map<number, Promise<Site>>();

  /**
   * @param options the transaction of whoever asks inside one: a second connection may not be had
   * @throws ProblemError no-such-site
   */
  get(id: number, options: InTransaction = {}): Promise<Site> {
    const before = this.known.get(id);
    if (before) return before;
    const found = read(id, options);
    this.known.set(id, found);
    // What could not be read is tried again the next time.
    found.catch(() => this.known.delete(id));
    return found;
  }

  /** After a change: the next who asks reads it anew. */
  forget(id: number): void {
    this.known.delete(id);
  }

  /** The site as it is for whoever may change it, until the transaction ends. @throws ProblemError no-such-site */
  locked(id: number, t: Transaction): Promise<Site> {
    return read(id, { transaction: t, lock: true });
  }

  /**
   * Carries out a command on a site that is locked.
   * @returns the site as it is then, and the command that takes it back
   * @throws CommandError
   */
  async write(
    site: Site,
    command: SiteCommand,
    t: Transaction,
  ): Promise<{ site: Site; inverse: SiteCommand }> {
    const { site: after, inverse } = applyToSite(site, command);
    if (command.kind === 'slot') {
      const { slot, value } = command;
      if (value)
        await writeSlot(
          site.id,
          site.slots.find(({ id }) => id === slot),
          value,
          t,
        );
      else await PlaceModel.destroy({ where: { siteId: site.id, slot }, transaction: t });
    }
    const gone =
      command.kind === 'slot' && command.value === null && site.slots.some(isArrangement(command.slot))
        ? [command.slot]
        : [];
    const retired = [...new Set([...(site.retired ?? []), ...gone])];
    const { name, address, policy, languages, devices, away } = after;
    const version = site.version + 1;
    await SiteModel.update(
      { name, address, policy, languages, devices, away, retired, version },
      { where: { id: site.id }, transaction: t },
    );
    return { site: { ...after, retired, version }, inverse };
  }
}
