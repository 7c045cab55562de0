// What the page of a set really loads on each kind of screen, beside the originals, and how long that takes.
import { bytesInWords } from '@dusky-otter/core';
import { useQuery } from '@tanstack/react-query';
import { api } from '../api/client.ts';
import { useCounts, usePreparation } from '../server/hooks.ts';

const SCREENS = [
  { name: 'Phone, 2×', viewport: 390, density: 2 },
  { name: 'Phone, 3×', viewport: 390, density: 3 },
  { name: 'Tablet, 2×', viewport: 820, density: 2 },
  { name: 'Laptop, 1×', viewport: 1280, density: 1 },
  { name: 'Laptop, 2×', viewport: 1440, density: 2 },
] as const;

/** Bytes a second of a slow phone line (as budgets are derived from) and of a fast one. */
const LINES = { slow: 200_000, fast: 5_000_000 };

const seconds = (bytes: number, line: number): string => {
  const time = bytes / line;
  return time < 10 ? `${time.toFixed(1)} s` : `${Math.round(time)} s`;
};

export function PageTotals({ setId }: { setId: number }) {
  const counts = useCounts();
  const made = usePreparation()?.made;
  const { data } = useQuery({
    // Counts are told with every change that may change them.
    queryKey: ['totals', setId, counts, made],
    queryFn: () => Promise.all(SCREENS.map(({ viewport, density }) => api.sent(setId, viewport, density))),
    placeholderData: (before) => before,
  });
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
            <th>slow line</th>
            <th>fast line</th>
          </tr>
        </thead>
        <tbody>
          {SCREENS.map(({ name }, n) => {
            const sent = data?.[n]?.sent;
            return (
              <tr key={name} className="border-t border-rule text-right">
                <td className="py-0.5 text-left text-ink-2">{name}</td>
                <td className="font-[600]">{sent === undefined ? '–' : bytesInWords(sent)}</td>
                <td>{sent === undefined ? '–' : seconds(sent, LINES.slow)}</td>
                <td>{sent === undefined ? '–' : seconds(sent, LINES.fast)}</td>
              </tr>
            );
          })}
          <tr className="border-t border-rule-strong text-right text-ink-2">
            <td className="py-0.5 text-left">the originals</td>
            <td>{bytesInWords(camera)}</td>
            <td>{seconds(camera, LINES.slow)}</td>
            <td>{seconds(camera, LINES.fast)}</td>
          </tr>
        </tbody>
      </table>
      {!complete && <p className="mt-1 text-[12px] text-ink-2">So far: some files are still being made.</p>}
    </section>
  );
}
