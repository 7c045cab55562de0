// Sites and their places, as Sequelize models.
import type { DeviceClass, Everywhere, Language, Policy, Slot, SlotId } from '@dusky-otter/core/contract';
import { Model } from 'sequelize';

export class SiteModel extends Model {
  declare id: number;
  declare name: string;
  declare address: string;
  declare policy: Policy;
  declare languages: Language[];
  declare devices: DeviceClass[];
  /** null for none. */
  declare everywhere: Everywhere[] | null;
  declare terms: string[] | null;
  declare archived: boolean;
  /** Short names of arrangements that are gone; null for none. */
  declare retired: SlotId[] | null;
  declare version: number;
}

/** A place of a site. */
export class PlaceModel extends Model {
  declare siteId: number;
  declare slot: SlotId;
  /** Where it stands among the site's places. */
  declare rank: number;
  declare value: Slot;
  declare version: number;
}
