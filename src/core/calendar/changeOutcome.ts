/** What came of a change. */
export interface ChangeOutcome {
  /** To undo it by; null when nothing was changed. */
  changeId: string | null;
  /** What was done and to how many: “Moved 3 posts”. */
  label: string;
  /** Posts that were changed or made. */
  postIds: string[];
  /** Posts that were not, and why. Those that are not theirs are named without a title; of what is no post the id is null. */
  refused: { postId: string | null; title: string; message: string }[];
  /** What else happened to posts that were changed. */
  notes: { postId: string; title: string; message: string }[];
}
