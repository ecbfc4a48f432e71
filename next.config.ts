import type { NextConfig } from 'next';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';

const config: NextConfig = {
  turbopack: { root: dirname(fileURLToPath(import.meta.url)) },
  serverExternalPackages: ['pg', 'pg-boss'],
  poweredByHeader: false,
  // Some browsers ask for it whatever the page says.
  redirects: async () => [{ source: '/favicon.ico', destination: '/icon.svg', permanent: false }],
  // Tests build aside, so that a served copy is left alone.
  distDir: process.env.WENDEL_BUILD ?? '.next',
  // A clone is type-checked by npm test; a start should not wait for it.
  typescript: { ignoreBuildErrors: true },
};

export default config;
