// The tables as Sequelize models. Decisions are kept as JSON: they are read and written whole.
import type {
  Frame,
  OriginalFacts,
  Placement,
  QualityDecision,
  ShownLine,
  SlotId,
  SetPage,
  Words,
} from '@dusky-otter/core/contract';
import type { Command, Touched } from '@dusky-otter/core/edits';
import type { ViewHashes } from '../codec/protocol.ts';
import { DataTypes, Model, type ModelStatic, type Sequelize } from 'sequelize';
import { PlaceModel, SiteModel } from './site-models.ts';
import { PhotoWordsModel, PlannedWordsModel } from './words-models.ts';
import { flag, hash, id, json, number, prose, text } from './columns.ts';

export class SetModel extends Model {
  declare id: number;
  declare siteId: number;
  declare name: string;
  declare arranged: boolean;
  declare rehearsed: boolean;
  declare handedOver: boolean;
  declare archived: boolean;
  declare version: number;
  declare workedAt: Date | null;
  declare page: SetPage | null;
}

/** A place of the site in which every photo of a set stands that has no placements of its own. */
export class OpenSlotModel extends Model {
  declare setId: number;
  declare slot: SlotId;
  declare rank: number;
}

/** A photo in one place of one set, where it has placements of its own. */
export class PlacementModel extends Model {
  declare setId: number;
  declare photoId: number;
  declare slot: SlotId;
  /** Where it stands among the photo's placements. */
  declare rank: number;
  declare link: string;
  declare words: Partial<Words>;
  declare crops: Placement['crops'];
  /** null for none. */
  declare others: Placement['others'] | null;
  declare captions: Placement['captions'] | null;
}

/** An act that was carried out, by the token that names it, with its answer. */
export class ActModel extends Model {
  declare token: string;
  declare answer: unknown;
  declare createdAt: Date;
}

export class OriginalModel extends Model {
  declare hash: string;
  declare facts: OriginalFacts;
  /** SHA-256 of its views' files; null for originals taken in before they were kept. */
  declare views: ViewHashes | null;
  /** Words that it shows; null as long as nobody has looked for them. */
  declare shows: ShownLine[] | null;
}

/** A speaking name that has gone out with a hand-over, and the photo it belongs to for good. */
export class PublishedNameModel extends Model {
  declare setId: number;
  declare name: string;
  declare photoId: number;
}

export class PhotoModel extends Model {
  declare id: number;
  declare siteId: number;
  declare originalHash: string;
  declare fileName: string;
  declare frame: Frame;
  declare quality: Partial<Record<SlotId, QualityDecision>>;
  /** Its picture was replaced, and nobody has read the words since. */
  declare toRead: boolean;
  declare version: number;
}

/** An original that a photo had, or was given, for undo and redo: it stays as long as the photo. */
export class EarlierOriginalModel extends Model {
  declare photoId: number;
  declare hash: string;
}

/** A file that may take the place of a photo's original, until an editor says what becomes of it. */
export class OfferModel extends Model {
  declare id: number;
  declare setId: number;
  declare photoId: number;
  declare hash: string;
  declare fileName: string;
}

/** A photo's place in a set, with what is decided for this set alone. */
export class MembershipModel extends Model {
  declare setId: number;
  declare photoId: number;
  /** Sorts by its characters' codes. */
  declare position: string;
  /** Stands in the open places of its set; otherwise in its own placements there. */
  declare follows: boolean;
  declare binned: boolean;
}

export class VariantModel extends Model {
  declare key: string;
  declare originalHash: string;
  declare format: string;
  declare bytes: number;
  declare contentHash: string;
  declare quality: number | null;
  declare difference: number | null;
  /** When it was noticed that no set wants it any more; null while one does. */
  declare unwantedSince: Date | null;
  /** Key of the quick file in whose place this thorough one stands; null for a quick one. */
  declare insteadOf: string | null;
}

export class EditModel extends Model {
  declare id: number;
  declare setId: number;
  declare label: string;
  declare commands: Command[];
  declare inverse: Command[];
  declare who: string;
  /** Names the edit: sent twice, it is carried out once. Null for edits from before there were names. */
  declare token: string | null;
  /** The window that made it. */
  declare window: string;
  declare undone: boolean;
  /** The window that took it back and may do it again; null when it may no more. */
  declare undoneWindow: string | null;
  declare createdAt: Date;
  declare updatedAt: Date;
}

/** A part of something that an edit changed, at which version, and in which window that was done or taken back last. */
export class TouchModel extends Model {
  declare editId: number;
  declare entity: Touched['entity'];
  declare entityId: number;
  declare part: string;
  declare version: number;
  declare window: string;
}

export class RefusalModel extends Model {
  declare id: number;
  declare setId: number;
  declare fileName: string;
  declare bytes: number;
  declare code: string;
  declare sentence: string;
}

/** Binds all models to a connection. */
export function defineModels(sequelize: Sequelize): void {
  const define = (
    model: ModelStatic<Model>,
    tableName: string,
    columns: Parameters<typeof Model.init>[0],
    timestamps = false,
  ) => model.init(columns, { sequelize, tableName, modelName: tableName, timestamps, underscored: true });
  define(SiteModel, 'sites', {
    id: id(),
    name: text(200),
    address: text(500),
    policy: json('policy'),
    languages: json('languages'),
    devices: json('devices'),
    retired: json('retired'),
    everywhere: json('everywhere'),
    terms: json('terms'),
    archived: flag(),
    version: number(),
  });
  define(PlaceModel, 'places', {
    siteId: { ...number(), primaryKey: true },
    slot: { ...text(40), primaryKey: true },
    rank: number(),
    value: json('value'),
    version: number(),
  });
  define(SetModel, 'sets', {
    id: id(),
    siteId: number(),
    name: text(200),
    arranged: flag(),
    rehearsed: flag(),
    handedOver: flag(),
    archived: flag(),
    version: number(),
    workedAt: { type: DataTypes.DATE(3), allowNull: true },
    page: json('page'),
  });
  define(OpenSlotModel, 'open_slots', {
    setId: { ...number(), primaryKey: true },
    slot: { ...text(40), primaryKey: true },
    rank: number(),
  });
  define(PlacementModel, 'photo_placements', {
    setId: { ...number(), primaryKey: true },
    photoId: { ...number(), primaryKey: true },
    slot: { ...text(40), primaryKey: true },
    rank: number(),
    link: text(2000),
    words: json('words'),
    crops: json('crops'),
    ...{ others: json('others'), captions: json('captions') },
  });
  define(ActModel, 'acts', {
    token: { ...text(64), primaryKey: true },
    answer: json('answer'),
    createdAt: { type: DataTypes.DATE(3), allowNull: false },
  });
  define(OriginalModel, 'originals', {
    hash: { ...hash(), primaryKey: true },
    facts: json('facts'),
    views: json('views'),
    shows: json('shows'),
  });
  define(PublishedNameModel, 'published_names', {
    setId: { ...number(), primaryKey: true },
    name: { ...text(100), primaryKey: true },
    photoId: number(),
  });
  define(PhotoModel, 'photos', {
    id: id(),
    siteId: number(),
    originalHash: hash(),
    fileName: text(255),
    frame: json('frame'),
    quality: json('quality'),
    toRead: flag(),
    version: number(),
  });
  define(EarlierOriginalModel, 'earlier_originals', {
    photoId: { ...number(), primaryKey: true },
    hash: { ...hash(), primaryKey: true },
  });
  define(OfferModel, 'offers', {
    id: id(),
    setId: number(),
    photoId: number(),
    hash: hash(),
    fileName: text(255),
  });
  define(PhotoWordsModel, 'photo_words', {
    photoId: { ...number(), primaryKey: true },
    language: { ...text(35), primaryKey: true },
    role: { ...text(20), allowNull: true },
    alt: prose(),
    caption: prose(),
    title: prose(),
    credit: prose(),
    longDescription: prose(),
    link: { ...text(2000), defaultValue: '' },
    newWindow: flag(),
    kept: json('kept'),
  });
  define(PlannedWordsModel, 'planned_words', {
    id: id(),
    setId: number(),
    fileName: text(255),
    name: text(255),
    hash: { ...hash(), defaultValue: '' },
    words: json('words'),
    others: json('others'),
    places: json('places'),
  });
  define(MembershipModel, 'memberships', {
    setId: { ...number(), primaryKey: true },
    photoId: { ...number(), primaryKey: true },
    position: text(200),
    follows: { ...flag(), defaultValue: true },
    binned: flag(),
  });
  define(VariantModel, 'variants', {
    key: { ...hash(), primaryKey: true, field: 'variant_key' },
    originalHash: hash(),
    format: text(8),
    bytes: number(),
    contentHash: hash(),
    quality: { type: DataTypes.INTEGER, allowNull: true },
    difference: { type: DataTypes.DOUBLE, allowNull: true },
    unwantedSince: { type: DataTypes.DATE(3), allowNull: true },
    insteadOf: { ...hash(), allowNull: true },
  });
  define(
    EditModel,
    'edits',
    {
      id: id(),
      setId: number(),
      label: text(300),
      commands: json('commands'),
      inverse: json('inverse'),
      who: text(100),
      token: { ...text(64), allowNull: true },
      window: { ...text(64), field: 'window_id' },
      undone: flag(),
      undoneWindow: { ...text(64), allowNull: true },
    },
    true,
  );
  define(TouchModel, 'touches', {
    editId: { ...number(), primaryKey: true },
    entity: { ...text(8), primaryKey: true },
    entityId: { ...number(), primaryKey: true },
    part: { ...text(120), primaryKey: true },
    version: number(),
    window: { ...text(64), field: 'window_id' },
  });
  define(RefusalModel, 'refusals', {
    id: id(),
    setId: number(),
    fileName: text(255),
    bytes: {
      type: DataTypes.BIGINT.UNSIGNED,
      allowNull: false,
      get(this: Model) {
        return Number(this.getDataValue('bytes'));
      },
    },
    code: text(40),
    sentence: text(500),
  });
}
