// A place as a row: how wide it is in four windows, its shape, its heaviest photo against its budget, the files it makes.
import type { Photo, PlaceUse, Site, Slot } from '@dusky-otter/core/contract';
import { ratioOf } from '@dusky-otter/core/geometry';
import { viewAddress } from '../api/client.ts';
import { countOf, filesOf, surplusIn } from './files.ts';
import { Mini, widthIn, WINDOWS } from './Section.tsx';
import { shapeSaid } from './shapes-said.ts';

export const COLUMNS =
  'grid-cols-[26px_minmax(0,1fr)_64px] min-[701px]:grid-cols-[26px_minmax(180px,1fr)_98px_repeat(4,52px)_14px_104px_124px_76px_86px_120px]';

interface Props {
  site: Site;
  slot: Slot;
  text: string;
  use: PlaceUse | null;
  photo: Photo | null;
  open: boolean;
  changed: boolean;
  toggle: () => void;
}

function ShapeIcons({ slot }: { slot: Slot }) {
  return (
    <span className="flex items-center gap-1.5">
      {slot.shapes.map(({ shape }) => {
        const ratio = Math.min(4, Math.max(0.4, ratioOf(shape, { width: 3, height: 2 })));
        const width = ratio >= 1 ? 18 : 18 * ratio;
        return (
          <span
            key={shape}
            aria-hidden="true"
            className="inline-block border-[1.5px] border-ink-2"
            style={{ width, height: width / ratio }}
          />
        );
      })}
      <span className="truncate">{slot.shapes.map(({ shape }) => shapeSaid(shape)).join(', ')}</span>
    </span>
  );
}

function Weight({ slot, use }: { slot: Slot; use: PlaceUse | null }) {
  const heaviest = use?.weights[0] ?? 0;
  const most = Math.max(heaviest, slot.budget) * 1.15;
  const over = heaviest > slot.budget;
  return (
    <span className="flex items-center gap-1.5 whitespace-nowrap">
      <svg width="52" height="12" aria-hidden="true">
        <path d="M0 6H52" stroke="var(--rule-strong)" />
        <rect y="2" height="8" width={(heaviest / most) * 52} fill={over ? 'var(--amber)' : 'var(--kelp)'} />
        <path d={`M${(slot.budget / most) * 52} 0v12`} stroke="var(--ink)" strokeWidth="2" />
      </svg>
      {Math.round(slot.budget / 1000)} kB
      {over && <span className="sr-only">, over by {Math.round((heaviest - slot.budget) / 1000)} kB</span>}
    </span>
  );
}

export function PlaceRow({ site, slot, text, use, photo, open, changed, toggle }: Props) {
  const over = (use?.weights[0] ?? 0) > slot.budget;
  const files = filesOf(slot, site.devices);
  const [sign, said, tone] = changed
    ? ['◐', 'changed, not applied yet', 'text-amber']
    : over
      ? ['▲', 'a photo is over its budget', 'text-amber']
      : ['●', 'all photos keep to its budget', 'text-moss'];
  return (
    <button
      className={`grid w-full items-center border-b border-rule px-4 text-left text-[13px] max-[700px]:py-1.5 min-[701px]:h-[39px] ${COLUMNS} ${open ? 'bg-kelp-soft shadow-[inset_3px_0_var(--focus)]' : 'hover:bg-raised'}`}
      aria-expanded={open}
      data-place={slot.id}
      onClick={toggle}
    >
      <span className={tone}>
        <span aria-hidden="true">{sign}</span>
        <span className="sr-only">{said}. </span>
      </span>
      <span className="min-w-0 pr-2 leading-tight">
        <b className="block truncate font-semibold">{slot.name}</b>
        <span className="block truncate text-[12px] text-ink-2">{text}</span>
      </span>
      <span className="max-[700px]:hidden">
        <Mini slot={slot} photo={photo} />
      </span>
      {WINDOWS.map(({ width }) => (
        <span key={width} className="pr-2.5 text-right font-[560] max-[700px]:hidden">
          {Math.round(widthIn(slot, width, photo).width)}
        </span>
      ))}
      <span className="max-[700px]:hidden" />
      <span className="min-w-0 max-[700px]:hidden">
        <ShapeIcons slot={slot} />
      </span>
      <span className="max-[700px]:hidden">
        <Weight slot={slot} use={use} />
      </span>
      <span className="max-[700px]:hidden">{slot.loading === 'first' ? 'at once' : 'when near'}</span>
      <span className="whitespace-nowrap max-[700px]:hidden">
        {countOf(files)} · {Math.round(surplusIn(files) * 100)} %
      </span>
      <span className="flex items-center justify-end gap-0.5">
        <b className="pr-1 font-semibold">{use?.photos ?? '–'}</b>
        <span className="sr-only">photos</span>
        {(use?.shown ?? []).slice(0, 3).map(({ hash }) => (
          <img
            key={hash}
            src={viewAddress(hash, 'row')}
            alt=""
            className="size-[24px] bg-neutral object-cover max-[700px]:hidden"
          />
        ))}
      </span>
    </button>
  );
}
