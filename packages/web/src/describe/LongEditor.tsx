// The editor of a long description: paragraphs and tables. It comes when one is opened.
import { blocksOf } from '@dusky-otter/core/words';
import Document from '@tiptap/extension-document';
import Paragraph from '@tiptap/extension-paragraph';
import Text from '@tiptap/extension-text';
import { TableKit } from '@tiptap/extension-table';
import { UndoRedo } from '@tiptap/extensions';
import { EditorContent, useEditor, useEditorState } from '@tiptap/react';
import { useEffect, useRef } from 'react';
import type { Draft } from '../screen/draft.ts';
import { docOf, hasTypedTable, textOfDoc } from './description-doc.ts';

interface Props {
  draft: Draft;
  language: string;
  label: string;
  /** Keys that leave the field. */
  onKey: (event: KeyboardEvent) => boolean;
}

const EXTENSIONS = [Document, Paragraph, Text, UndoRedo, TableKit.configure({ table: { resizable: false } })];

export function LongEditor({ draft, language, label, onKey }: Props) {
  const own = useRef(draft.text);
  const { change, flush } = draft;
  const leaves = useRef(onKey);
  useEffect(() => {
    leaves.current = onKey;
  });
  const pasteBlocks = useRef<(text: string) => boolean>(() => false);
  const editor = useEditor({
    extensions: EXTENSIONS,
    content: docOf(draft.text),
    editorProps: {
      attributes: {
        role: 'textbox',
        'aria-multiline': 'true',
        'aria-label': label,
        lang: language,
        spellcheck: 'true',
        class: 'field long-text min-h-[88px] text-[15px] leading-snug',
      },
      handleKeyDown: (_, event) => leaves.current(event),
      handlePaste: (_, event) => {
        const pasted = event.clipboardData?.getData('text/plain') ?? '';
        if (!blocksOf(pasted).some(({ kind }) => kind === 'table')) return false;
        // Spreadsheets and web pages bring their tables as HTML, which the editor reads by itself.
        if (event.clipboardData?.types.includes('text/html')) return false;
        return pasteBlocks.current(pasted);
      },
    },
    onUpdate: ({ editor: now }) => {
      own.current = textOfDoc(now.getJSON());
      change(own.current);
    },
    onBlur: ({ editor: now }) => {
      const doc = now.getJSON();
      // A table that was typed with bars is shown as one from now on.
      if (hasTypedTable(doc)) now.commands.setContent(docOf(textOfDoc(doc)), { emitUpdate: false });
      flush();
    },
  });
  useEffect(() => {
    pasteBlocks.current = (text) => editor.commands.insertContent(docOf(text).content ?? []);
  }, [editor]);
  const inTable = useEditorState({ editor, selector: ({ editor: now }) => now.isActive('table') });
  useEffect(() => {
    // Undone, or written in another window: what is shown is what is kept.
    if (draft.text === own.current) return;
    own.current = draft.text;
    editor.commands.setContent(docOf(draft.text), { emitUpdate: false });
  }, [draft.text, editor]);
  const act = () => editor.chain().focus();
  const BUTTONS = inTable
    ? [
        { name: 'Row below', act: () => act().addRowAfter().run() },
        { name: 'Column behind', act: () => act().addColumnAfter().run() },
        { name: 'Take row out', act: () => act().deleteRow().run() },
        { name: 'Take column out', act: () => act().deleteColumn().run() },
        { name: 'Take table out', act: () => act().deleteTable().run() },
      ]
    : [
        {
          name: 'Put in a table',
          act: () => act().insertTable({ rows: 3, cols: 2, withHeaderRow: true }).run(),
        },
      ];
  return (
    <div>
      <EditorContent editor={editor} />
      <div className="mt-1 flex flex-wrap gap-1">
        {BUTTONS.map(({ name, act: press }) => (
          <button key={name} type="button" className="chip h-[24px]" onClick={press}>
            {name}
          </button>
        ))}
      </div>
    </div>
  );
}
