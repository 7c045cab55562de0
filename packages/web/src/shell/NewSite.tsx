// The button that makes a site, with the sheet that asks for its name.
import { useState } from 'react';
import { api } from '../api/client.ts';
import { NameSheet } from '../ui/NameSheet.tsx';

export function NewSite({ onMade, main = false }: { onMade: () => void; main?: boolean }) {
  const [naming, setNaming] = useState(false);
  return (
    <>
      <button className={`btn ${main ? 'btn-main' : ''}`} onClick={() => setNaming(true)}>
        Make a site
      </button>
      <NameSheet
        open={naming}
        onClose={() => setNaming(false)}
        title="Make a site"
        about="The website that you prepare photos for."
        example="Gullmoor Pottery"
        action="Make it"
        onName={async (name) => {
          await api.newSite(name);
          onMade();
        }}
      />
    </>
  );
}
