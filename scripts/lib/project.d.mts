export const NETWORKS: Record<'built' | 'sources', readonly string[]>;
