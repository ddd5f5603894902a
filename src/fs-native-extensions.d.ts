declare module 'fs-native-extensions' {
  /** Locks a file for this process without waiting; false when another process holds it. */
  export function tryLock(fd: number, options?: { exclusive?: boolean }): boolean;
}
