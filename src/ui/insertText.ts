/** Puts a text where the caret stands in a field, in place of what is marked there; its change handler runs as when one types. */
export function insertText(field: HTMLElement, text: string): void {
  field.focus();
  if (field instanceof HTMLTextAreaElement || field instanceof HTMLInputElement) {
    const [start, end] = [field.selectionStart ?? field.value.length, field.selectionEnd ?? field.value.length];
    const put = apart(text, field.value.slice(0, start), field.value.slice(end));
    field.setRangeText(put, start, end, 'end');
    field.dispatchEvent(new InputEvent('input', { bubbles: true, inputType: 'insertText', data: put }));
  } else document.execCommand('insertText', false, text);
}

/** A text of words with the spaces that keep it apart from its neighbours; emoji stand as close as they are put. */
function apart(text: string, before: string, after: string): string {
  if (/^\p{Extended_Pictographic}/u.test(text)) return text;
  return `${/\S$/u.test(before) ? ' ' : ''}${text}${/^[\p{L}\p{N}#@]/u.test(after) ? ' ' : ''}`;
}
