// At Hand over: what goes out for a photo, and what still keeps it.
import type { RowVariant } from '@dusky-otter/core/contract';
import { deliveredName } from '@dusky-otter/core/naming';
import { handoverConcerns } from '@dusky-otter/core/readiness';
import { bytesInWords } from '@dusky-otter/core/weight';
import { useConcerns, useSite, type Row } from '../server/hooks.ts';
import { StateTag } from '../ui/marks.tsx';

export function FilesCell({ row }: { row: Row }) {
  const site = useSite();
  const made = row.variants.filter((v) => v.bytes !== null);
  const largest = made.reduce<RowVariant | null>(
    (best, v) => (best && best.width >= v.width ? best : v),
    null,
  );
  const example =
    site &&
    largest?.contentHash &&
    deliveredName(row, row.speaking, { ...largest, contentHash: largest.contentHash }, site);
  const concerns = handoverConcerns(useConcerns(row));
  return (
    <div className="grid grid-cols-2 gap-4">
      <div className="min-w-0">
        <div className="truncate font-figure text-[12px]">{example ?? 'being made'}</div>
        <div className="text-[12px] text-ink-2">
          {made.length} of {row.variants.length} files,{' '}
          {bytesInWords(made.reduce((sum, v) => sum + (v.bytes ?? 0), 0))}
        </div>
      </div>
      <ul className="grid content-start gap-0.5">
        {concerns.slice(0, 3).map((concern) => (
          <li key={concern.sentence} className="line-clamp-2">
            <StateTag state={concern.severity}>{concern.sentence}</StateTag>
          </li>
        ))}
        {concerns.length > 3 && <li className="text-[12px] text-ink-2">and {concerns.length - 3} more</li>}
        {concerns.length === 0 && (
          <li>
            <StateTag state="ready">Can go out</StateTag>
          </li>
        )}
      </ul>
    </div>
  );
}
