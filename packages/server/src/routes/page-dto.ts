// What the page of a set must look like when it is sent.
import 'reflect-metadata';
import type {
  InOthers,
  PageDesign,
  PagePart,
  PageTexts,
  Passage,
  SetPage,
  SlotId,
} from '@dusky-otter/core/contract';
import { LONGEST_TEMPLATE } from '@dusky-otter/core/page';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  Equals,
  IsArray,
  IsBoolean,
  IsIn,
  IsObject,
  IsString,
  MaxLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { IsSlotId } from './place-dto.ts';
import { IfGiven } from './quality-dto.ts';

class HeadingPartDto {
  @Equals('heading') kind!: 'heading';
  @IsString() @MaxLength(200) text!: string;
  @IfGiven() @IsObject() others?: InOthers;
}

/** Its passage is judged in the core; nothing of it is more than data. */
class TextPartDto {
  @Equals('text') kind!: 'text';
  @IsArray() @ArrayMaxSize(200) passage!: Passage;
  @IfGiven() @IsObject() others?: InOthers<Passage>;
}

class LanguagesPartDto {
  @Equals('languages') kind!: 'languages';
}

class PlacePartDto {
  @Equals('place') kind!: 'place';
  @IsSlotId() slot!: SlotId;
  @IsBoolean() titled!: boolean;
}

class AnyPartDto {
  @IsIn(['heading', 'text', 'place', 'languages']) kind!: string;
}

class HomeDto {
  @IsString() @MaxLength(200) text!: string;
  @IsString() @MaxLength(2000) address!: string;
}

export class PageDto implements SetPage {
  @IsString() @MaxLength(200) title!: string;
  @IsString() @MaxLength(500) description!: string;
  @IsString() @MaxLength(60) folder!: string;
  @ValidateIf((o: PageDto) => o.home !== null)
  @IsObject()
  @ValidateNested()
  @Type(() => HomeDto)
  home!: HomeDto | null;
  @IsBoolean() menu!: boolean;
  @IsIn(['plain', 'wide', 'own']) design!: PageDesign;
  @IsIn(['light', 'dark', 'visitor']) tone!: SetPage['tone'];
  @IsString() @MaxLength(LONGEST_TEMPLATE) template!: string;
  @IsArray()
  @ArrayMaxSize(200)
  @IsObject({ each: true })
  @ValidateNested({ each: true })
  @Type(() => AnyPartDto, {
    keepDiscriminatorProperty: true,
    discriminator: {
      property: 'kind',
      subTypes: [
        { name: 'heading', value: HeadingPartDto },
        { name: 'text', value: TextPartDto },
        { name: 'place', value: PlacePartDto },
        { name: 'languages', value: LanguagesPartDto },
      ],
    },
  })
  parts!: PagePart[];
  /** Judged in the core. */
  @IfGiven() @IsObject() others?: InOthers<Partial<PageTexts>>;
}
