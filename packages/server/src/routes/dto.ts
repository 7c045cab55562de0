// What requests must look like, as classes with class-validator rules; wrong requests are answered with a sentence.
import 'reflect-metadata';
import {
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
import { plainToInstance, Type } from 'class-transformer';
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
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  validateSync,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { ProblemError } from '../problems.ts';

const ROLES: Role[] = ['informative', 'decorative', 'functional', 'text', 'complex'];

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
  @IsOptional() @IsIn(ROLES) role?: Role | null;
  @IsOptional() @IsString() alt?: string;
  @IsOptional() @IsString() caption?: string;
  @IsOptional() @IsString() title?: string;
  @IsOptional() @IsString() credit?: string;
  @IsOptional() @IsString() longDescription?: string;
}

class FocalCommandDto {
  @Equals('focal') kind!: 'focal';
  @IsInt() photo!: number;
  @ValidateNested() @Type(() => FocalDto) focal!: FocalDto;
}

class CropCommandDto {
  @Equals('crop') kind!: 'crop';
  @IsInt() photo!: number;
  @Matches(/^(own|\d{1,4}:\d{1,4})$/) shape!: ShapeId;
  @ValidateIf((o: CropCommandDto) => o.crop !== null)
  @ValidateNested()
  @Type(() => RectDto)
  crop!: RectDto | null;
}

class WordsCommandDto {
  @Equals('words') kind!: 'words';
  @IsInt() photo!: number;
  @IsObject() @ValidateNested() @Type(() => WordsDto) words!: WordsDto;
}

class SlotsCommandDto {
  @Equals('slots') kind!: 'slots';
  @IsInt() photo!: number;
  @ValidateIf((o: SlotsCommandDto) => o.slots !== null) @IsArray() @IsString({ each: true }) slots!:
    SlotId[] | null;
}

class BinCommandDto {
  @Equals('bin') kind!: 'bin';
  @IsInt() photo!: number;
  @IsBoolean() binned!: boolean;
}

class PolicyDto implements Policy {
  @IsIn(['avif', 'webp']) modern!: Policy['modern'];
  @IsIn(TARGET_NAMES) target!: TargetName;
}

class SetChangeDto implements Partial<SetDecisions> {
  @IsOptional() @IsString() @MaxLength(200) name?: string;
  @IsOptional() @IsArray() @IsString({ each: true }) slots?: SlotId[];
  @IsOptional() @IsArray() @IsInt({ each: true }) order?: number[];
  @IsOptional() @ValidateNested() @Type(() => PolicyDto) policy?: PolicyDto;
}

class SetCommandDto {
  @Equals('set') kind!: 'set';
  @IsObject() @ValidateNested() @Type(() => SetChangeDto) change!: SetChangeDto;
}

class AnyCommandDto {
  @IsIn(['focal', 'crop', 'words', 'slots', 'bin', 'set']) kind!: string;
}

export class EditDto {
  @IsString() @MaxLength(300) label!: string;

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
  @IsObject() photos!: Record<number, number>;
  @IsOptional() @IsInt() set?: number;
}

export class NewSetDto {
  @IsString() @Matches(/\S/, { message: 'A set needs a name.' }) @MaxLength(200) name!: string;
}

export class AttentionDto {
  @IsArray() @IsInt({ each: true }) @ArrayMaxSize(500) photos!: number[];
}

export class PauseDto {
  @IsBoolean() paused!: boolean;
}

/** The body as an instance of a DTO class. @throws ProblemError bad-request naming what is wrong. */
export function checked<T extends object>(type: new () => T, body: unknown): T {
  if (typeof body !== 'object' || body === null) throw new ProblemError('bad-request');
  const instance = plainToInstance(type, body);
  const errors = validateSync(instance, { whitelist: true, forbidUnknownValues: true });
  if (errors.length === 0) return instance;
  let error = errors[0]!;
  while (error.children?.[0]) error = error.children[0];
  throw new ProblemError('bad-request', Object.values(error.constraints ?? {})[0] ?? undefined);
}

/** A positive whole number from an address. @throws ProblemError */
export function idFrom(text: string, missing: 'no-such-set' | 'no-such-photo' = 'no-such-set'): number {
  if (!/^\d{1,9}$/.test(text)) throw new ProblemError(missing);
  return Number(text);
}
