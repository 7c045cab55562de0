// Bytes and files as they are, and as they would be.
import type { PolicyForecast } from '@dusky-otter/core/contract';
import { bytesInWords } from '@dusky-otter/core/weight';

const change = (now: number, then: number): string => {
  if (now === 0) return '';
  const share = Math.round((then / now - 1) * 100);
  return share === 0 ? 'the same' : `${Math.abs(share)} % ${share < 0 ? 'less' : 'more'}`;
};

/** @param what is sent, heads the table */
export function Forecast({ forecast, what }: { forecast: PolicyForecast; what: string }) {
  const { files, phone, laptop, tried, exact } = forecast;
  const rows = [
    ['A phone, 2×', phone],
    ['A laptop, 2×', laptop],
  ] as const;
  return (
    <>
      <table className="mt-2 w-full border-collapse text-[12.5px]">
        <thead>
          <tr className="text-right text-[12px] text-ink-2 [&>th]:font-[500]">
            <th className="text-left">{what}</th>
            <th>now</th>
            <th>then</th>
            <th>change</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, { now, then }]) => (
            <tr key={name} className="border-t border-rule text-right">
              <td className="py-0.5 text-left text-ink-2">{name}</td>
              <td>{bytesInWords(now)}</td>
              <td className="font-[650]">{bytesInWords(then)}</td>
              <td className="text-ink-2">{change(now, then)}</td>
            </tr>
          ))}
          <tr className="border-t border-rule text-right">
            <td className="py-0.5 text-left text-ink-2">Files in all</td>
            <td>{files.now}</td>
            <td className="font-[650]">{files.then}</td>
            <td className="text-ink-2">{files.toMake > 0 ? `${files.toMake} to make` : ''}</td>
          </tr>
        </tbody>
      </table>
      <p className="mt-1.5 text-[12px] text-ink-2">
        {tried === 0 && exact
          ? 'Counted from the files that are there.'
          : `Measured on ${tried} ${tried === 1 ? 'file' : 'files'} made for it${exact ? '' : ', and carried over to the others'}.`}
      </p>
    </>
  );
}
