// The demo's site as a ZIP: pages to try measuring on.
import { readdir, readFile } from 'node:fs/promises';
import { join, relative, sep } from 'node:path';
import { zipSync } from 'fflate';

/** @param demoDir folder of the demo; its site lies in `site` */
export async function demoSiteZip(demoDir: string): Promise<Uint8Array> {
  const root = join(demoDir, 'site');
  const entries = await readdir(root, { recursive: true, withFileTypes: true });
  const files = entries
    .filter((entry) => entry.isFile())
    .map(({ parentPath, name }) => join(parentPath, name));
  const read = await Promise.all(
    files
      .sort()
      .map(
        async (path) =>
          [relative(root, path).split(sep).join('/'), new Uint8Array(await readFile(path))] as const,
      ),
  );
  return zipSync(Object.fromEntries(read), { level: 0 });
}
