/** How long whoever holds the port may take to say what it is, in milliseconds. */
const ANSWERS_WITHIN_MS = 3_000;

/**
 * Ends made-up networks that outlived the Bimlo which started them. To be called by whoever has the data folder alone, so that
 * nobody uses them.
 *
 * @param url where they would answer
 * @param folder where they would keep what they took
 */
export async function endLeftOver(url: string, folder: string): Promise<void> {
  try {
    const found = (await (await fetch(url, { signal: AbortSignal.timeout(ANSWERS_WITHIN_MS) })).json()) as {
      storeFolder?: string;
    };
    if (found.storeFolder !== folder) return;
    await fetch(`${url}/stop`, { method: 'POST' });
    await gone(url);
    console.log('Ended the made-up networks of an earlier start.');
  } catch (error) {
    // fetch throws a TypeError when nothing listens, which is how it should be; JSON of another program is a SyntaxError. What
    // listens and says nothing is another program, too: that the port is taken is told then.
    const isOther = error instanceof DOMException && error.name === 'TimeoutError';
    if (!(error instanceof TypeError || error instanceof SyntaxError || isOther)) throw error;
  }
}

/** How often it is asked whether something still answers, in milliseconds, and how many times. */
const ASK = { everyMs: 50, times: 100 };

async function gone(url: string): Promise<void> {
  for (let asked = 0; asked < ASK.times; asked++) {
    try {
      await fetch(url);
    } catch {
      // Nothing answers any more.
      return;
    }
    await new Promise((resolve) => setTimeout(resolve, ASK.everyMs));
  }
}
