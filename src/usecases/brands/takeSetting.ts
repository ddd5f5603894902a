import { advanceSetting, type Setting } from '@/data/brands/settingVersions';
import { refused, type Doing } from '../useCase';

/**
 * Takes a setting to be changed: refused where the request does not say which version it was based on, or where somebody
 * changed it since. Every change of a setting that is there comes through here.
 */
export async function takeSetting(act: Doing, setting: Setting, key: string): Promise<void> {
  if (act.seen === undefined)
    refused({
      code: 'noVersion',
      message: 'The change does not say which version it is based on. Send it as If-Match.',
    });
  if (!(await advanceSetting(act.tx, setting, key, act.seen)))
    refused({
      code: 'stale',
      message: `Somebody else saved this ${setting} after you opened it, so nothing was saved. Save again to replace theirs with yours, or look at theirs.`,
    });
}
