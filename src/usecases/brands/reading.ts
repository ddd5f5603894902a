/** Brands and what belongs to them as pages read it. Plain queries, handed on as they are. */

export { type BrandAsset } from '@/data/brands/brandAssets';
export { type Brand, listBrands, maybeBrandById, maybeBrandBySlug } from '@/data/brands/brands';
export { listChannels, listChannelsOf, listRuleSheets } from '@/data/brands/channels';
export { fanOutKey, listSettingVersions, prepSheetKey } from '@/data/brands/settingVersions';
export { listCampaigns, listPillars } from '@/data/brands/themes';
