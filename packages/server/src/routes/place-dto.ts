// What places and arrangements must look like when they are sent.
import 'reflect-metadata';
import type {
  Arranged,
  ArrangementOptions,
  MeasuredWidth,
  PlaceWords,
  ShapeId,
  Slot,
  SlotId,
  SlotShape,
  Tallest,
  WidthPiece,
} from '@dusky-otter/core/contract';
import { SHAPE } from '@dusky-otter/core/geometry';
import { isSlotId, PLACE_LIMITS } from '@dusky-otter/core/places';
import { LONGEST_WIDTH, TALLEST_MOST } from '@dusky-otter/core/slots';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
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
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { IfGiven } from './quality-dto.ts';

/** The short name of a place. */
export const IsSlotId = (options: { each?: boolean } = {}) =>
  ValidateBy(
    {
      name: 'isSlotId',
      validator: {
        validate: (value: unknown) => typeof value === 'string' && isSlotId(value),
        defaultMessage: () => 'A place’s short name has small letters, digits and hyphens.',
      },
    },
    options,
  );

class PieceDto implements WidthPiece {
  @IsNumber() @Min(0) @Max(PLACE_LIMITS.window) from!: number;
  @IsNumber() @Min(-PLACE_LIMITS.vw) @Max(PLACE_LIMITS.vw) vw!: number;
  @IsNumber() @Min(-PLACE_LIMITS.px) @Max(PLACE_LIMITS.px) px!: number;
}

class ShapePartDto implements SlotShape {
  @Matches(SHAPE) shape!: ShapeId;
  @IsNumber() @Min(0) @Max(PLACE_LIMITS.window) from!: number;
  @ValidateIf((o: ShapePartDto) => o.to !== null) @IsNumber() @Min(0) @Max(PLACE_LIMITS.window) to!:
    number | null;
}

class BoxDto {
  @IsNumber() @Min(1) @Max(PLACE_LIMITS.fit) width!: number;
  @IsNumber() @Min(1) @Max(PLACE_LIMITS.fit) height!: number;
}

class TallestDto implements Tallest {
  /** What its unit allows is judged in the core. */
  @IsNumber() @Min(1) @Max(TALLEST_MOST.px) height!: number;
  @IsIn(['px', 'vh']) unit!: Tallest['unit'];
  @IsBoolean() cut!: boolean;
}

class MeasuredDto implements MeasuredWidth {
  @IsString() @MaxLength(200) page!: string;
  @Matches(/^\d{4}-\d\d-\d\dT[\d:.]{5,12}Z$/) on!: string;
  @IsInt() @Min(1) @Max(10_000) windows!: number;
  @IsNumber() @Min(0) @Max(10_000) worst!: number;
}

/** Options are judged by their kind, in the core; nothing of them is more than data. */
export class ArrangedDto implements Arranged {
  @IsObject() options!: ArrangementOptions;
  @IsArray()
  @ArrayMaxSize(40)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PieceDto)
  container!: PieceDto[];
  @IfGiven() @IsArray() @ArrayMaxSize(10_000) @IsInt({ each: true }) order?: number[];
}

export class SlotDto implements Slot {
  @IsSlotId() id!: SlotId;
  @IsString() @MaxLength(PLACE_LIMITS.name) name!: string;
  @IsString() @MaxLength(PLACE_LIMITS.hint) hint!: string;
  @IsArray()
  @ArrayMaxSize(40)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => PieceDto)
  rule!: PieceDto[];
  @IsArray()
  @ArrayMaxSize(10)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => ShapePartDto)
  shapes!: ShapePartDto[];
  @IsInt() @Min(1) @Max(PLACE_LIMITS.budget) budget!: number;
  @IsIn(['first', 'lazy']) loading!: Slot['loading'];
  @ValidateIf((o: SlotDto) => o.fit !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => BoxDto)
  fit!: BoxDto | null;
  @IfGiven() @IsObject() @ValidateNested() @Type(() => TallestDto) tallest?: TallestDto;
  @IfGiven() @IsString() @MaxLength(LONGEST_WIDTH) said?: string;
  @IfGiven() @IsObject() @ValidateNested() @Type(() => MeasuredDto) measured?: MeasuredDto;
  @IfGiven() @IsObject() @ValidateNested() @Type(() => ArrangedDto) arranged?: ArrangedDto;
  /** Judged in the core. */
  @IfGiven() @IsObject() words?: PlaceWords;
  @IfGiven() @IsSlotId() of?: SlotId;
}

/** A place as it would be; null for none. */
export class PlaceCostDto {
  @IsSlotId() slot!: SlotId;
  @ValidateIf((o: PlaceCostDto) => o.value !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => SlotDto)
  value!: SlotDto | null;
}
