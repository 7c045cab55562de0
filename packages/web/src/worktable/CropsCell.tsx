// The crops of a row as pictures, each with its ratio and, where it falls short, a mark.
import { ratioOf } from '@dusky-otter/core/geometry';
import { cropIn, sharpnessIn, slotsOf } from '@dusky-otter/core/plan';
import { slotsIn } from '@dusky-otter/core/slots';
import { Link } from 'react-router';
import { useSetId, useSetPlaces, useSite, type Row } from '../server/hooks.ts';
import { shapeUses } from '../frame/shapes.ts';
import { CropPicture } from '../ui/CropPicture.tsx';

const MARKS = { sharp: '', soft: '▲', 'too-small': '■' } as const;
const SAID = { sharp: '', soft: 'soft on retina', 'too-small': 'too small' } as const;

export function CropsCell({ row, height }: { row: Row; height: number }) {
  const site = useSite();
  const setPlaces = useSetPlaces();
  const setId = useSetId();
  if (!site) return null;
  const shown = shapeUses(slotsIn(site, slotsOf(row, setPlaces)));
  if (shown.length === 0) return <span className="text-ink-2">Goes nowhere yet.</span>;
  return (
    <div className="flex items-end gap-[7px] overflow-hidden">
      {shown.map(({ shape, slot, part }) => {
        const crop = cropIn(row, slot.id, shape);
        const ratio = ratioOf(shape, crop);
        const width = Math.min(Math.round(height * ratio), Math.round(height * 2.5));
        const { verdict } = sharpnessIn(row, slot, part, crop, site.devices);
        return (
          <Link
            key={shape}
            to={`/sets/${setId}/frame/${row.id}?shape=${shape}`}
            tabIndex={-1}
            className="flex shrink-0 flex-col gap-[3px] hover:outline hover:outline-2 hover:outline-focus"
            aria-label={`Open ${shape === 'own' ? 'the whole photo' : `the crop ${shape}`} of ${row.fileName}`}
            title={`${slot.name}: ${crop.width} × ${crop.height} px ${SAID[verdict]}`}
          >
            <CropPicture
              photo={row}
              crop={crop}
              width={width}
              height={Math.round(width / ratio)}
              focal
              size={height > 60 ? 'bench' : 'row'}
            />
            <small
              className={`font-figure text-[11px] leading-none ${verdict === 'sharp' ? 'text-ink-2' : verdict === 'soft' ? 'text-amber' : 'text-rust'}`}
            >
              {shape === 'own' ? 'whole' : shape} {MARKS[verdict]}
              {verdict !== 'sharp' && <span className="sr-only">{SAID[verdict]}</span>}
            </small>
          </Link>
        );
      })}
    </div>
  );
}
