import type { NextConfig } from 'next';

const config: NextConfig = {
  // These open files of their own (WASM, native code), so they are loaded as they are, not bundled.
  serverExternalPackages: ['@electric-sql/pglite', 'sharp', 'fs-native-extensions', 'pino', 'file-type', 'mediabunny'],
  sassOptions: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
  // `npm run check` checks types on its own; a start for use need not wait for it.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  reactStrictMode: true,
  devIndicators: false,
  experimental: {
    optimizePackageImports: ['react-bootstrap', 'lucide-react'],
    // Room for the largest picture that is taken in; the routes state their own limits.
    proxyClientMaxBodySize: '32mb',
  },
};

export default config;
