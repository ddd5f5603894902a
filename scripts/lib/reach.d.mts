export type Reach = { hostname: string; isOnlyHere: boolean; hosts: string[]; hops: number };
export function reachOf(
  env: Record<string, string | undefined>,
  port: number,
  ownAddresses: readonly string[],
): Reach | { problem: string };
export function addressOf(forwarded: string | undefined, peer: string | undefined, hops: number): string;
