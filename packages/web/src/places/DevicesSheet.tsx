// The devices that a site's visitors come with: what widths are planned for. From the site's own statistics as CSV.
import type { DeviceClass, Site } from '@dusky-otter/core/contract';
import { DEFAULT_DEVICES, devicesCsv, parseDevices } from '@dusky-otter/core/slots';
import { useRef, useState } from 'react';
import { edit } from '../server/state.ts';
import { saveText } from '../ui/files.ts';
import { Sheet } from '../ui/Sheet.tsx';

const MOST_DEVICES = 200;
const LARGEST = 1_000_000;

interface Props {
  site: Site;
  open: boolean;
  onClose: () => void;
}

export function DevicesSheet({ site, open, onClose }: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const plan = (label: string, devices: readonly DeviceClass[]) =>
    edit(label, [{ kind: 'site', change: { devices: [...devices] } }]);
  const read = async (file: File) => {
    setProblem(null);
    try {
      if (file.size > LARGEST) throw new RangeError('This file is too large for a table of devices.');
      const devices = parseDevices(await file.text());
      if (devices.length > MOST_DEVICES)
        throw new RangeError(
          `The table has ${devices.length} devices; up to ${MOST_DEVICES} can be planned for. Put rare ones together.`,
        );
      plan(`devices from ${file.name}`, devices);
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Sheet
      open={open}
      onClose={onClose}
      title="Devices of the site’s visitors"
      about="Pixel widths are planned for these. From your visitor statistics: a CSV file with name, viewport, density and share."
      wide
    >
      {problem && (
        <p role="alert" className="mb-3 border border-rust bg-rust-soft px-3 py-2 text-rust">
          <b>■</b> {problem} The table is as it was.
        </p>
      )}
      <table className="w-full border-collapse text-[13px]">
        <thead>
          <tr className="border-b border-rule-strong text-left text-[12px] text-ink-2">
            <th className="py-1 font-[560]">Device</th>
            <th className="py-1 text-right font-[560]">Window</th>
            <th className="py-1 text-right font-[560]">Density</th>
            <th className="py-1 text-right font-[560]">Visits</th>
            <th className="w-[30%]">
              <span className="sr-only">Visits as a bar</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {site.devices.map(({ name, viewport, density, share }, n) => (
            <tr key={n} className="border-b border-rule">
              <td className="max-w-[180px] truncate py-1">{name}</td>
              <td className="py-1 text-right">{viewport} px</td>
              <td className="py-1 text-right">{density}×</td>
              <td className="py-1 text-right">{(share * 100).toFixed(1)} %</td>
              <td className="pl-3">
                <span className="block h-[8px] bg-kelp" style={{ width: `${share * 100}%` }} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <input
        ref={chooser}
        type="file"
        accept=".csv,text/csv,text/plain"
        className="hidden"
        aria-label="A CSV file of devices"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) void read(file);
        }}
      />
      <div className="mt-4 flex flex-wrap gap-2">
        <button className="btn btn-main" onClick={() => chooser.current?.click()}>
          Read a CSV file
        </button>
        <button className="btn" onClick={() => saveText('devices.csv', 'text/csv', devicesCsv(site.devices))}>
          Save this table
        </button>
        <button className="btn" onClick={() => plan('devices as they ship', DEFAULT_DEVICES)}>
          Take the table that ships
        </button>
      </div>
    </Sheet>
  );
}
