// What commands must look like, one class each: a command that is missing here is refused.
import 'reflect-metadata';
import type {
  DeviceClass,
  Everywhere,
  FocalPoint,
  Frame,
  InOthers,
  Language,
  Placement,
  Policy,
  Rect,
  Role,
  SetDecisions,
  ShapeId,
  SiteDecisions,
  SlotId,
  TargetName,
  Words,
} from '@dusky-otter/core/contract';
import { LONGEST_POSITION, type Command } from '@dusky-otter/core/edits';
import { SHAPE } from '@dusky-otter/core/geometry';
import { LONGEST_LINK, LONGEST_PREFIX } from '@dusky-otter/core/html';
import { TARGET_NAMES } from '@dusky-otter/core/weight';
import { LONGEST_NOTE, LONGEST_TERM, LONGEST_TEXT, MOST_TERMS, WORD_CHECKS } from '@dusky-otter/core/words';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
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
  MinLength,
  ValidateBy,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

import { PageDto } from './page-dto.ts';
import { IsSlotId, SlotDto } from './place-dto.ts';
import { IfGiven, QualityDto } from './quality-dto.ts';

const ROLES: Role[] = ['informative', 'decorative', 'functional', 'text', 'complex'];

/** What ids of the database can be. */
export const LARGEST_ID = 4_294_967_295;
const MOST_SLOTS = 50;
const MOST_CROPS = 50;
const LANGUAGE = /^[A-Za-z]{2,8}(?:-[A-Za-z0-9]{1,8}){0,3}$/;
const CHECK_CODES: ReadonlySet<string> = new Set(WORD_CHECKS.map(({ code }) => code));

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

/** Notes under codes of checks. */
const AreNotes = () =>
  ValidateBy({
    name: 'areNotes',
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.entries(value).every(
          ([code, note]) => CHECK_CODES.has(code) && typeof note === 'string' && note.length <= LONGEST_NOTE,
        ),
      defaultMessage: () => 'kept must name a note for each check',
    },
  });

class WordsDto implements Partial<Words> {
  @ValidateIf((_, value) => value !== undefined && value !== null) @IsIn(ROLES) role?: Role | null;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) alt?: string;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) caption?: string;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) title?: string;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) credit?: string;
  @IfGiven() @IsString() @MaxLength(LONGEST_TEXT) longDescription?: string;
  @IfGiven() @IsString() @MaxLength(LONGEST_LINK) link?: string;
  @IfGiven() @IsBoolean() newWindow?: boolean;
  @IfGiven() @AreNotes() kept?: Words['kept'];
}

class FocalCommandDto {
  @Equals('focal') kind!: 'focal';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @IsObject() @ValidateNested() @Type(() => FocalDto) focal!: FocalDto;
}

class CropCommandDto {
  @Equals('crop') kind!: 'crop';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @Matches(SHAPE) shape!: ShapeId;
  @ValidateIf((o: CropCommandDto) => o.crop !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => RectDto)
  crop!: RectDto | null;
}

/** An object of rectangles under shapes; each is checked against the picture where it is carried out. */
const AreCrops = () =>
  ValidateBy({
    name: 'areCrops',
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.keys(value).length <= MOST_CROPS &&
        Object.entries(value).every(([shape, crop]) => SHAPE.test(shape) && isRect(crop)),
      defaultMessage: () => 'crops must name a rectangle for each shape',
    },
  });

function isRect(value: unknown): boolean {
  if (typeof value !== 'object' || value === null) return false;
  const { x, y, width, height, ...others } = value as Record<string, unknown>;
  const whole = [x, y, width, height].every((n) => Number.isSafeInteger(n) && Number(n) >= 0);
  return whole && Object.keys(others).length === 0;
}

class FrameDto implements Frame {
  @IsBoolean() mirrored!: boolean;
  @IsIn([0, 1, 2, 3]) turns!: Frame['turns'];
  @IsNumber() angle!: number;
  @IsObject() @ValidateNested() @Type(() => FocalDto) focal!: FocalDto;
  @AreCrops() crops!: Frame['crops'];
}

class FrameCommandDto {
  @Equals('frame') kind!: 'frame';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @IsObject() @ValidateNested() @Type(() => FrameDto) frame!: FrameDto;
}

class WordsCommandDto {
  @Equals('words') kind!: 'words';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @Matches(LANGUAGE) language!: Language;
  @IsObject() @ValidateNested() @Type(() => WordsDto) words!: WordsDto;
  @IfGiven() @IsBoolean() toRead?: boolean;
}

class OriginalCommandDto {
  @Equals('original') kind!: 'original';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @Matches(/^[0-9a-f]{64}$/) original!: string;
  @IsString() @MinLength(1) @MaxLength(255) fileName!: string;
  @IsObject() @ValidateNested() @Type(() => FrameDto) frame!: FrameDto;
  @IsBoolean() toRead!: boolean;
}

class QualityCommandDto {
  @Equals('quality') kind!: 'quality';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @IsSlotId() slot!: SlotId;
  @ValidateIf((o: QualityCommandDto) => o.decision !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => QualityDto)
  decision!: QualityDto | null;
}

class PlacementDto implements Placement {
  @IsSlotId() slot!: SlotId;
  @IsString() @MaxLength(LONGEST_LINK) link!: string;
  @IsObject() @ValidateNested() @Type(() => WordsDto) words!: WordsDto;
  @AreCrops() crops!: Frame['crops'];
  /** Judged in the core. */
  @IfGiven() @IsObject() others?: InOthers<Partial<Words>>;
  @IfGiven() @IsObject() captions?: InOthers;
}

class PlacementsCommandDto {
  @Equals('placements') kind!: 'placements';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @ValidateIf((o: PlacementsCommandDto) => o.placements !== null)
  @IsArray()
  @ArrayMaxSize(MOST_SLOTS)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PlacementDto)
  placements!: PlacementDto[] | null;
}

class PositionCommandDto {
  @Equals('position') kind!: 'position';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @IsString() @MaxLength(LONGEST_POSITION) position!: string;
}

class BinCommandDto {
  @Equals('bin') kind!: 'bin';
  @IsInt() @Min(1) @Max(LARGEST_ID) photo!: number;
  @IsBoolean() binned!: boolean;
}

export class PolicyDto implements Policy {
  @IsIn(['avif', 'webp', 'smaller', 'both']) modern!: Policy['modern'];
  @IfGiven() @IsIn([1, 1.5, 2]) density?: 1 | 1.5 | 2;
  @IfGiven() @IsIn(['none', 'credit', 'words']) metadata?: Policy['metadata'];
  @IfGiven() @IsBoolean() progressive?: boolean;
  @IfGiven() @IsBoolean() wideColours?: boolean;
  @IfGiven() @IsIn(['fingerprint', 'plain']) naming?: 'fingerprint' | 'plain';
  @IfGiven() @IsBoolean() thorough?: boolean;
  @IsIn(TARGET_NAMES) target!: TargetName;
  @IfGiven() @IsString() @MaxLength(LONGEST_PREFIX) prefix?: string;
}

export class SetChangeDto implements Partial<SetDecisions> {
  @IfGiven() @IsString() @MaxLength(200) name?: string;
  @IfGiven()
  @IsArray()
  @ArrayMaxSize(MOST_SLOTS)
  @IsSlotId({ each: true })
  slots?: SlotId[];
  @IfGiven() @IsBoolean() arranged?: boolean;
  @IfGiven() @IsBoolean() rehearsed?: boolean;
  @IfGiven() @IsBoolean() archived?: boolean;
  /** null: none of its own. */
  @ValidateIf(({ page }: SetChangeDto) => page !== undefined && page !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => PageDto)
  page?: PageDto | null;
}

class SetCommandDto {
  @Equals('set') kind!: 'set';
  @IsObject() @ValidateNested() @Type(() => SetChangeDto) change!: SetChangeDto;
}

class DeviceDto implements DeviceClass {
  @IsString() @MaxLength(100) name!: string;
  @IsNumber() @Min(100) @Max(10_000) viewport!: number;
  @IsNumber() @Min(0.5) @Max(5) density!: number;
  @IsNumber() @Min(0) @Max(1) share!: number;
}

class EverywhereDto implements Everywhere {
  @IsInt() @Min(1) @Max(LARGEST_ID) set!: number;
  @IsSlotId() slot!: SlotId;
  @IsIn(['above', 'below']) at!: Everywhere['at'];
}

class SiteChangeDto implements Partial<SiteDecisions> {
  @IfGiven() @IsString() @MaxLength(200) name?: string;
  @IfGiven() @IsString() @MaxLength(500) address?: string;
  @IfGiven() @IsBoolean() archived?: boolean;
  @IfGiven() @IsObject() @ValidateNested() @Type(() => PolicyDto) policy?: PolicyDto;
  @IfGiven() @IsArray() @ArrayMaxSize(40) @Matches(LANGUAGE, { each: true }) languages?: Language[];
  @IfGiven()
  @IsArray()
  @ArrayMaxSize(200)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => DeviceDto)
  devices?: DeviceDto[];
  @IfGiven()
  @IsArray()
  @ArrayMaxSize(40)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => EverywhereDto)
  everywhere?: EverywhereDto[];
  @IfGiven()
  @IsArray()
  @ArrayMaxSize(MOST_TERMS)
  @IsString({ each: true })
  @MaxLength(LONGEST_TERM, { each: true })
  terms?: string[];
}

class SiteCommandDto {
  @Equals('site') kind!: 'site';
  @IsObject() @ValidateNested() @Type(() => SiteChangeDto) change!: SiteChangeDto;
}

class SlotCommandDto {
  @Equals('slot') kind!: 'slot';
  @IsSlotId() slot!: SlotId;
  @ValidateIf((o: SlotCommandDto) => o.value !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => SlotDto)
  value!: SlotDto | null;
}

/** By kind. */
export const COMMANDS = {
  focal: FocalCommandDto,
  crop: CropCommandDto,
  frame: FrameCommandDto,
  words: WordsCommandDto,
  original: OriginalCommandDto,
  quality: QualityCommandDto,
  placements: PlacementsCommandDto,
  position: PositionCommandDto,
  bin: BinCommandDto,
  set: SetCommandDto,
  site: SiteCommandDto,
  slot: SlotCommandDto,
} satisfies Record<Command['kind'], unknown>;

export class AnyCommandDto {
  @IsIn(Object.keys(COMMANDS)) kind!: string;
}
