// Before there is any site: what this is, in a sentence, and two ways to begin.
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { api, sentenceOf } from '../api/client.ts';
import { NewSite } from './NewSite.tsx';

/** How often it is asked how far unpacking is, ms. */
const ASK = 400;

/** Makes the demo, and says how far it is: its photos are taken in like any others. */
export function DemoButton() {
  const [state, setState] = useState<{ busy: boolean; problem: string | null }>({
    busy: false,
    problem: null,
  });
  const { data } = useQuery({
    queryKey: ['demo'],
    queryFn: api.demoProgress,
    enabled: state.busy,
    refetchInterval: ASK,
    gcTime: 0,
  });
  const navigate = useNavigate();
  const unpack = async () => {
    setState({ busy: true, problem: null });
    try {
      const { id } = await api.demo();
      await navigate(`/sets/${id}/gather`);
    } catch (error) {
      setState({ busy: false, problem: sentenceOf(error) });
    }
  };
  const { done, of } = data?.unpacking ?? { done: 0, of: 0 };
  const isOver = of > 0 && done === of;
  return (
    <span className="inline-flex flex-wrap items-center gap-2">
      <button className="btn" disabled={state.busy} onClick={() => void unpack()}>
        Try it with a pottery’s photos
      </button>
      {state.busy && (
        <span className="inline-flex items-center gap-2 text-ink-2">
          <progress
            className="progress w-[110px]"
            aria-label="Unpacking the demo"
            value={done}
            max={of || 1}
          />
          <span role="status">
            {of === 0 ? 'Unpacking…' : isOver ? 'Putting them on their pages…' : `${done} of ${of} photos`}
          </span>
        </span>
      )}
      <span role="alert" className="text-rust">
        {state.problem}
      </span>
    </span>
  );
}

export function FirstRun({ onMade }: { onMade: () => void }) {
  return (
    <section
      className="mx-auto grid max-w-[720px] gap-6 px-6 py-14 max-[700px]:py-8"
      aria-labelledby="first-run"
    >
      <h1 id="first-run" className="text-[30px] font-[620] leading-tight tracking-[-.02em]">
        From a batch of photos to a page that loads fast and that everybody can use
      </h1>
      <p className="max-w-[62ch] text-[15px] leading-relaxed text-ink-2">
        Drop photos straight from the camera. Each gets a row that shows its crops, its weight and its words,
        and closes its seal when it can go out. The originals stay as they are, on this machine.
      </p>
      <div className="grid gap-4 border-t border-rule-strong pt-5 sm:grid-cols-2">
        <div className="grid content-start justify-items-start gap-2">
          <h2 className="text-[17px] font-[620]">Your own site</h2>
          <p className="text-ink-2">
            A site holds its sets, and a set the photos of one page. Or drop photos anywhere here: a site is
            made on the way.
          </p>
          <NewSite onMade={onMade} main />
        </div>
        <div className="grid content-start justify-items-start gap-2">
          <h2 className="text-[17px] font-[620]">Or look first</h2>
          <p className="text-ink-2">
            Gullmoor Pottery, invented, with the photos of its kiln diary half done.
          </p>
          <DemoButton />
        </div>
      </div>
    </section>
  );
}
