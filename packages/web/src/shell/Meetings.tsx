// Where two windows changed the same: both are shown, and the editor chooses which one stands. Nothing is lost until then.
import type { Words } from '@dusky-otter/core/contract';
import type { Command } from '@dusky-otter/core/edits';
import { shownName } from '@dusky-otter/core/naming';
import { useState } from 'react';
import { useSetId } from '../server/hooks.ts';
import { settleMeeting, useSending, type Meeting } from '../server/state.ts';
import { Sheet } from '../ui/Sheet.tsx';
import { FIELD_NAMES, inWords } from '../editing/edits.ts';

interface Side {
  what: string;
  mine: string;
  theirs: string;
}

const said = (part: Words[keyof Words] | undefined): string => inWords(part) || 'empty';

/** What both windows made of the same, as far as it can be said in words. */
function sidesOf({ edit, photos }: Meeting): Side[] {
  const texts = edit.commands.filter((c): c is Extract<Command, { kind: 'words' }> => c.kind === 'words');
  return texts.flatMap(({ photo: id, words }) => {
    const photo = photos.find((other) => other.id === id);
    if (!photo) return [];
    return (Object.keys(words) as (keyof Words)[])
      .filter((field) => inWords(words[field]) !== inWords(photo.words[field]))
      .map((field) => ({
        what: `${FIELD_NAMES[field]} of ${shownName(photo.words, photo.fileName)}`,
        mine: said(words[field]),
        theirs: said(photo.words[field]),
      }));
  });
}

function Choice({ meeting, left, onLater }: { meeting: Meeting; left: number; onLater: () => void }) {
  const sides = sidesOf(meeting);
  return (
    <Sheet
      open
      onClose={onLater}
      title="Changed in two windows"
      about={`“${meeting.edit.label}” was changed in another window while you changed it here. Choose which one stands.`}
      wide
    >
      {sides.map(({ what, mine, theirs }) => (
        <section key={what} className="mb-4 grid gap-2">
          <h3 className="font-semibold">{what}</h3>
          <div className="grid grid-cols-2 gap-3 max-[700px]:grid-cols-1">
            <div>
              <p className="text-[12px] text-ink-2">Yours, not saved yet</p>
              <p className="max-h-40 overflow-auto whitespace-pre-wrap border border-rule-strong bg-raised p-2 text-[15px]">
                {mine}
              </p>
            </div>
            <div>
              <p className="text-[12px] text-ink-2">From the other window, there now</p>
              <p className="max-h-40 overflow-auto whitespace-pre-wrap border border-rule-strong bg-raised p-2 text-[15px]">
                {theirs}
              </p>
            </div>
          </div>
        </section>
      ))}
      {sides.length === 0 && (
        <p className="mb-4">The newer state is shown behind this sheet; yours is kept until you choose.</p>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <button className="btn btn-main" onClick={() => settleMeeting(meeting, true)}>
          Take mine
        </button>
        <button className="btn" onClick={() => settleMeeting(meeting, false)}>
          Leave theirs
        </button>
        {left > 0 && <span className="text-ink-2">{left} more to choose</span>}
      </div>
    </Sheet>
  );
}

export function Meetings() {
  const setId = useSetId();
  const meetings = useSending((state) => state.meetings);
  // Put off, not decided: both stay as they are until somebody chooses.
  const [later, setLater] = useState<string | null>(null);
  const own = meetings.filter(({ edit }) => edit.setId === setId);
  const [first] = own;
  if (!first) return null;
  if (later !== first.edit.token)
    return (
      <Choice
        key={first.edit.token}
        meeting={first}
        left={own.length - 1}
        onLater={() => setLater(first.edit.token)}
      />
    );
  return (
    <div className="fixed bottom-[58px] right-4 z-20 flex items-center gap-3 rounded-paper border border-amber bg-raised px-3 py-2">
      <span>
        {own.length === 1 ? 'A change of yours waits' : `${own.length} changes of yours wait`} for a choice.
      </span>
      <button className="chip" onClick={() => setLater(null)}>
        Choose
      </button>
    </div>
  );
}
