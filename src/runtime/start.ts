import { bimlo } from './bimlo';

/** Opens Bimlo, or ends the process with a message when the data folder cannot be had. */
export async function startOrExit(): Promise<void> {
  try {
    await bimlo();
  } catch (error) {
    console.error(error instanceof Error ? error.message : error);
    process.exit(1);
  }
}
