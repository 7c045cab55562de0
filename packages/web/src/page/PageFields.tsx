// What the page is called, where it lies, and how it looks.
import type { PageDesign, PhotoSet, SetPage } from '@dusky-otter/core/contract';
import { linkProblem } from '@dusky-otter/core/html';
import { isFolder, LONGEST_TEMPLATE, SPOT, templateProblem, TITLE_SPOT } from '@dusky-otter/core/page';
import { useRef, useState } from 'react';
import { notifyFailure } from '../screen/screen.ts';
import { TextLine } from '../ui/TextLine.tsx';
import { Tick } from '../ui/Tick.tsx';
import { putPage } from '../editing/page.ts';

const DESIGNS: readonly { design: PageDesign; name: string; hint: string }[] = [
  { design: 'plain', name: 'Plain', hint: 'a column in the middle, in a book’s type' },
  { design: 'wide', name: 'Wide', hint: 'large type and much room' },
  { design: 'own', name: 'Your file', hint: 'an HTML file of yours with a marked spot' },
];

const TONES: readonly { tone: SetPage['tone']; name: string }[] = [
  { tone: 'light', name: 'light' },
  { tone: 'dark', name: 'dark' },
  { tone: 'visitor', name: 'as the visitor’s screen' },
];

function Template({ page }: { page: SetPage }) {
  const file = useRef<HTMLInputElement>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const read = async (chosen: File | undefined) => {
    if (!chosen) return;
    if (chosen.size > 4 * LONGEST_TEMPLATE)
      return setProblem('The HTML file is longer than 200,000 characters.');
    try {
      const template = await chosen.text();
      const wrong = templateProblem(template);
      setProblem(wrong);
      if (!wrong) putPage({ ...page, design: 'own', template }, 'template');
    } catch (error) {
      notifyFailure(error);
    }
  };
  return (
    <div className="grid gap-1.5 border-l-2 border-rule-strong pl-3">
      <p className="text-[12.5px] text-ink-2">
        Your file says <code className="font-figure">{SPOT}</code> once, where the page is to stand, and may
        say <code className="font-figure">{TITLE_SPOT}</code> where its title is.
      </p>
      <input
        ref={file}
        type="file"
        accept=".html,.htm,text/html"
        className="hidden"
        aria-label="HTML file"
        onChange={(event) => {
          void read(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      <button className="btn justify-self-start" onClick={() => file.current?.click()}>
        {page.template ? 'Another file…' : 'Choose the file…'}
      </button>
      {problem ? (
        <p role="alert" className="text-[12.5px] text-rust">
          {problem}
        </p>
      ) : (
        page.template && (
          <p className="text-[12.5px] text-ink-2">
            A file of {page.template.length.toLocaleString('en-GB')} characters is kept with the page.
          </p>
        )
      )}
    </div>
  );
}

interface Props {
  page: SetPage;
  set: PhotoSet;
  /** Folders of the site's other pages. */
  folders: readonly string[];
}

export function PageFields({ page, set, folders }: Props) {
  const [choosing, setChoosing] = useState(false);
  const put = (change: Partial<SetPage>, what: string, began?: number) =>
    putPage({ ...page, ...change }, what, began);
  const { home } = page;
  const version = set.version;
  const own = page.design === 'own' || choosing;
  return (
    <>
      <TextLine
        label="Title"
        most={200}
        saved={page.title}
        version={version}
        problemOf={(text) => (text.trim() === '' ? 'A page has a title.' : null)}
        save={(title, began) => put({ title }, 'title', began)}
      />
      <TextLine
        label="Description, for search engines"
        most={500}
        saved={page.description}
        version={version}
        save={(description, began) => put({ description }, 'description', began)}
      />
      <TextLine
        label="Folder on the site"
        most={60}
        mono
        saved={page.folder}
        version={version}
        problemOf={(text) =>
          !isFolder(text)
            ? 'Small letters, digits and hyphens.'
            : folders.includes(text)
              ? 'Another page of the site lies there.'
              : null
        }
        save={(folder, began) => put({ folder }, 'folder', began)}
        hint="Stays when the title changes: links to it keep working."
      />
      <Tick checked={page.menu} set={(menu) => put({ menu }, 'menu')}>
        stands in the site’s menu
      </Tick>
      <Tick
        checked={home !== null}
        set={(on) => put({ home: on ? { text: 'Home', address: '../' } : null }, 'link home')}
      >
        has a link home
      </Tick>
      {home && (
        <div className="grid gap-2 border-l-2 border-rule-strong pl-3">
          <TextLine
            label="It says"
            most={200}
            saved={home.text}
            version={version}
            problemOf={(text) => (text.trim() === '' ? 'A link says where it leads.' : null)}
            save={(text, began) => put({ home: { ...home, text } }, 'link home', began)}
          />
          <TextLine
            label="It leads to"
            most={2000}
            mono
            saved={home.address}
            version={version}
            problemOf={(text) => (text.trim() === '' ? 'A link leads somewhere.' : linkProblem(text))}
            save={(address, began) => put({ home: { ...home, address } }, 'link home', began)}
          />
        </div>
      )}
      <fieldset className="grid gap-1.5 border-t border-rule-strong pt-3">
        <legend className="font-title text-[14px] font-[600]">Design</legend>
        {DESIGNS.map(({ design, name, hint }) => (
          <label key={design} className="flex items-baseline gap-2 text-[13px]">
            <input
              type="radio"
              name="design"
              className="accent-kelp"
              checked={design === 'own' ? own : !own && page.design === design}
              onChange={() => {
                // Without its file the design can't be had yet: the file is asked for first.
                const waits = design === 'own' && page.template === '';
                setChoosing(waits);
                if (!waits) put({ design }, 'design');
              }}
            />
            <span>
              {name} <span className="text-ink-2">{hint}</span>
            </span>
          </label>
        ))}
        {own && <Template page={page} />}
        {!own && (
          <div role="group" aria-label="Tone" className="mt-1 flex flex-wrap gap-1.5">
            {TONES.map(({ tone, name }) => (
              <button
                key={tone}
                className="chip"
                aria-pressed={page.tone === tone}
                onClick={() => put({ tone }, 'tone')}
              >
                {name}
              </button>
            ))}
          </div>
        )}
      </fieldset>
    </>
  );
}
