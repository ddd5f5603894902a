export function bundleThreads(folder?: string): Promise<void>;
