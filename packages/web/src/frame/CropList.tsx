// Beside the stage: each crop at true display size or a said part of it, its density, and whose it is.
import type { ShapeId } from '@dusky-otter/core/contract';
import { widthAt } from '@dusky-otter/core/css';
import { cropFor, heightFor, ratioOf } from '@dusky-otter/core/geometry';
import { shownName } from '@dusky-otter/core/naming';
import { sharpnessIn, sharpnessInWords } from '@dusky-otter/core/plan';
import { DEFAULT_DEVICES, ruleFor } from '@dusky-otter/core/slots';
import { useSite, type Row } from '../server/hooks.ts';
import { edit } from '../server/state.ts';
import { CropPicture } from '../ui/CropPicture.tsx';
import { StateTag } from '../ui/marks.tsx';
import type { ShapeUse } from './shapes.ts';

const ROOM = { width: 320, height: 200 };
const PARTS = [
  '',
  'true size',
  'at half',
  'at a third',
  'at a quarter',
  'at a fifth',
  'at a sixth',
  'at a seventh',
  'at an eighth',
];

/** Display size on a laptop of 1280 px, or on a phone where only phones see the shape; and the whole part it is drawn at. */
function displayOf({ slot, part, shape }: ShapeUse, row: Row) {
  const crop = cropFor(row, shape);
  const viewport = part.to !== null && part.to <= 1280 ? 390 : 1280;
  const width = Math.round(widthAt(ruleFor(slot, shape, crop), viewport));
  const height = heightFor(width, ratioOf(shape, crop));
  const part1 = Math.min(8, Math.max(1, Math.ceil(Math.max(width / ROOM.width, height / ROOM.height))));
  return { crop, width, height, part: part1 };
}

function Entry({
  use,
  row,
  on,
  choose,
}: {
  use: ShapeUse;
  row: Row;
  on: boolean;
  choose: (shape: ShapeId) => void;
}) {
  const { crop, width, height, part } = displayOf(use, row);
  const devices = useSite()?.devices ?? DEFAULT_DEVICES;
  const sharp = sharpnessIn(row, use.slot, use.part, crop, devices);
  const own = row.frame.crops[use.shape] !== undefined;
  const giveBack = () =>
    edit(`crop ${use.label} of ${shownName(row.words, row.fileName)} given back`, [
      { kind: 'crop', photo: row.id, shape: use.shape, crop: null },
    ]);
  return (
    <li className={`px-4 py-3 ${on ? 'bg-raised shadow-[inset_3px_0_var(--focus)]' : ''}`}>
      <button
        className="flex w-full items-baseline gap-2 text-left"
        aria-pressed={on}
        onClick={() => choose(use.shape)}
      >
        <b className="font-title text-[14px] font-semibold">{use.label}</b>
        <small className="ml-auto text-[12.5px] text-ink-2">
          {width} × {height}, {PARTS[part]}
        </small>
      </button>
      <div className="my-1.5">
        <CropPicture
          photo={row}
          crop={crop}
          width={Math.round(width / part)}
          height={Math.round(height / part)}
          size="bench"
        />
      </div>
      <StateTag state={sharp.verdict === 'sharp' ? 'ready' : sharp.verdict === 'soft' ? 'care' : 'stop'}>
        {sharpnessInWords(row, use.slot, use.part, crop, devices)}
      </StateTag>
      <div className="mt-1 flex items-center gap-2 text-[12.5px] text-ink-2">
        {own ? 'Yours' : use.shape === 'own' ? 'The whole photo' : 'Follows the focal point'}
        {own && (
          <button className="chip ml-auto" onClick={giveBack}>
            Give back to automatic
          </button>
        )}
      </div>
    </li>
  );
}

export function CropList({
  uses,
  row,
  chosen,
  choose,
}: {
  uses: readonly ShapeUse[];
  row: Row;
  chosen: ShapeId | null;
  choose: (shape: ShapeId) => void;
}) {
  return (
    <ul
      className="min-h-0 divide-y divide-rule overflow-auto border-l border-rule-strong"
      tabIndex={0}
      aria-label="Crops as they will be shown"
    >
      {uses.map((use) => (
        <Entry key={use.shape} use={use} row={row} on={use.shape === chosen} choose={choose} />
      ))}
      {uses.length === 0 && (
        <li className="p-4 text-ink-2">This photo goes nowhere yet. Choose its places at Arrange.</li>
      )}
    </ul>
  );
}
