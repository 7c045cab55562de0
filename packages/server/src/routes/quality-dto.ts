// What decisions on a photo's files must look like.
import type { Pinned, QualityDecision, TargetName } from '@dusky-otter/core/contract';
import { TARGET_NAMES } from '@dusky-otter/core/weight';
import { IsBoolean, IsIn, IsInt, Matches, Max, Min, ValidateBy, ValidateIf } from 'class-validator';

/** May be left out. Unlike IsOptional it does not let null pass for "left out". */
export const IfGiven = () => ValidateIf((_, value: unknown) => value !== undefined);

/** A quality, or a point of one format with its difference. */
const IsPinned = () =>
  ValidateBy({
    name: 'isPinned',
    validator: {
      validate: (value: unknown) => {
        const isQuality = (n: unknown) => Number.isInteger(n) && Number(n) >= 1 && Number(n) <= 100;
        if (typeof value !== 'object' || value === null) return isQuality(value);
        const { format, quality, difference, ...others } = value as Record<string, unknown>;
        return (
          Object.keys(others).length === 0 &&
          ['jpeg', 'webp', 'avif'].includes(String(format)) &&
          isQuality(quality) &&
          typeof difference === 'number' &&
          difference > 0 &&
          difference <= 100
        );
      },
      defaultMessage: () => 'pinned must be a quality, or a point of a format',
    },
  });

export class QualityDto implements QualityDecision {
  @IfGiven() @IsIn(TARGET_NAMES) target?: TargetName;
  @IfGiven() @IsIn(['avif', 'webp']) format?: 'avif' | 'webp';
  @IfGiven() @IsBoolean() still?: boolean;
  @IfGiven() @IsInt() @Min(0) @Max(100_000) frame?: number;
  @IfGiven() @IsInt() @Min(2) @Max(10) every?: number;
  @IfGiven() @IsPinned() pinned?: Pinned | number;
  @IfGiven() @IsBoolean() lossless?: boolean;
  @IfGiven() @Matches(/^#[0-9a-f]{6}$/) background?: string;
  @IfGiven() @IsInt() @Min(1) @Max(100_000) widest?: number;
}
