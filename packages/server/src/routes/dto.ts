// What requests must look like, as classes with class-validator rules; wrong requests are answered with a sentence.
import 'reflect-metadata';
import type { Command, SeenVersions } from '@dusky-otter/core/edits';
import { plainToInstance, Transform, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsInt,
  IsObject,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateBy,
  ValidateIf,
  ValidateNested,
  validateSync,
} from 'class-validator';
import { ProblemError } from '../problems.ts';
import { AnyCommandDto, COMMANDS, LARGEST_ID } from './command-dto.ts';
import { IfGiven, QualityDto } from './quality-dto.ts';

export { SetChangeDto } from './command-dto.ts';
export { PlaceCostDto } from './place-dto.ts';

const MOST_PHOTOS = 20_000;
const LONGEST_LABEL = 300;
const SINCE_MISSING = 'since must say, as a whole number, which edit was the newest when the window opened.';
/** Names of edits and windows, as the browser makes them. */
const NAME = /^[\w-]{8,64}$/;

/** An object of whole numbers under the ids of photos. */
const AreVersions = () =>
  ValidateBy({
    name: 'areVersions',
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.keys(value).length <= MOST_PHOTOS &&
        Object.entries(value).every(
          ([id, version]) => /^\d{1,10}$/.test(id) && Number.isSafeInteger(version),
        ),
      defaultMessage: () => 'photos must name a version for each photo',
    },
  });

class SeenDto implements SeenVersions {
  /** Photo id → version that the editor saw. */
  @AreVersions() photos!: Record<number, number>;
  @IfGiven() @IsInt() set?: number;
  @IfGiven() @IsInt() site?: number;
}

export class EditDto {
  /** What undo calls it. It may hold a title of any length: what is too long is cut, not refused. */
  @IsString()
  @Transform(({ value }: { value: unknown }) =>
    typeof value === 'string' ? value.slice(0, LONGEST_LABEL) : value,
  )
  label!: string;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_PHOTOS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => AnyCommandDto, {
    keepDiscriminatorProperty: true,
    discriminator: {
      property: 'kind',
      subTypes: Object.entries(COMMANDS).map(([name, value]) => ({ name, value })),
    },
  })
  commands!: Command[];

  @IsObject() @ValidateNested() @Type(() => SeenDto) seen!: SeenDto;
  @Matches(NAME) token!: string;
  @Matches(NAME) window!: string;
  /** Newest edit that there was when the window opened the set. */
  @IsInt({ message: SINCE_MISSING }) @Min(0, { message: SINCE_MISSING }) since!: number;
}

/** Which window takes back, or does again. */
export class StepDto {
  @Matches(NAME) window!: string;
  @IsInt({ message: SINCE_MISSING }) @Min(0, { message: SINCE_MISSING }) since!: number;
  /** Names the act: sent twice, it is carried out once. */
  @IfGiven() @Matches(NAME) token?: string;
}

export class NewSetDto {
  @IsString() @Matches(/\S/, { message: 'A set needs a name.' }) @MaxLength(200) name!: string;
}

export class SiteDto {
  @IsString() @Matches(/\S/, { message: 'A site needs a name.' }) @MaxLength(200) name!: string;
  @IfGiven() @IsInt() version?: number;
}

export class ArchiveDto {
  @IsBoolean() archived!: boolean;
}

export class AttentionDto {
  @IsArray() @ArrayMaxSize(500) @IsInt({ each: true }) photos!: number[];
}

/** Which demo: the set that the application is learnt on, or with the site's pages beside it. */
export class DemoDto {
  @IfGiven() @IsBoolean() pages?: boolean;
}

/** Photos of other sets that are to stand in this one, too. */
export class ImportDto {
  @IsArray()
  @ArrayMaxSize(200)
  @IsInt({ each: true })
  @Min(1, { each: true })
  @Max(LARGEST_ID, { each: true })
  photos!: number[];
}

/** Photos that go out; null: all of the set. */
export class CheckDto {
  @ValidateIf((o: CheckDto) => o.photos !== null)
  @IsArray()
  @ArrayMaxSize(MOST_PHOTOS)
  @IsInt({ each: true })
  @Min(1, { each: true })
  @Max(LARGEST_ID, { each: true })
  photos!: number[] | null;
}

/** A file that a decision on a place would have made. */
export class TryDto {
  @IsString() @MaxLength(60) slot!: string;
  @IsString() @MaxLength(20) shape!: string;
  @IsInt() @Min(1) @Max(100_000) width!: number;
  @IsString() @MaxLength(10) format!: string;
  @IsObject() @ValidateNested() @Type(() => QualityDto) decision!: QualityDto;
}

export class ThoroughDto {
  @IsBoolean() now!: boolean;
}

export class PauseDto {
  @IsBoolean() paused!: boolean;
}

/** The body as an instance of a DTO class. @throws ProblemError bad-request naming what is wrong. */
export function checked<T extends object>(type: new () => T, body: unknown): T {
  if (typeof body !== 'object' || body === null || Array.isArray(body)) throw new ProblemError('bad-request');
  let instance: T;
  try {
    instance = plainToInstance(type, body);
  } catch (error) {
    // It takes what a body should be for granted, such as that no command is null.
    throw new ProblemError('bad-request', undefined, {}, error);
  }
  const errors = validateSync(instance, { whitelist: true, forbidUnknownValues: true });
  if (errors.length === 0) return instance;
  let error = errors[0]!;
  while (error.children?.[0]) error = error.children[0];
  throw new ProblemError('bad-request', Object.values(error.constraints ?? {})[0] ?? undefined);
}

/** The screen that a query names. */
export interface ScreenAsked {
  viewport?: string;
  density?: string;
}

/** @throws ProblemError bad-request for what is no screen */
export function screenFrom(asked: ScreenAsked): { viewport: number; density: number } {
  const [viewport, density] = [Number(asked.viewport), Number(asked.density)];
  if (!(viewport >= 100 && viewport <= 10_000 && density >= 0.5 && density <= 5))
    throw new ProblemError('bad-request');
  return { viewport, density };
}

/** A positive whole number from an address. @throws ProblemError */
export function idFrom(
  text: string,
  missing: 'no-such-set' | 'no-such-photo' | 'no-such-site' = 'no-such-set',
): number {
  if (!/^\d{1,9}$/.test(text)) throw new ProblemError(missing);
  return Number(text);
}
