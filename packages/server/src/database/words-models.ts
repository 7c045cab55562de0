// What is said of photos, as Sequelize models.
import type { InOthers, Language, Role, SpokenWords, Words } from '@dusky-otter/core/contract';
import { Model } from 'sequelize';

/** A photo's words in one language. */
export class PhotoWordsModel extends Model {
  declare photoId: number;
  declare language: Language;
  declare role: Role | null;
  declare alt: string;
  declare caption: string;
  declare title: string;
  declare credit: string;
  declare longDescription: string;
  declare link: string;
  declare newWindow: boolean;
  declare kept: Words['kept'] | null;
}

/** Words that a table has for a file that is not in its set yet. */
export class PlannedWordsModel extends Model {
  declare id: number;
  declare setId: number;
  declare fileName: string;
  /** The name as it is compared. */
  declare name: string;
  /** SHA-256 of the file, or "" where the table names none. */
  declare hash: string;
  declare words: Partial<Words>;
  /** In the site's further languages; null where a table has one alone. */
  declare others: InOthers<SpokenWords> | null;
  /** Names of places, or null. */
  declare places: string[] | null;
}
