// One place at the Arrange stop: what it is, the photos that stand in it, what it weighs and what it lacks.
import { arrangementIn } from '@dusky-otter/core/arrange';
import type { PlaceCounts } from '@dusky-otter/core/contract';
import { bytesInWords } from '@dusky-otter/core/weight';
import { Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { useMembers, useSetId } from '../server/hooks.ts';
import { StateTag } from '../ui/marks.tsx';
import { AddSheet } from './AddSheet.tsx';
import { Board, type BoardProps } from './Board.tsx';
import { KINDS } from './kinds.tsx';
import type { Shelf } from './shelves.ts';
import { some } from '../ui/some.ts';

const HEIGHT = 56;

/** What still lacks something in a place, the gravest first; nothing where all is in order. */
function lacking({ open: { describe, frame, weigh }, phone }: PlaceCounts): string[] {
  return [
    describe > 0 && `${some(describe, 'photo lacks', 'photos lack')} words`,
    frame > 0 && `${some(frame, 'crop', 'crops')} to look at`,
    // What is still being made is no care of anybody's.
    weigh > 0 && phone.complete && `${some(weigh, 'file needs', 'files need')} care`,
  ].filter((text) => text !== false);
}

export function ShelfState({ counts, shown }: { counts: PlaceCounts | undefined; shown: boolean }) {
  if (!counts) return <StateTag state="todo">No photo yet</StateTag>;
  const lacks = lacking(counts);
  return (
    <div className="grid content-start gap-0.5 text-[12.5px] leading-snug">
      {!shown ? (
        <StateTag state="care">{some(counts.photos, 'photo', 'photos')}, seen by nobody</StateTag>
      ) : lacks.length === 0 ? (
        <StateTag state="ready">{some(counts.photos, 'photo', 'photos')}, in order</StateTag>
      ) : (
        <>
          <span>{some(counts.photos, 'photo', 'photos')}</span>
          {lacks.map((text) => (
            <StateTag key={text} state="care">
              {text}
            </StateTag>
          ))}
        </>
      )}
      {shown && (
        <span className="text-ink-2">
          <b className="font-semibold text-ink">{bytesInWords(counts.phone.sent)}</b> on a phone
          {counts.phone.complete ? '' : ' so far'}
        </span>
      )}
    </div>
  );
}

interface Props extends Omit<BoardProps, 'slot' | 'ids' | 'height'> {
  shelf: Shelf;
  counts: PlaceCounts | undefined;
  /** Every photo of the set stands here that has no places of its own. */
  isOpen: boolean;
  /** The set puts it onto every page of the site. */
  isEverywhere: boolean;
  /** Tells who stands in it. */
  know: (slot: string, ids: readonly number[]) => void;
  acts: readonly { name: string; act: () => void; idle?: boolean }[];
}

export function ShelfRow({ shelf, counts, isOpen, isEverywhere, know, acts, ...board }: Props) {
  const setId = useSetId();
  const [adding, setAdding] = useState(false);
  const { slot, shown } = shelf;
  const arrangement = arrangementIn(slot);
  const { ids } = useMembers(slot.id, arrangement?.order);
  useEffect(() => know(slot.id, ids), [know, slot.id, ids]);
  const shape = slot.shapes.map((part) => (part.shape === 'own' ? 'whole' : part.shape)).join(', ');
  return (
    <section
      aria-label={slot.name}
      className="grid grid-cols-[206px_minmax(0,1fr)_176px] gap-x-3 border-b border-rule px-3.5 pt-2.5 max-[1000px]:grid-cols-1"
    >
      <div className="grid grid-cols-[46px_minmax(0,1fr)] gap-2.5 pb-2">
        <svg width="46" height="27" viewBox="0 0 48 28" aria-hidden="true" className="mt-0.5 text-ink-2">
          {arrangement ? (
            KINDS[arrangement.options.kind].drawing
          ) : (
            <>
              <rect x="8" y="2" width="32" height="15" fill="currentColor" />
              <rect x="8" y="20" width="32" height="2" fill="currentColor" opacity=".5" />
              <rect x="8" y="24" width="20" height="2" fill="currentColor" opacity=".5" />
            </>
          )}
        </svg>
        <div className="min-w-0">
          <h3 className="truncate font-title text-[14.5px] font-[600] leading-tight" title={slot.name}>
            {slot.name}
          </h3>
          <p className="text-[12px] leading-snug text-ink-2">
            {arrangement ? `${KINDS[arrangement.options.kind].name.toLowerCase()}, ` : ''}
            {arrangement ? shape : ''}
            {arrangement ? '' : slot.hint || shape}
            {isOpen ? ', every photo that has no places of its own' : ''}
          </p>
          {isEverywhere && (
            <p className="text-[12px] leading-snug text-amber">
              On every page of the site: a change here changes them all.
            </p>
          )}
          <span className="flex gap-3 text-[12.5px]">
            {arrangement && (
              <Link
                className="text-kelp underline underline-offset-2"
                to={`/sets/${setId}/arrange/${slot.id}`}
              >
                Build<span className="sr-only"> {slot.name}</span>
              </Link>
            )}
            <DropdownMenu.Root>
              <DropdownMenu.Trigger className="text-kelp underline underline-offset-2">
                More<span className="sr-only"> for {slot.name}</span>
              </DropdownMenu.Trigger>
              <DropdownMenu.Portal>
                <DropdownMenu.Content className="menu" align="start">
                  {acts.map(({ name, act, idle = false }) => (
                    <DropdownMenu.Item key={name} className="menu-item" disabled={idle} onSelect={act}>
                      {name}
                    </DropdownMenu.Item>
                  ))}
                </DropdownMenu.Content>
              </DropdownMenu.Portal>
            </DropdownMenu.Root>
          </span>
        </div>
      </div>
      <div className="flex min-w-0 gap-1.5 pb-3">
        <Board slot={slot} ids={ids} height={HEIGHT} {...board} />
        <button
          className="grid h-[56px] w-[38px] shrink-0 place-items-center rounded-paper border border-dashed border-rule-strong text-ink-2 hover:border-edge"
          aria-label={`Put photos into ${slot.name}`}
          onClick={() => setAdding(true)}
        >
          <Plus size={16} aria-hidden="true" />
        </button>
      </div>
      <div className="pb-2">
        <ShelfState counts={counts} shown={shown} />
      </div>
      {adding && <AddSheet here={ids} slot={slot.id} onClose={() => setAdding(false)} />}
    </section>
  );
}
