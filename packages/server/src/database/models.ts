// The tables as Sequelize models. Decisions are kept as JSON: they are read and written whole.
import type {
  Command,
  FocalPoint,
  OriginalFacts,
  Policy,
  Rect,
  ShapeId,
  SlotId,
  Words,
} from '@dusky-otter/core';
import type { ViewHashes } from '../codec/protocol.ts';
import {
  DataTypes,
  Model,
  type ModelAttributeColumnOptions,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

export class SiteModel extends Model {
  declare id: number;
  declare name: string;
  declare policy: Policy;
}

export class SetModel extends Model {
  declare id: number;
  declare siteId: number;
  declare name: string;
  declare slots: SlotId[];
  declare arranged: boolean;
  declare rehearsed: boolean;
  declare handedOver: boolean;
  declare version: number;
}

export class OriginalModel extends Model {
  declare hash: string;
  declare facts: OriginalFacts;
  /** SHA-256 of its views' files; null for originals taken in before they were kept. */
  declare views: ViewHashes | null;
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
  declare focal: FocalPoint;
  declare crops: Partial<Record<ShapeId, Rect>>;
  declare words: Words;
  declare version: number;
}

/** A photo's place in a set, with what is decided for this set alone. */
export class MembershipModel extends Model {
  declare setId: number;
  declare photoId: number;
  declare position: number;
  declare slots: SlotId[] | null;
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
  declare wantedUntil: Date | null;
}

export class EditModel extends Model {
  declare id: number;
  declare setId: number;
  declare label: string;
  declare commands: Command[];
  declare inverse: Command[];
  declare who: string;
  declare undone: boolean;
  declare createdAt: Date;
  declare updatedAt: Date;
}

export class RefusalModel extends Model {
  declare id: number;
  declare setId: number;
  declare fileName: string;
  declare bytes: number;
  declare code: string;
  declare sentence: string;
}

/** A column that holds JSON as text: the driver's own JSON type answers differently from version to version. */
function json(name: string): ModelAttributeColumnOptions {
  return {
    type: DataTypes.TEXT('long'),
    allowNull: true,
    get(this: Model) {
      const text = (this.getDataValue(name) ?? null) as string | null;
      return text === null ? null : (JSON.parse(text) as unknown);
    },
    set(this: Model, value: unknown) {
      this.setDataValue(name, value === null ? null : JSON.stringify(value));
    },
  };
}

// Functions, not constants: Sequelize writes into the column objects it is given.
const id = () => ({ type: DataTypes.INTEGER.UNSIGNED, autoIncrement: true, primaryKey: true });
const number = () => ({ type: DataTypes.INTEGER.UNSIGNED, allowNull: false });
const hash = () => ({ type: DataTypes.CHAR(64), allowNull: false });
const flag = () => ({ type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false });
const text = (length: number) => ({ type: DataTypes.STRING(length), allowNull: false });

/** Binds all models to a connection. */
export function defineModels(sequelize: Sequelize): void {
  const define = (
    model: ModelStatic<Model>,
    tableName: string,
    columns: Parameters<typeof Model.init>[0],
    timestamps = false,
  ) => model.init(columns, { sequelize, tableName, modelName: tableName, timestamps, underscored: true });
  define(SiteModel, 'sites', { id: id(), name: text(200), policy: json('policy') });
  define(SetModel, 'sets', {
    id: id(),
    siteId: number(),
    name: text(200),
    slots: json('slots'),
    arranged: flag(),
    rehearsed: flag(),
    handedOver: flag(),
    version: number(),
  });
  define(OriginalModel, 'originals', {
    hash: { ...hash(), primaryKey: true },
    facts: json('facts'),
    views: json('views'),
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
    focal: json('focal'),
    crops: json('crops'),
    words: json('words'),
    version: number(),
  });
  define(MembershipModel, 'memberships', {
    setId: { ...number(), primaryKey: true },
    photoId: { ...number(), primaryKey: true },
    position: number(),
    slots: json('slots'),
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
    wantedUntil: { type: DataTypes.DATE(3), allowNull: true },
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
      undone: flag(),
    },
    true,
  );
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
