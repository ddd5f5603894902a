import type { PostSheet } from '@/core/posts/sheet';
import type { PostEditor } from '../../../sheet/usePostEditor';

/** What stands in a column: the editor of its post, for what is done to several at once. */
export interface OpenSibling {
  sheet: PostSheet;
  editor: PostEditor;
}
