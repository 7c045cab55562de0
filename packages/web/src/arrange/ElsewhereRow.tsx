// An arrangement on another page of the site, slim: where it stands, and how many photos of this set stand in it.
import { arrangementIn } from '@dusky-otter/core/arrange';
import type { Elsewhere, Site } from '@dusky-otter/core/contract';
import { Link } from 'react-router';
import { viewAddress } from '../api/client.ts';
import { some } from '../ui/some.ts';
import { KINDS } from './kinds.tsx';

export function ElsewhereRow({ one, site, here }: { one: Elsewhere; site: Site; here: number }) {
  const slot = site.slots.find(({ id }) => id === one.slot);
  const arrangement = slot && arrangementIn(slot);
  if (!arrangement) return null;
  const photos = some(one.photos, 'photo', 'photos');
  return (
    <section
      aria-label={`${slot.name} on ${one.title}`}
      className="grid grid-cols-[206px_minmax(0,1fr)_176px] items-center gap-x-3 border-b border-rule px-3.5 py-1.5 max-[700px]:grid-cols-1"
    >
      <div className="grid grid-cols-[46px_minmax(0,1fr)] items-center gap-2.5">
        <svg width="46" height="27" viewBox="0 0 48 28" aria-hidden="true" className="text-ink-2">
          {KINDS[arrangement.options.kind].drawing}
        </svg>
        <div className="min-w-0">
          <h3 className="truncate font-title text-[14px] font-[600] leading-tight">{slot.name}</h3>
          <p className="truncate text-[12px] text-ink-2">
            {one.title}, {KINDS[arrangement.options.kind].name.toLowerCase()}
          </p>
        </div>
      </div>
      <div className="flex gap-1.5 overflow-hidden max-[700px]:hidden">
        {one.pictures.map((hash) => (
          <img
            key={hash}
            src={viewAddress(hash, 'row')}
            alt=""
            loading="lazy"
            className="h-[26px] w-[36px] bg-neutral object-cover"
          />
        ))}
      </div>
      <span className="text-[12.5px] text-ink-2">
        {here > 0 ? `${photos}, ${here} of them of this set` : photos}{' '}
        <Link className="text-kelp underline underline-offset-2" to={`/sets/${one.set}/arrange`}>
          Go there<span className="sr-only">, to {one.title}</span>
        </Link>
      </span>
    </section>
  );
}
