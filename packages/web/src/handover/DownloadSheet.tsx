// Before the ZIP: what it will hold, and the photos that still lack something. The editor may go on.
import type { Concern } from '@dusky-otter/core/readiness';
import { bytesInWords } from '@dusky-otter/core/weight';
import { useMutation, useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { api, zipAddress, type HandoverCheck } from '../api/client.ts';
import { allSaved } from '../server/state.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { usePreparation } from '../server/hooks.ts';
import { saveFrom } from '../ui/files.ts';
import { some } from '../ui/some.ts';
import { StateTag } from '../ui/marks.tsx';
import { LanguageLacks } from '../languages/LanguagesLink.tsx';
import { ThoroughPass } from './ThoroughPass.tsx';

interface Props {
  open: boolean;
  onClose: () => void;
  /** Photos that go, or null: all of the set. */
  ids: readonly number[] | null;
  setId: number;
}

/** The bench where a concern is seen to; places are given on the table, and seen at the frame bench. */
const benchOf = ({ stop }: Concern): string => (stop === 'describe' || stop === 'weigh' ? stop : 'frame');

function Lacking({ check }: { check: HandoverCheck }) {
  const { lacking, first } = check;
  if (lacking === 0) return <StateTag state="ready">Every photo has its words and is large enough.</StateTag>;
  return (
    <>
      <p className="mb-2">
        {lacking} {lacking === 1 ? 'photo lacks' : 'photos lack'} something. You may go on; the manifest says
        the same.
      </p>
      <ul className="border-t border-rule">
        {first.map(({ id, set, name, concerns }) => (
          <li key={id} className="grid grid-cols-[200px_1fr] gap-3 border-b border-rule py-2">
            <b className="truncate font-semibold">{name}</b>
            <span className="grid gap-1">
              {concerns.map((concern) => (
                <Link
                  key={concern.sentence}
                  to={`/sets/${set}/${benchOf(concern)}/${id}`}
                  className="w-fit hover:underline"
                >
                  <StateTag state={concern.severity}>{concern.sentence}</StateTag>
                </Link>
              ))}
            </span>
          </li>
        ))}
      </ul>
      {lacking > first.length && (
        <p className="mt-2 text-ink-2">and {lacking - first.length} more, each with its row on the table.</p>
      )}
    </>
  );
}

/** Films lie on the site beside the page: which ones have to be put there. */
function Beside({ files, setId }: { files: HandoverCheck['beside']; setId: number }) {
  if (files.length === 0) return null;
  return (
    <div className="mt-3">
      <StateTag state="care">
        {files.length === 1 ? 'A file of a film does' : `${files.length} files of films do`} not go along. Put
        {files.length === 1 ? ' it' : ' them'} beside the page on the site:
      </StateTag>
      <ul className="mt-1 grid gap-0.5 pl-5">
        {files.map(({ photo, address }) => (
          <li key={address}>
            <Link className="font-figure hover:underline" to={`/sets/${setId}/frame/${photo}`}>
              {address}
            </Link>
          </li>
        ))}
      </ul>
    </div>
  );
}

export function DownloadSheet({ open, onClose, ids, setId }: Props) {
  const thorough = usePreparation()?.thorough.made;
  const { data: check, error } = useQuery({
    // Files that were made smaller meanwhile are counted anew.
    queryKey: ['check', setId, ids, thorough],
    queryFn: async () => {
      // What was typed a moment ago belongs into the files.
      await allSaved();
      return api.check(setId, ids);
    },
    enabled: open,
    staleTime: 0,
    gcTime: 0,
    placeholderData: (before) => before,
  });
  const handing = useMutation({
    mutationFn: async (selection: string) => {
      await api.publish(setId, selection);
      return selection;
    },
    onSuccess: (selection) => {
      saveFrom(zipAddress(setId, selection));
      onClose();
    },
  });
  const about = check
    ? `${some(check.photos, 'photo', 'photos')}${check.guests > 0 ? `, and ${check.guests} that ${check.guests === 1 ? 'stands' : 'stand'} on every page,` : ''} in ${check.files} files, ${bytesInWords(check.bytes)}, with page, styles, manifest and words.`
    : 'Looking at what goes out…';
  return (
    <Sheet open={open} onClose={onClose} title="Download as ZIP" about={about} wide>
      {error && <p role="alert">{error.message}</p>}
      {check && <Lacking check={check} />}
      {check && <Beside files={check.beside} setId={setId} />}
      <LanguageLacks />
      <div className="mt-3">
        <ThoroughPass />
      </div>
      {handing.error && (
        <p role="alert" className="mt-3">
          <StateTag state="care">{handing.error.message}</StateTag>
        </p>
      )}
      <div className="mt-4 flex gap-2">
        {check && (
          <button
            className="btn btn-main"
            aria-disabled={handing.isPending}
            onClick={() => !handing.isPending && handing.mutate(check.selection)}
          >
            {handing.isPending
              ? 'Waiting for the last files…'
              : check.lacking === 0
                ? 'Download'
                : 'Download all the same'}
          </button>
        )}
        <button className="btn" onClick={onClose}>
          Back to the table
        </button>
      </div>
    </Sheet>
  );
}
