// The files of one shape, one a width: what each weighs, and which screens load it.
import type { ShapeId, Site, Slot } from '@dusky-otter/core/contract';
import { variantSentTo } from '@dusky-otter/core/readiness';
import { bytesInWords, FORMAT_NAMES } from '@dusky-otter/core/weight';
import type { Row } from '../server/hooks.ts';

interface Props {
  row: Row;
  slot: Slot;
  shape: ShapeId;
  site: Site;
  width: number;
  choose: (width: number) => void;
}

/** "phone, tablet": kinds of device that load a width. */
const loadedBy = ({ row, slot, shape, site }: Props, width: number): string =>
  site.devices
    .filter(({ viewport, density }) => {
      const sent = variantSentTo(row, slot, { viewport, density });
      return sent?.width === width && sent.shape === shape;
    })
    .map(({ name }) => name)
    .join(', ');

export function Strip(props: Props) {
  const { row, slot, shape, width: chosen, choose } = props;
  const own = row.variants.filter((v) => v.slot === slot.id && v.shape === shape);
  const modern = own.filter((v) => v.format === own[0]?.format);
  return (
    <div
      role="group"
      aria-label="Files of this place, one a width"
      className="flex shrink-0 overflow-x-auto border-t border-rule-strong bg-sheet"
    >
      {modern.map(({ width, bytes, format, quality }) => (
        <button
          key={width}
          aria-pressed={width === chosen}
          className={`grid min-w-[120px] flex-1 content-start gap-0.5 border-r border-rule px-3.5 py-2.5 text-left last:border-r-0 ${width === chosen ? 'bg-kelp-soft shadow-[inset_0_3px_var(--kelp)]' : 'hover:bg-raised'}`}
          onClick={() => choose(width)}
        >
          <b className="text-[14.5px] leading-tight">{format === 'svg' ? 'Every width' : `${width} px`}</b>
          <span className="text-[12.5px] text-ink-2">
            {bytes === null ? 'being made' : bytesInWords(bytes)} {FORMAT_NAMES[format]}
            {quality !== null && `, ${quality}`}
          </span>
          <span className="line-clamp-1 text-[12px] text-ink-2" title={loadedBy(props, width)}>
            {loadedBy(props, width) || 'for screens beside the table'}
          </span>
        </button>
      ))}
    </div>
  );
}
