'use client';

import { Markdown } from '@tiptap/markdown';
import { EditorContent, useEditor, useEditorState, type Editor } from '@tiptap/react';
import StarterKit from '@tiptap/starter-kit';
import { Bold, Heading2, Italic, List, ListOrdered, Quote } from 'lucide-react';
import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { isQuick } from '@/core/reading/markdown';
import { WordButton } from '@/ui/WordButton';
import { richDoc } from './richDoc';

/** What is said instead of the editor, where a text would take long to be shown in it. */
const INTRICATE = 'Shown as Markdown: this text is too long, or has too many marks in it, to be shown as it reads.';

/** The text as the editor takes it; null where that takes long. */
const quickDoc = (markdown: string) => (isQuick(markdown) ? richDoc(markdown) : null);

/** A long text with headings, lists and emphasis, kept as Markdown; it can be written as Markdown too. */
export function RichText({
  label,
  field,
  value,
  onType,
  onStep,
  disabled,
  describedBy,
}: {
  label: string;
  /** Which text it is, for what writes into it. */
  field: string;
  value: string;
  onType: (markdown: string) => void;
  /** Goes back or forward where the editor itself knows no step any more, as after a reload. */
  onStep: (way: 'undo' | 'redo') => boolean;
  disabled: boolean;
  describedBy: string;
}) {
  const [wantsPlain, setPlain] = useState(false);
  const isIntricate = useMemo(() => !isQuick(value), [value]);
  const isPlain = wantsPlain || isIntricate;
  const type = useRef(onType);
  useEffect(() => {
    type.current = onType;
  });
  // What the editor last gave or took, so that a text that changed elsewhere is told from its own.
  const known = useRef(value);
  const editor = useEditor({
    extensions: [StarterKit.configure({ underline: false }), Markdown],
    content: quickDoc(value),
    editable: !disabled,
    immediatelyRender: true,
    editorProps: {
      attributes: {
        'aria-label': label,
        'aria-describedby': describedBy,
        role: 'textbox',
        'aria-multiline': 'true',
        'data-field': field,
        class: 'rich-words',
      },
    },
    onUpdate: ({ editor: changed }) => {
      // The editor keeps an empty line at the end to write on.
      known.current = changed.getMarkdown().trimEnd();
      type.current(known.current);
    },
  });

  useEffect(() => {
    if (value === known.current) return;
    known.current = value;
    const doc = quickDoc(value);
    if (doc) editor.commands.setContent(doc, { emitUpdate: false });
  }, [editor, value]);
  useEffect(() => editor.setEditable(!disabled, false), [editor, disabled]);

  return (
    <div
      className="rich-text"
      onKeyDown={(event) => {
        if (isPlain || !(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z') return;
        const way = event.shiftKey ? 'redo' : 'undo';
        if (editor.can()[way]()) return;
        event.preventDefault();
        onStep(way);
      }}
    >
      {!disabled && (
        <div className="rich-tools" role="toolbar" aria-label={`Form of ${label}`}>
          {!isPlain && <Tools editor={editor} />}
          {isIntricate ? (
            <span className="soft small-text">{INTRICATE}</span>
          ) : (
            <WordButton aria-pressed={isPlain} onClick={() => setPlain(!isPlain)}>
              {isPlain ? 'as it reads' : 'as Markdown'}
            </WordButton>
          )}
        </div>
      )}
      {isPlain ? (
        <textarea
          dir="auto"
          aria-label={label}
          data-field={field}
          aria-describedby={describedBy}
          value={value}
          disabled={disabled}
          rows={12}
          onChange={(event) => onType(event.target.value)}
        />
      ) : (
        <EditorContent editor={editor} />
      )}
    </div>
  );
}

function Tools({ editor }: { editor: Editor }) {
  const on = useEditorState({
    editor,
    selector: ({ editor: current }) => ({
      bold: current.isActive('bold'),
      italic: current.isActive('italic'),
      heading: current.isActive('heading'),
      bulletList: current.isActive('bulletList'),
      orderedList: current.isActive('orderedList'),
      blockquote: current.isActive('blockquote'),
    }),
  });
  const tool = (name: string, pressed: boolean, icon: ReactNode, run: () => void) => (
    <button type="button" aria-label={name} title={name} aria-pressed={pressed} onClick={run}>
      {icon}
    </button>
  );
  const chain = () => editor.chain().focus();
  return (
    <>
      {tool('Heading', on.heading, <Heading2 size={15} />, () => chain().toggleHeading({ level: 2 }).run())}
      {tool('Bold', on.bold, <Bold size={15} />, () => chain().toggleBold().run())}
      {tool('Italic', on.italic, <Italic size={15} />, () => chain().toggleItalic().run())}
      {tool('List', on.bulletList, <List size={15} />, () => chain().toggleBulletList().run())}
      {tool('Numbered list', on.orderedList, <ListOrdered size={15} />, () => chain().toggleOrderedList().run())}
      {tool('Quotation', on.blockquote, <Quote size={15} />, () => chain().toggleBlockquote().run())}
    </>
  );
}
