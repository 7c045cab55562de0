// Beside the places: photos that stand nowhere yet, and all of the set.
import { useNavigate } from 'react-router';
import { useCounts, useSetId } from '../server/hooks.ts';
import type { Picking } from './picking.ts';
import { Tray, type TrayProps } from './Tray.tsx';

export function Trays({ picking }: { picking: Picking }) {
  const setId = useSetId();
  const navigate = useNavigate();
  const waiting = useCounts()?.filters.unplaced ?? 0;
  const tray = (filter: TrayProps['filter'], name: string) => (
    <Tray
      filter={filter}
      name={name}
      isFrom={picking.from === `${filter}/`}
      onPick={(id, shown, event) => picking.pick(`${filter}/`, id, shown, event)}
      onOpen={(id) => void navigate(`/sets/${setId}/frame/${id}`)}
    />
  );
  return (
    <aside
      aria-label="Photos"
      className="flex min-h-0 flex-col border-r border-rule-strong bg-paper max-[700px]:h-[168px] max-[700px]:border-b max-[700px]:border-r-0"
    >
      {waiting > 0 && (
        <>
          <h2 className="px-3.5 pt-3 font-title text-[14px] font-[600]">No place yet: {waiting}</h2>
          <p className="px-3.5 pb-1.5 text-[12px] text-ink-2">
            Nobody will see these. Put them into a place, or leave them out.
          </p>
          {tray('unplaced', 'Photos without a place')}
        </>
      )}
      <h2 className="border-t border-rule px-3.5 pt-3 font-title text-[14px] font-[600]">In this set</h2>
      <p className="px-3.5 pb-1.5 text-[12px] text-ink-2">
        The figure says in how many places a photo stands.
      </p>
      {tray('all', 'All photos of the set')}
    </aside>
  );
}
