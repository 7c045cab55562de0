// Before the ZIP: what it will hold, and every photo that still lacks something. The editor may go on.
import { bytesInWords, handoverConcerns, shownName, type PhotoRow } from '@dusky-otter/core';
import { useSameAlts, useSetSlots } from '../state/derived.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { StateTag } from '../ui/marks.tsx';
import { zipAddress } from '../api/client.ts';

interface Props {
  open: boolean;
  onClose: () => void;
  rows: readonly PhotoRow[];
  setId: number;
  whole: boolean;
}

export function DownloadSheet({ open, onClose, rows, setId, whole }: Props) {
  const setSlots = useSetSlots();
  const same = useSameAlts();
  const files = new Map(
    rows
      .flatMap((row) => row.variants)
      .filter((v) => v.bytes !== null)
      .map((v) => [v.key, v.bytes ?? 0]),
  );
  const bytes = [...files.values()].reduce((sum, size) => sum + size, 0);
  const lacking = rows
    .map((row) => ({ row, concerns: handoverConcerns(row, setSlots, same) }))
    .filter(({ concerns }) => concerns.length > 0);
  const address = zipAddress(setId, whole ? undefined : rows.map((row) => row.id));
  const about = `${rows.length} ${rows.length === 1 ? 'photo' : 'photos'} in ${files.size} files, ${bytesInWords(bytes)}, with page, styles, manifest and words.`;
  return (
    <Sheet open={open} onClose={onClose} title="Download as ZIP" about={about} wide>
      {lacking.length === 0 ? (
        <StateTag state="ready">Every photo has its words and is large enough.</StateTag>
      ) : (
        <>
          <p className="mb-2">
            {lacking.length} {lacking.length === 1 ? 'photo lacks' : 'photos lack'} something. You may go on;
            the manifest says the same.
          </p>
          <ul className="border-t border-rule">
            {lacking.map(({ row, concerns }) => (
              <li key={row.id} className="grid grid-cols-[200px_1fr] gap-3 border-b border-rule py-2">
                <b className="truncate font-semibold">{shownName(row.words, row.fileName)}</b>
                <span className="grid gap-1">
                  {concerns.map((concern) => (
                    <StateTag key={concern.sentence} state={concern.severity}>
                      {concern.sentence}
                    </StateTag>
                  ))}
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
      <div className="mt-4 flex gap-2">
        <a href={address} download className="btn btn-main" onClick={onClose}>
          {lacking.length === 0 ? 'Download' : 'Download all the same'}
        </a>
        <button className="btn" onClick={onClose}>
          Back to the table
        </button>
      </div>
    </Sheet>
  );
}
