import { openDoor } from '@/app/server/door';
import { nothingThere } from '@/app/server/request';

/** A picture as the made-up networks hold it. */
export const GET = openDoor<{ sha: string }>(async (_request, { params }, { app }) => {
  const { sha } = await params;
  if (!/^[0-9a-f]{64}$/.test(sha)) return nothingThere('picture');
  const { networkUrl } = app;
  const held = await fetch(`${networkUrl}/pictures/${sha}`).catch((error: unknown) => {
    // fetch throws a TypeError when nothing answers there.
    if (error instanceof TypeError) return null;
    throw error;
  });
  if (!held?.ok) return nothingThere('picture');
  return new Response(held.body, {
    headers: {
      'content-type': 'image/*',
      'cache-control': 'private, max-age=31536000, immutable',
      'content-security-policy': "default-src 'none'; sandbox",
    },
  });
});
