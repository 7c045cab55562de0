// What places and arrangements must look like when they are sent.
import 'reflect-metadata';
import {
  LONGEST_SLOT_ID,
  LONGEST_WIDTH,
  type Arranged,
  type ArrangementOptions,
  type MeasuredWidth,
  type ShapeId,
  type Slot,
  type SlotId,
  type SlotShape,
  type WidthPiece,
} from '@dusky-otter/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { IfGiven } from './quality-dto.ts';

export const SHAPE = /^(own|[1-9]\d{0,3}:[1-9]\d{0,3})$/;
export const SLOT_ID = /^[a-z][a-z0-9-]{0,39}$/;

class PieceDto implements WidthPiece {
  @IsNumber() @Min(0) @Max(100_000) from!: number;
  @IsNumber() @Min(-10) @Max(10) vw!: number;
  @IsNumber() @Min(-100_000) @Max(100_000) px!: number;
}

class ShapePartDto implements SlotShape {
  @Matches(SHAPE) shape!: ShapeId;
  @IsNumber() @Min(0) @Max(100_000) from!: number;
  @ValidateIf((o: ShapePartDto) => o.to !== null) @IsNumber() @Min(0) @Max(100_000) to!: number | null;
}

class BoxDto {
  @IsNumber() @Min(1) @Max(20_000) width!: number;
  @IsNumber() @Min(1) @Max(20_000) height!: number;
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
  @ValidateNested({ each: true })
  @Type(() => PieceDto)
  container!: PieceDto[];
  @IfGiven() @IsArray() @ArrayMaxSize(10_000) @IsInt({ each: true }) order?: number[];
}

export class SlotDto implements Slot {
  @Matches(SLOT_ID) @MaxLength(LONGEST_SLOT_ID) id!: SlotId;
  @IsString() @MaxLength(100) name!: string;
  @IsString() @MaxLength(200) hint!: string;
  @IsArray() @ArrayMaxSize(40) @ValidateNested({ each: true }) @Type(() => PieceDto) rule!: PieceDto[];
  @IsArray()
  @ArrayMaxSize(10)
  @ValidateNested({ each: true })
  @Type(() => ShapePartDto)
  shapes!: ShapePartDto[];
  @IsInt() @Min(1) @Max(100_000_000) budget!: number;
  @IsIn(['first', 'lazy']) loading!: Slot['loading'];
  @ValidateIf((o: SlotDto) => o.fit !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => BoxDto)
  fit!: BoxDto | null;
  @IfGiven() @IsString() @MaxLength(LONGEST_WIDTH) said?: string;
  @IfGiven() @IsObject() @ValidateNested() @Type(() => MeasuredDto) measured?: MeasuredDto;
  @IfGiven() @IsObject() @ValidateNested() @Type(() => ArrangedDto) arranged?: ArrangedDto;
  @IfGiven() @Matches(SLOT_ID) @MaxLength(LONGEST_SLOT_ID) of?: SlotId;
}

/** A place as it would be; null for none. */
export class PlaceCostDto {
  @Matches(SLOT_ID) slot!: SlotId;
  @ValidateIf((o: PlaceCostDto) => o.value !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => SlotDto)
  value!: SlotDto | null;
}
