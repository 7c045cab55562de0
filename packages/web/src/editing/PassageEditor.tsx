// Writes a text for a page: paragraphs, lists, emphasis and links. It comes when one is opened.
import type { Passage } from '@dusky-otter/core/contract';
import { directionOf, linkProblem } from '@dusky-otter/core/html';
import { Bold } from '@tiptap/extension-bold';
import Document from '@tiptap/extension-document';
import { Italic } from '@tiptap/extension-italic';
import { Link } from '@tiptap/extension-link';
import { BulletList, ListItem, ListKeymap } from '@tiptap/extension-list';
import Paragraph from '@tiptap/extension-paragraph';
import Text from '@tiptap/extension-text';
import { UndoRedo } from '@tiptap/extensions';
import { EditorContent, useEditor, useEditorState } from '@tiptap/react';
import { useEffect, useRef, useState } from 'react';
import { useDraft } from '../screen/draft.ts';
import { docOfPassage, passageOfDoc } from './passage-doc.ts';

const EXTENSIONS = [
  ...[Document, Paragraph, Text, UndoRedo, Bold, Italic, BulletList, ListItem, ListKeymap],
  Link.configure({ openOnClick: false, autolink: false, isAllowedUri: (uri) => linkProblem(uri) === null }),
];

interface Props {
  passage: Passage;
  /** Of what is written in: a text that another window wrote meanwhile is not written over unseen. */
  version: number;
  label: string;
  language: string;
  save: (passage: Passage, began: number) => void;
}

export default function PassageEditor({ passage, version, label, language, save }: Props) {
  const draft = useDraft(JSON.stringify(passage), version, (text, began) =>
    save(JSON.parse(text) as Passage, began),
  );
  const { text, change, flush } = draft;
  const own = useRef(text);
  const [linking, setLinking] = useState<string | null>(null);
  const editor = useEditor({
    extensions: EXTENSIONS,
    content: docOfPassage(passage),
    editorProps: {
      attributes: {
        ...{ role: 'textbox', 'aria-multiline': 'true', 'aria-label': label, lang: language },
        dir: directionOf(language),
        ...{ spellcheck: 'true', class: 'field long-text min-h-[120px] text-[15px] leading-snug' },
      },
    },
    onUpdate: ({ editor: now }) => {
      own.current = JSON.stringify(passageOfDoc(now.getJSON()));
      change(own.current);
    },
    onBlur: flush,
  });
  const active = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      bold: now.isActive('bold'),
      italic: now.isActive('italic'),
      list: now.isActive('bulletList'),
      link: now.getAttributes('link').href as string | undefined,
      chosen: !now.state.selection.empty,
    }),
  });
  useEffect(() => {
    // Undone, or written in another window: what is shown is what is kept.
    if (text === own.current) return;
    own.current = text;
    editor.commands.setContent(docOfPassage(JSON.parse(text) as Passage), { emitUpdate: false });
  }, [text, editor]);
  const act = () => editor.chain().focus();
  const problem = linking === null ? null : linkProblem(linking);
  const putLink = () => {
    if (linking === null || problem) return;
    const address = linking.trim();
    const range = act().extendMarkRange('link');
    (address === '' ? range.unsetLink() : range.setLink({ href: address })).run();
    setLinking(null);
  };
  return (
    <div>
      <div role="toolbar" aria-label={`Looks of ${label}`} className="mb-1 flex flex-wrap gap-1">
        <button
          type="button"
          className="chip"
          aria-pressed={active.bold}
          onClick={() => act().toggleBold().run()}
        >
          Strong
        </button>
        <button
          type="button"
          className="chip"
          aria-pressed={active.italic}
          onClick={() => act().toggleItalic().run()}
        >
          Stressed
        </button>
        <button
          type="button"
          className="chip"
          aria-pressed={active.list}
          onClick={() => act().toggleBulletList().run()}
        >
          List
        </button>
        <button
          type="button"
          className="chip"
          aria-pressed={active.link !== undefined}
          disabled={!active.chosen && active.link === undefined}
          onClick={() => setLinking(active.link ?? '')}
        >
          Link…
        </button>
      </div>
      {linking !== null && (
        <div className="mb-1 grid gap-1">
          <div className="flex gap-1">
            <input
              autoFocus
              className="field font-figure text-[12px]"
              aria-label="The link leads to"
              placeholder="../shop/ or https://…; empty for none"
              aria-invalid={problem !== null || undefined}
              value={linking}
              onChange={(event) => setLinking(event.target.value)}
              onKeyDown={(event) => {
                if (event.key === 'Enter') putLink();
                if (event.key === 'Escape') setLinking(null);
              }}
            />
            <button type="button" className="chip" onClick={putLink}>
              Put it
            </button>
          </div>
          {problem && (
            <p role="alert" className="text-[12px] text-rust">
              {problem}
            </p>
          )}
        </div>
      )}
      <EditorContent editor={editor} />
    </div>
  );
}
