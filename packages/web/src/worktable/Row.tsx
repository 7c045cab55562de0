// One photo on the table. A click selects; only Enter or the Open button opens.
import { frameSpace } from '@dusky-otter/core/geometry';
import { shownName } from '@dusky-otter/core/naming';
import { sealOf } from '@dusky-otter/core/readiness';
import { bytesInWords } from '@dusky-otter/core/weight';
import { memo, useDeferredValue, type MouseEvent } from 'react';
import { stageFor } from '../ui/stage.ts';
import { ReplaceButton } from '../gather/ReplaceButton.tsx';
import { useScreen } from '../screen/screen.ts';
import { select } from '../editing/selection.ts';
import { useConcerns, useRow, type Row as PhotoRow } from '../server/hooks.ts';
import { TurnedView } from '../ui/CropPicture.tsx';
import { Seal, StateTag } from '../ui/marks.tsx';
import { CropsCell } from './CropsCell.tsx';
import { confirmFocal } from '../editing/edits.ts';
import { FilesCell } from './FilesCell.tsx';
import type { ColumnId, Lens } from './lenses.ts';
import { WeightCell, WeightsCell } from './WeightCell.tsx';
import { TextCell, WordsCell } from './WordsCell.tsx';

export interface RowProps {
  id: number;
  index: number;
  lens: Lens;
  /** Photos of the table in their order, as they are when they are asked for. */
  shown: () => readonly number[];
  onOpen: (id: number) => void;
}

const CONTROLS = 'button, textarea, input, select, a, label';

function FocalCell({ row, onOpen }: { row: PhotoRow; onOpen: (id: number) => void }) {
  const { x, y, confirmed } = row.frame.focal;
  const name = shownName(row.words, row.fileName);
  const own = Object.keys(row.frame.crops).length;
  return (
    <div className="grid content-start gap-1.5">
      <StateTag state={confirmed ? 'ready' : 'todo'}>{confirmed ? 'Confirmed' : 'A guess so far'}</StateTag>
      <span className="text-[12px] text-ink-2">
        {Math.round(x * 100)} % · {Math.round(y * 100)} %
        {own > 0 && `, ${own} ${own === 1 ? 'crop' : 'crops'} of yours`}
      </span>
      <span className="flex gap-1.5">
        {!confirmed && (
          <button
            className="chip"
            aria-label={`Confirm the focal point of ${name}`}
            onClick={() => confirmFocal([row])}
          >
            Confirm
          </button>
        )}
        <button className="chip" aria-label={`Open the bench for ${name}`} onClick={() => onOpen(row.id)}>
          Open the bench
        </button>
      </span>
    </div>
  );
}

/** Padding of a cell above and below, and the height of the photo's line where cells are stacked; in px. */
const PADDING = 18;
const STACKED = 92;

/** The whole photo as its frame turns it, as large as the cell allows. */
function Thumb({ row, lens }: { row: PhotoRow; lens: Lens }) {
  const room = { width: lens.thumb, height: (lens.stacked ? STACKED : lens.rowHeight) - PADDING };
  const { width, height } = stageFor(frameSpace(row.original, row.frame), room);
  return (
    <div className="relative overflow-hidden" style={{ width, height }}>
      <TurnedView photo={row} size="row" />
    </div>
  );
}

function PhotoCell({ row, lens, onOpen }: { row: PhotoRow; lens: Lens; onOpen: (id: number) => void }) {
  const { original } = row;
  const noted = original.damage ?? original.aside ?? null;
  const kind = [
    original.frames > 1 && `${original.frames} frames`,
    original.transparent && 'transparent',
    original.profile?.startsWith('sRGB') ? null : original.profile,
  ].filter(Boolean);
  return (
    <div className="grid h-full gap-3" style={{ gridTemplateColumns: `${lens.thumb}px minmax(0,1fr)` }}>
      <div className="grid h-full place-items-center overflow-hidden bg-neutral">
        <Thumb row={row} lens={lens} />
      </div>
      <div className="min-w-0 text-[12px] leading-snug text-ink-2">
        <div className="truncate text-[13.5px] font-semibold text-ink" title={row.fileName}>
          {shownName(row.words, row.fileName)}
        </div>
        {row.words.title && <div className="truncate">{row.fileName}</div>}
        <div className="truncate">
          {original.width} × {original.height}, {bytesInWords(original.bytes)}
        </div>
        {noted === null ? (
          !row.words.title && kind.length > 0 && <div className="truncate">{kind.join(', ')}</div>
        ) : (
          <Noted sentence={noted} />
        )}
        <button
          className="mt-0.5 underline decoration-rule-strong underline-offset-2 hover:text-ink"
          onClick={() => onOpen(row.id)}
          aria-label={`Open ${row.fileName}`}
        >
          Open
        </button>
        <ReplaceButton
          photo={row}
          className="ml-2.5 underline decoration-rule-strong underline-offset-2 hover:text-ink"
        />
      </div>
    </div>
  );
}

/** The beginning of the sentence in the row, all of it for who asks. */
function Noted({ sentence }: { sentence: string }) {
  return (
    <div className="truncate" title={sentence}>
      <StateTag state="care">
        {/^[^:.;]{1,60}/.exec(sentence)?.[0]}
        <span className="sr-only">{sentence}</span>
      </StateTag>
    </div>
  );
}

function SealCell({ row }: { row: PhotoRow }) {
  const concerns = useConcerns(row);
  return (
    <div className="grid h-full place-items-center">
      <Seal parts={sealOf(concerns)} title={concerns.map((c) => c.sentence).join('\n')} />
    </div>
  );
}

function cellOf(column: ColumnId, row: PhotoRow, { lens, onOpen }: RowProps) {
  switch (column) {
    case 'photo':
      return <PhotoCell row={row} lens={lens} onOpen={onOpen} />;
    case 'crops':
      return <CropsCell row={row} height={lens.cropHeight} />;
    case 'focal':
      return <FocalCell row={row} onOpen={onOpen} />;
    case 'weight':
      return <WeightCell row={row} />;
    case 'weights':
      return <WeightsCell row={row} />;
    case 'words':
      return <WordsCell row={row} />;
    case 'text':
      return <TextCell row={row} />;
    case 'files':
      return <FilesCell row={row} />;
    case 'seal':
      return <SealCell row={row} />;
  }
}

export const Row = memo(function Row(props: RowProps) {
  const { id, index, lens, shown } = props;
  const row = useRow(id);
  // What stands in a row is drawn when there is time: wheeling past thousands of rows must not wait for each of them.
  const drawn = useDeferredValue(true, false);
  const selected = useScreen((state) => state.selected.has(id));
  const current = useScreen((state) => state.cursor === id);
  // Stacked, the seal stays beside the photo and the words get a line of their own.
  const columns = lens.stacked
    ? [...lens.columns].sort(
        (a, b) => Number(a !== 'photo' && a !== 'seal') - Number(b !== 'photo' && b !== 'seal'),
      )
    : lens.columns;
  const click = (event: MouseEvent) => {
    if (event.target instanceof Element && event.target.closest(CONTROLS)) return;
    select(id, shown(), { shift: event.shiftKey, toggle: event.ctrlKey || event.metaKey });
  };
  return (
    <div
      role="row"
      id={`photo-${id}`}
      aria-label={row ? shownName(row.words, row.fileName) : undefined}
      aria-rowindex={index + 2}
      aria-selected={selected}
      data-row={id}
      tabIndex={current ? 0 : -1}
      onClick={click}
      onMouseDown={(event) =>
        event.shiftKey &&
        event.target instanceof Element &&
        !event.target.closest(CONTROLS) &&
        event.preventDefault()
      }
      className={`grid items-stretch border-b border-rule outline-offset-[-2px] ${selected ? 'bg-kelp-soft' : 'bg-sheet'} ${current ? 'shadow-[inset_3px_0_var(--focus)]' : ''}`}
      style={{
        gridTemplateColumns: `46px ${lens.widths}`,
        height: lens.rowHeight,
        gridTemplateRows: lens.stacked ? `${STACKED}px minmax(0,1fr)` : undefined,
        position: 'relative',
      }}
    >
      <div
        role="gridcell"
        className="flex flex-col items-center gap-2 pt-3 font-figure text-[11px] text-ink-3"
      >
        <input
          type="checkbox"
          className="size-[15px] accent-kelp"
          checked={selected}
          aria-label={`Select ${row?.fileName ?? ''}`}
          onChange={() => select(id, shown(), { shift: false, toggle: true })}
        />
        {String(index + 1).padStart(2, '0')}
      </div>
      {columns.map((column) => (
        <div
          key={column}
          role="gridcell"
          className={`min-w-0 overflow-hidden px-2.5 py-[9px] ${lens.stacked && column !== 'photo' && column !== 'seal' ? 'col-span-full' : ''}`}
        >
          {row && drawn && cellOf(column, row, props)}
        </div>
      ))}
    </div>
  );
});
