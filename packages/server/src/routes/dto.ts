// What requests must look like, as classes with class-validator rules; wrong requests are answered with a sentence.
import 'reflect-metadata';
import {
  LONGEST_TEXT,
  TARGET_NAMES,
  type Command,
  type FocalPoint,
  type Policy,
  type Rect,
  type Role,
  type SetDecisions,
  type ShapeId,
  type SlotId,
  type Words,
  type TargetName,
} from '@dusky-otter/core';
import { plainToInstance, Transform, Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  Equals,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateBy,
  validateSync,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { ProblemError } from '../problems.ts';

const ROLES: Role[] = ['informative', 'decorative', 'functional', 'text', 'complex'];

/** What ids of the database can be. */
const LARGEST_ID = 4_294_967_295;
const MOST_PHOTOS = 20_000;
const MOST_SLOTS = 50;
const LONGEST_LABEL = 300;

/** May be left out. Unlike IsOptional it does not let null pass for "left out". */
const IfGiven = () => ValidateIf((_, value: unknown) => value !== undefined);

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

class FocalDto implements FocalPoint {
  @IsNumber() @Min(0) @Max(1) x!: number;
  @IsNumber() @Min(0) @Max(1) y!: number;
  @IsBoolean() confirmed!: boolean;
}

class RectDto implements Rect {
  @IsInt() @Min(0) x!: number;
  @IsInt() @Min(0) y!: number;
  @IsInt() @Min(1) width!: number;
  @IsInt() @Min(1) height!: number;
}

class WordsDto implements Partial<Words> {
  @ValidateIf((_, value) => value !== undefined && value !== null) @IsIn(ROLES) role?: Role | null;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) alt?: string;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) caption?: string;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) title?: string;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) credit?: string;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) longDescription?: string;
}

class FocalCommandDto {
  @Equals('focal') kind!: 'focal';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @IsObject() @ValidateNested() @Type(() => FocalDto) focal!: FocalDto;
}

class CropCommandDto {
  @Equals('crop') kind!: 'crop';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @Matches(/^(own|[1-9]\d{0,3}:[1-9]\d{0,3})$/) shape!: ShapeId;
  @ValidateIf((o: CropCommandDto) => o.crop !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => RectDto)
  crop!: RectDto | null;
}

class WordsCommandDto {
  @Equals('words') kind!: 'words';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @IsObject() @ValidateNested() @Type(() => WordsDto) words!: WordsDto;
}

class SlotsCommandDto {
  @Equals('slots') kind!: 'slots';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @ValidateIf((o: SlotsCommandDto) => o.slots !== null)
  @IsArray()
  @ArrayMaxSize(MOST_SLOTS)
  @IsString({ each: true })
  @MaxLength(40, { each: true })
  slots!: SlotId[] | null;
}

class BinCommandDto {
  @Equals('bin') kind!: 'bin';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @IsBoolean() binned!: boolean;
}

class PolicyDto implements Policy {
  @IsIn(['avif', 'webp']) modern!: Policy['modern'];
  @IsIn(TARGET_NAMES) target!: TargetName;
}

class SetChangeDto implements Partial<SetDecisions> {
  @IfGiven() @IsString() @MaxLength(200) name?: string;
  @IfGiven()
  @IsArray()
  @ArrayMaxSize(MOST_SLOTS)
  @IsString({ each: true })
  @MaxLength(40, { each: true })
  slots?: SlotId[];
  @IfGiven() @IsArray() @ArrayMaxSize(MOST_PHOTOS) @IsInt({ each: true }) order?: number[];
  @IfGiven() @IsBoolean() arranged?: boolean;
  @IfGiven() @IsBoolean() rehearsed?: boolean;
  @IfGiven() @IsObject() @ValidateNested() @Type(() => PolicyDto) policy?: PolicyDto;
}

class SetCommandDto {
  @Equals('set') kind!: 'set';
  @IsObject() @ValidateNested() @Type(() => SetChangeDto) change!: SetChangeDto;
}

class AnyCommandDto {
  @IsIn(['focal', 'crop', 'words', 'slots', 'bin', 'set']) kind!: string;
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
  @ArrayMaxSize(5000)
  @ValidateNested({ each: true })
  @Type(() => AnyCommandDto, {
    keepDiscriminatorProperty: true,
    discriminator: {
      property: 'kind',
      subTypes: [
        { name: 'focal', value: FocalCommandDto },
        { name: 'crop', value: CropCommandDto },
        { name: 'words', value: WordsCommandDto },
        { name: 'slots', value: SlotsCommandDto },
        { name: 'bin', value: BinCommandDto },
        { name: 'set', value: SetCommandDto },
      ],
    },
  })
  commands!: Command[];

  /** Photo id → version that the editor saw. */
  @AreVersions() photos!: Record<number, number>;
  @IfGiven() @IsInt() set?: number;
}

export class NewSetDto {
  @IsString() @Matches(/\S/, { message: 'A set needs a name.' }) @MaxLength(200) name!: string;
}

export class SiteDto {
  @IsString() @Matches(/\S/, { message: 'A site needs a name.' }) @MaxLength(200) name!: string;
}

export class AttentionDto {
  @IsArray() @ArrayMaxSize(500) @IsInt({ each: true }) photos!: number[];
}

export class PauseDto {
  @IsBoolean() paused!: boolean;
}

/** The body as an instance of a DTO class. @throws ProblemError bad-request naming what is wrong. */
export function checked<T extends object>(type: new () => T, body: unknown): T {
  if (typeof body !== 'object' || body === null) throw new ProblemError('bad-request');
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

/** A positive whole number from an address. @throws ProblemError */
export function idFrom(
  text: string,
  missing: 'no-such-set' | 'no-such-photo' | 'no-such-site' = 'no-such-set',
): number {
  if (!/^\d{1,9}$/.test(text)) throw new ProblemError(missing);
  return Number(text);
}
