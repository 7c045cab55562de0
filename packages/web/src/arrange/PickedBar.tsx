// What can be done with picked photos, for hands that don't drag: put them somewhere by its name, move them, take them out.
import type { SetPage, Site } from '@dusky-otter/core/contract';
import { clearSelection } from '../editing/selection.ts';
import { useScreen } from '../screen/screen.ts';
import { PlaceChoice } from './PlaceChoice.tsx';
import { placeOf, type Picking } from './picking.ts';

export function PickedBar({ page, site, picking }: { page: SetPage; site: Site; picking: Picking }) {
  const selected = useScreen((state) => state.selected);
  if (selected.size === 0) return null;
  const ids = [...selected];
  const from = placeOf(picking.from);
  return (
    <div
      role="toolbar"
      aria-label={`${ids.length} picked`}
      className="flex flex-wrap items-center gap-1.5 border-t border-rule-strong bg-kelp-soft px-3.5 py-1.5 text-[12.5px]"
    >
      <b className="font-semibold">{ids.length} picked</b>
      <PlaceChoice
        {...{ page, site }}
        className="chip"
        choose={(to) => void picking.carry({ from: null, to, ids, before: null })}
      >
        Put into…
      </PlaceChoice>
      {from !== null && (
        <>
          <PlaceChoice
            {...{ page, site }}
            className="chip"
            choose={(to) => void picking.carry({ from, to, ids, before: null })}
          >
            Move to…
          </PlaceChoice>
          <button
            className="chip"
            onClick={() => {
              void picking.carry({ from, to: null, ids, before: null });
              clearSelection();
            }}
          >
            Take out of {picking.nameOf(from)}
          </button>
        </>
      )}
      <button className="chip" onClick={clearSelection}>
        Pick none
      </button>
    </div>
  );
}
