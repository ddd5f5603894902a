/** Files of a library that come at once; when fewer come, there are no more. */
export const LIBRARY_PAGE = 60;
