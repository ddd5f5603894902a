/** Lines that only a program or a shell has. */
const CODE_LINE =
  /[;{}]\s*$|^\s*(?:\$ |>>> |#!|#include\b|import [\w{*]|from \S+ import\b|(?:async )?function\b|(?:const|let|var) \w+ ?=|def \w+\(|class \w+[:({]|return\b.*[;)]$|<\/?[a-z][\w-]*(?: [\w-]+=|>)|\w+ ?\([^)]*\)\s*[;{]|[\w.]+ ?[+-]?= ?\S+$)|=>|::|&&|\|\||->\s*\w+\(/;
/** Marks that prose has few of. */
const CODE_MARK = /[{}<>=;$\\|&*/_[\]()#@~^`]/g;
/** Share of a stretch's characters from which such marks make it code. */
const MARKS = 0.12;

/** Whether a stretch of lines is code rather than prose: most of its lines end or begin as those of a program, or it is full of its marks. */
export function looksLikeCode(text: string): boolean {
  const lines = text.split('\n').filter((line) => line.trim() !== '');
  if (lines.length === 0) return false;
  const bare = text.replace(/\s+/g, '').replace(/\bhttps?:\S+/g, '');
  const marks = bare.match(CODE_MARK)?.length ?? 0;
  const isOf = lines.filter((line) => CODE_LINE.test(line)).length;
  return isOf * 2 > lines.length || (marks > 6 && marks > bare.length * MARKS && isOf > 0);
}
