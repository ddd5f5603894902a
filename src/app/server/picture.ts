/** Answers with a picture that was made for this request: shown in place, or saved under its name. Nothing in it is ever run. */
export const answerPicture = (
  bytes: Uint8Array,
  mime: string,
  fileName: string,
  how: 'inline' | 'attachment',
): Response =>
  new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': mime,
      'content-disposition': `${how}; filename*=UTF-8''${encodeURIComponent(fileName)}`,
      'cache-control': 'private, no-cache',
      'content-security-policy': "default-src 'none'; sandbox",
      'x-content-type-options': 'nosniff',
    },
  });
