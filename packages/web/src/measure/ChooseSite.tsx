// Where a page to measure comes from.
import { useRef } from 'react';
import { useDropzone } from 'react-dropzone';
import { notify } from '../screen/screen.ts';

/** Chooses a page, a folder or a ZIP; the demo's site is a press away. */
export function ChooseSite({ take, busy }: { take: (files: readonly File[]) => void; busy: boolean }) {
  const folder = useRef<HTMLInputElement>(null);
  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: take,
    noClick: true,
    noKeyboard: true,
    useFsAccessApi: false,
  });
  const demo = async () => {
    const response = await fetch('/api/demo/site.zip');
    if (response.ok)
      take([new File([await response.blob()], 'gullmoor-site.zip', { type: 'application/zip' })]);
    else notify('The demo’s site can’t be read here.', 'bad');
  };
  return (
    <div
      {...getRootProps({ role: undefined, tabIndex: undefined, onDrop: (event) => event.stopPropagation() })}
      className={`m-6 grid place-items-center gap-3 border-2 border-dashed px-6 py-12 text-center ${isDragActive ? 'border-kelp bg-kelp-soft' : 'border-rule-strong'}`}
    >
      <input {...getInputProps({ 'aria-label': 'A page or a ZIP of a site', style: { display: 'none' } })} />
      <input
        ref={(element) => {
          folder.current = element;
          // React knows no attribute of this name.
          element?.setAttribute('webkitdirectory', '');
        }}
        type="file"
        multiple
        className="hidden"
        aria-label="The folder of a site"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length > 0) take(files);
        }}
      />
      <h2 className="text-[17px] font-[620]">Which page shows the pictures?</h2>
      <p className="max-w-[62ch] text-ink-2">
        Give the site’s folder or a ZIP of it, so that styles and pictures come along; a saved page alone will
        do. It is opened sealed off, without its scripts and without a network, and looked at in windows from
        320 to 2560 px.
      </p>
      <p className="flex flex-wrap justify-center gap-2">
        <button className="btn btn-main" disabled={busy} onClick={() => folder.current?.click()}>
          Choose a folder
        </button>
        <button className="btn" disabled={busy} onClick={open}>
          Choose a page or a ZIP
        </button>
        <button className="btn" disabled={busy} onClick={() => void demo()}>
          Try Gullmoor’s site
        </button>
      </p>
    </div>
  );
}
