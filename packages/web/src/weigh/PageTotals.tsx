// What the page of a set really loads on each kind of screen, beside the originals, and how long that takes.
import type { AlikeBytes } from '@dusky-otter/core/contract';
import { ONE_QUALITY } from '@dusky-otter/core/readiness';
import { bytesInWords } from '@dusky-otter/core/weight';
import { useQueries, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { api } from '../api/client.ts';
import { useCounts, usePreparation } from '../server/hooks.ts';
import { ThoroughPass } from '../handover/ThoroughPass.tsx';
import { WEIGHED_SCREENS, secondsOn } from './screens.ts';
import { Link } from 'react-router';

const ONE_SAID = `AVIF ${ONE_QUALITY.avif}, WebP ${ONE_QUALITY.webp}, JPEG ${ONE_QUALITY.jpeg}`;

export function PageTotals({ setId }: { setId: number }) {
  const counts = useCounts();
  const preparation = usePreparation();
  const made = preparation?.made;
  const thorough = preparation?.thorough.made;
  const { data } = useQuery({
    // Counts are told with every change that may change them.
    queryKey: ['totals', setId, counts, made, thorough],
    queryFn: () =>
      Promise.all(WEIGHED_SCREENS.map(({ viewport, density }) => api.sent(setId, viewport, density))),
    placeholderData: (before) => before,
  });
  const [comparing, setComparing] = useState(false);
  // A comparison holds for the files that it was made beside: where others come, it is made again, and stands until then.
  const sentNow = JSON.stringify(data);
  const beside = useQueries({
    queries: WEIGHED_SCREENS.map(({ viewport, density }) => ({
      queryKey: ['alike', setId, viewport, density, sentNow],
      enabled: comparing && data !== undefined,
      staleTime: Infinity,
      placeholderData: (before: AlikeBytes | undefined) => before,
      queryFn: ({ signal }: { signal: AbortSignal }) => api.alike(setId, viewport, density, signal),
    })),
  });
  const left = beside.filter(({ data: one, isFetching }) => !one && isFetching).length;
  const failed = comparing && beside.find(({ error }) => error)?.error;
  const least = beside[0]?.data;
  const camera = counts?.camera ?? 0;
  const complete = data?.every((one) => one.complete) ?? false;
  return (
    <section className="px-4 py-3" aria-label="What the page sends">
      <h2 className="font-title text-[14px] font-[600]">This page sends</h2>
      <table className="mt-1.5 w-full border-collapse text-[12.5px]">
        <thead>
          <tr className="text-right text-[12px] text-ink-2 [&>th]:font-[500]">
            <th className="text-left">Screen</th>
            <th>loads</th>
            {comparing && <th>one quality</th>}
            <th>slow line</th>
            <th>fast line</th>
          </tr>
        </thead>
        <tbody>
          {WEIGHED_SCREENS.map(({ name }, n) => {
            const sent = data?.[n]?.sent;
            return (
              <tr key={name} className="border-t border-rule text-right">
                <td className="py-0.5 text-left text-ink-2">{name}</td>
                <td className="font-[600]">{sent === undefined ? '–' : bytesInWords(sent)}</td>
                {comparing && (
                  <td>
                    {beside[n]?.data ? bytesInWords(beside[n].data.alike) : beside[n]?.error ? '–' : '…'}
                  </td>
                )}
                <td>{sent === undefined ? '–' : secondsOn('slow', sent)}</td>
                <td>{sent === undefined ? '–' : secondsOn('fast', sent)}</td>
              </tr>
            );
          })}
          <tr className="border-t border-rule-strong text-right text-ink-2">
            <td className="py-0.5 text-left">the originals</td>
            <td>{bytesInWords(camera)}</td>
            {comparing && <td />}
            <td>{secondsOn('slow', camera)}</td>
            <td>{secondsOn('fast', camera)}</td>
          </tr>
        </tbody>
      </table>
      {comparing ? (
        <p className="mt-1 text-[12px] text-ink-2" role={failed ? 'alert' : 'status'}>
          {failed
            ? failed.message
            : left > 0
              ? `Making pictures with one quality for all: ${WEIGHED_SCREENS.length - left} of ${WEIGHED_SCREENS.length} screens.`
              : `One quality for all (${ONE_SAID}) makes some pictures heavier than they need be, and others worse than they may be.${
                  least && least.tried < least.of
                    ? ` Measured on ${least.tried} of ${least.of} pictures a screen.`
                    : ''
                }`}
        </p>
      ) : (
        <button className="chip mt-1.5 mr-3" disabled={!data} onClick={() => setComparing(true)}>
          Beside one quality for all
        </button>
      )}
      <Link
        className="mt-1.5 inline-block text-[12.5px] text-kelp underline underline-offset-2"
        to={`/sets/${setId}/limit`}
      >
        Set a limit for the page
      </Link>
      <div className="mt-2">
        <ThoroughPass />
      </div>
      {!complete && <p className="mt-1 text-[12px] text-ink-2">So far: some files are still being made.</p>}
    </section>
  );
}
