// @vitest-environment jsdom
import { Editor } from '@tiptap/core';
import { Markdown } from '@tiptap/markdown';
import StarterKit from '@tiptap/starter-kit';
import { describe, expect, it } from 'vitest';
import { richDoc } from './richDoc';

/** A text after it was opened in the editor and kept again. */
function again(markdown: string): string {
  const editor = new Editor({
    extensions: [StarterKit.configure({ underline: false }), Markdown],
    content: richDoc(markdown),
  });
  const kept = editor.getMarkdown().trimEnd();
  editor.destroy();
  return kept;
}

describe('a text that is opened in the editor', () => {
  it.each([
    ['headings and paragraphs', '# Rings\n\nThey vanish.\n\n## Why\n\nThe planet tips.'],
    ['emphasis', 'They **vanish** and *come back*, ~~never~~ `soon`, as [the log](https://a.example/b_c) says.'],
    ['lists in lists', '- one\n  - a\n  - b\n- two'],
    ['a numbered list that begins later', '3. Look\n4. Wait'],
    ['a quotation', '> No ring,\n> no ring.'],
    ['code', '```js\nlet a = 1;\n```'],
    ['a rule', 'one\n\n---\n\ntwo'],
    ['nothing', ''],
  ])('comes out of it as it went in: %s', (_name, markdown) => expect(again(markdown)).toBe(markdown));

  it.each([
    ['a picture', 'before ![a dome](x.png) after'],
    ['a table', '| a | b |\n| - | - |\n| 1 | 2 |'],
    ['HTML', 'a <kbd>b</kbd> c'],
    ['a reference', '[the log][1]\n\n[1]: https://a.example'],
  ])('keeps what the editor has no form for: %s', (_name, markdown) => {
    for (const word of markdown.match(/[a-z0-9]+/g)!) expect(again(markdown)).toContain(word);
  });

  it('is none where it is nested too deeply', () => expect(richDoc('> '.repeat(200))).toBeNull());
});
