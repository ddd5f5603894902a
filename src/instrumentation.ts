/** Called once when the server starts: opens the data folder and starts delivering, or refuses to start. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME === 'nodejs') {
    const { startOrExit } = await import('./runtime/start');
    await startOrExit();
  }
}
