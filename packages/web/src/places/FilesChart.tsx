// Surplus against the number of files, as a chart and as a table; and what each device asks for and gets.
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip } from 'chart.js';
import { useEffect, useRef } from 'react';
import { axisTones, NO_LEGEND, STILL, tickTones, token } from '../ui/chart.ts';
import { ChartFrame } from '../ui/ChartFrame.tsx';
import type { ShapeFiles } from './files.ts';
import { shapeSaid } from './shapes-said.ts';

Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);

const percent = (part: number): string => `${Math.round(part * 100)} %`;
const cssPart = (part: number): string => `${part * 100}%`;

function SurplusChart({ files }: { files: ShapeFiles }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const { tries, plan } = files;
  const spoken = tries
    .map(
      ({ widths, surplus }) =>
        `${widths.length} ${widths.length === 1 ? 'file' : 'files'}: ${percent(surplus)} surplus`,
    )
    .join(', ');
  const data = JSON.stringify(tries.map(({ widths, surplus }) => [widths.length, surplus]));
  const chosen = plan.widths.length;
  useEffect(() => {
    if (!canvas.current) return;
    const points = JSON.parse(data) as [number, number][];
    const chart = new Chart(canvas.current, {
      type: 'bar',
      data: {
        labels: points.map(([count]) => String(count)),
        datasets: [
          {
            data: points.map(([, surplus]) => surplus * 100),
            backgroundColor: points.map(([count]) => token(count === chosen ? '--kelp' : '--rule-strong')),
            minBarLength: 2,
          },
        ],
      },
      options: {
        ...STILL,
        plugins: {
          ...NO_LEGEND,
          tooltip: { callbacks: { label: ({ raw }) => `${Math.round(Number(raw))} % surplus` } },
        },
        scales: {
          x: {
            ...axisTones('files of a format'),
            grid: { display: false },
            ticks: tickTones(),
          },
          y: {
            beginAtZero: true,
            ...axisTones(),
            ticks: { ...tickTones(), maxTicksLimit: 4, callback: (value) => `${value} %` },
          },
        },
      },
    });
    return () => chart.destroy();
  }, [data, chosen]);
  return (
    <ChartFrame
      canvas={canvas}
      height={118}
      label={`Surplus pixels by the number of files. ${spoken}. ${chosen} are made.`}
    />
  );
}

function DeviceTable({ files }: { files: ShapeFiles }) {
  const most = files.plan.widths.at(-1) ?? 1;
  return (
    <table className="w-full border-collapse text-[12px]">
      <thead className="sr-only">
        <tr>
          <th>Device</th>
          <th>Window, px</th>
          <th>Asked for and sent, as bars</th>
          <th>File it gets, px</th>
        </tr>
      </thead>
      <tbody>
        {[...files.demands]
          .sort((a, b) => a.device.viewport - b.device.viewport)
          .map(({ device, pixels }) => {
            const sent = files.plan.widths.find((width) => width >= pixels) ?? most;
            return (
              <tr key={`${device.name} ${device.viewport} ${device.density}`}>
                <td className="max-w-[92px] truncate pr-2 text-ink-2">{device.name}</td>
                <td className="pr-2 text-right text-ink-2">{device.viewport}</td>
                <td className="w-full">
                  <span className="relative block h-[8px] bg-[linear-gradient(var(--rule),var(--rule))] bg-[length:100%_1px] bg-center bg-no-repeat">
                    <span
                      className="absolute inset-y-0 left-0 bg-kelp"
                      style={{ width: cssPart(pixels / most) }}
                    />
                    {sent > pixels && (
                      <span
                        className="absolute inset-y-0 border border-amber"
                        style={{ left: cssPart(pixels / most), width: cssPart((sent - pixels) / most) }}
                      />
                    )}
                  </span>
                </td>
                <td className="whitespace-nowrap pl-2 text-right font-[600]">{sent} px</td>
              </tr>
            );
          })}
      </tbody>
    </table>
  );
}

/** @param editDevices opens the table of devices */
export function FilesChart({
  files,
  editDevices,
}: {
  files: readonly ShapeFiles[];
  editDevices: () => void;
}) {
  return (
    <>
      {files.map((one) => (
        <div key={one.part.shape} className="mt-1">
          {files.length > 1 && (
            <p className="mb-0.5 text-[12px] font-[560] text-dusk">{shapeSaid(one.part.shape)}</p>
          )}
          <DeviceTable files={one} />
        </div>
      ))}
      <p className="mt-1.5 flex flex-wrap items-center gap-x-3 text-[12px] text-ink-2">
        <span>
          <span aria-hidden="true" className="mr-1 inline-block h-[8px] w-[14px] bg-kelp" />
          asked for
        </span>
        <span>
          <span aria-hidden="true" className="mr-1 inline-block h-[8px] w-[14px] border border-amber" />
          surplus
        </span>
        <button className="ml-auto text-kelp underline underline-offset-2" onClick={editDevices}>
          Edit the devices
        </button>
      </p>
      {files[0] && <SurplusChart files={files[0]} />}
    </>
  );
}
