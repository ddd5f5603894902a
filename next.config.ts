import type { NextConfig } from 'next';

const config: NextConfig = {
  // These open files of their own (WASM, native code), so they are loaded as they are, not bundled.
  serverExternalPackages: [
    '@electric-sql/pglite',
    'sharp',
    'fs-native-extensions',
    'pino',
    'file-type',
    'mediabunny',
    'piscina',
    '@napi-rs/canvas',
    '@node-rs/argon2',
  ],
  sassOptions: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
  // `npm run check` checks types on its own; a start for use need not wait for it.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  // Without a connection a page stays, and what is asked for comes when there is one again.
  experimental: { optimizePackageImports: ['react-bootstrap', 'lucide-react'], useOffline: true },
  // What every answer says of itself; pages (`proxy.ts`) and routes (`app/server/door.ts`) say more.
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'x-content-type-options', value: 'nosniff' },
        { key: 'referrer-policy', value: 'no-referrer' },
      ],
    },
    { source: '/_next/:path*', headers: [{ key: 'content-security-policy', value: "frame-ancestors 'none'" }] },
  ],
};

export default config;
