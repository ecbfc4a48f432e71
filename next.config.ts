import type { NextConfig } from 'next';
import { dirname } from 'node:path';
import { fileURLToPath } from 'node:url';

const config: NextConfig = {
  // A page that draws the voice is drawn anew only where something changed.
  reactCompiler: true,
  turbopack: { root: dirname(fileURLToPath(import.meta.url)) },
  serverExternalPackages: ['pg', 'pg-boss'],
  poweredByHeader: false,
  redirects: async () => [
    // Some browsers ask for it whatever the page says.
    { source: '/favicon.ico', destination: '/icon.svg', permanent: false },
    { source: '/singers/:singerId', destination: '/singers/:singerId/map', permanent: false },
  ],
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'X-Frame-Options', value: 'DENY' },
        // Addresses may hold a singer's key: other sites learn none.
        { key: 'Referrer-Policy', value: 'same-origin' },
        { key: 'Permissions-Policy', value: 'microphone=(self), midi=(self), camera=(self), geolocation=(), payment=()' },
        { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
        { key: 'Cross-Origin-Resource-Policy', value: 'same-origin' },
      ],
    },
  ],
  // Tests build aside, so that a served copy is left alone.
  distDir: process.env.WENDEL_BUILD ?? '.next',
  // A clone is type-checked by npm test; a start should not wait for it.
  typescript: { ignoreBuildErrors: true },
};

export default config;
