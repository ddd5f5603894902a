import { closeSync, fsyncSync, openSync } from 'node:fs';
import { PGlite } from '@electric-sql/pglite';
import { NodeFS } from '@electric-sql/pglite/nodefs';
import { PARSERS } from './parsers.mjs';

/**
 * The file layer of PGlite, which by itself never lets the system write to the disk: what was committed lay in the system's
 * memory alone. With this, a sync that PostgreSQL asks for is one.
 */
class SyncedNodeFS extends NodeFS {
  async init(pg, options) {
    const sync = ({ NODEFS }) => {
      NODEFS.stream_ops.fsync = ({ nfd, node }) => {
        if (nfd !== undefined) fsyncSync(nfd);
        else syncFolder(NODEFS.realPath(node));
        return 0;
      };
    };
    return super.init(pg, { ...options, preRun: [...(options.preRun ?? []), sync] });
  }
}

function syncFolder(path) {
  const folder = openSync(path, 'r');
  try {
    fsyncSync(folder);
  } finally {
    closeSync(folder);
  }
}

/** PGlite's own parameters without the one that turns syncing off. WASM has only one of PostgreSQL's ways to sync its log. */
const START = [...PGlite.defaultStartParams.filter((word) => word !== '-F'), '-c', 'wal_sync_method=fsync'];

/** Opens the database of a folder. What it has answered as committed is on the disk. Its session runs in UTC. */
export async function openOnDisk(folder) {
  const lite = await PGlite.create({ fs: new SyncedNodeFS(folder), parsers: PARSERS, startParams: START });
  await lite.exec("set time zone 'UTC'");
  return lite;
}
