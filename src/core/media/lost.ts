/** What is said of a picture or video whose file is not in the media folder any more. */
export const lostFile = (fileName: string): string =>
  `The file of “${fileName}” is not in the media folder any more. Remove it and add it again.`;
