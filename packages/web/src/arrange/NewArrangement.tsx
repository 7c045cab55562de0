// Another arrangement: named, made of what is picked or of all, and opened on its bench.
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useScreen } from '../screen/screen.ts';
import { useSet, useSetId, useSite } from '../server/hooks.ts';
import { idsUnder } from '../server/state.ts';
import { NameSheet } from '../ui/NameSheet.tsx';
import { photosOf } from '../editing/photos.ts';
import { makeArrangement } from './edits.ts';

export function NewArrangement() {
  const setId = useSetId();
  const site = useSite();
  const set = useSet();
  const selected = useScreen((state) => state.selected);
  const navigate = useNavigate();
  const [naming, setNaming] = useState(false);
  const make = async (title: string) => {
    if (!site || !set || title === '') return;
    const open = selected.size === 0;
    const photos = await photosOf(setId, open ? (await idsUnder('all')).ids : [...selected]);
    const name = makeArrangement(site, set, title, {
      // Who follows the set comes along with it.
      photos: photos.filter(({ placements }) => !open || placements !== null),
      open,
    });
    void navigate(`/sets/${setId}/arrange/${name}`);
  };
  const of = selected.size === 0 ? 'all photos' : `the ${selected.size} picked`;
  return (
    <>
      <button className="btn" onClick={() => setNaming(true)}>
        New arrangement
      </button>
      <NameSheet
        open={naming}
        onClose={() => setNaming(false)}
        title={`A new arrangement of ${of}`}
        about="A grid, a hero, a feed: what it is to be is said on its bench. Its title is read by people."
        example="Pots from this firing"
        action="Make it"
        onName={make}
      />
    </>
  );
}
