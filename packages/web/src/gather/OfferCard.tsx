// A file that may take a photo's place: both pictures, what would change, and what becomes of the file.
import type { Offer } from '@dusky-otter/core/contract';
import { shownName } from '@dusky-otter/core/naming';
import { replacementChanges } from '@dusky-otter/core/plan';
import { useRowOr, useSetId, useSetPlaces, useSite } from '../server/hooks.ts';
import { addBeside, putOfferAway } from '../server/state.ts';
import { viewAddress } from '../api/client.ts';
import { stageFor } from '../ui/stage.ts';
import { StateTag } from '../ui/marks.tsx';
import { putInPlace } from './replacing.ts';

const ROOM = { width: 96, height: 72 };

function Picture({ original, said }: { original: Offer['original']; said: string }) {
  const { width, height } = stageFor(original, ROOM);
  return (
    <figure className="grid justify-items-center gap-1" style={{ width: ROOM.width }}>
      <span className="grid place-items-center" style={{ height: ROOM.height }}>
        <img
          src={viewAddress(original.hash, 'row')}
          alt=""
          className="bg-neutral outline outline-1 -outline-offset-1 outline-black/15"
          style={{ width, height }}
        />
      </span>
      <figcaption className="text-[11.5px] leading-none text-ink-2">{said}</figcaption>
    </figure>
  );
}

export function OfferCard({ offer }: { offer: Offer }) {
  const setId = useSetId();
  const { row } = useRowOr(offer.photo);
  const setPlaces = useSetPlaces();
  const site = useSite();
  const changes = row && site ? replacementChanges(row, offer.original, setPlaces, site) : [];
  return (
    <div className="flex flex-wrap items-start gap-x-5 gap-y-2.5">
      <div className="flex items-center gap-2">
        {row ? <Picture original={row.original} said="now" /> : <span style={{ width: ROOM.width }} />}
        <svg width="26" height="12" viewBox="0 0 26 12" aria-hidden="true" className="text-ink-2">
          <path d="M1 6h22M18 1l6 5-6 5" fill="none" stroke="currentColor" strokeWidth="1.600" />
        </svg>
        <Picture original={offer.original} said="offered" />
      </div>
      <div className="min-w-[220px] flex-1">
        <div className="truncate">
          <b className="font-semibold">{offer.fileName}</b>
          {row && <span className="text-ink-2"> for {shownName(row.words, row.fileName)}</span>}
        </div>
        <ul className="mt-1 grid gap-1" aria-label="What would change">
          {changes.map(({ sentence, state }) => (
            <li key={sentence}>
              <StateTag state={state}>{sentence}</StateTag>
            </li>
          ))}
        </ul>
      </div>
      <div className="flex flex-wrap gap-1.5">
        <button className="btn btn-main" disabled={!row} onClick={() => void putInPlace(setId, [offer])}>
          Put it in its place
        </button>
        <button className="btn" onClick={() => void addBeside(offer.id)}>
          Add it beside
        </button>
        <button className="btn" onClick={() => void putOfferAway(offer.id)}>
          Leave it out
        </button>
      </div>
    </div>
  );
}
