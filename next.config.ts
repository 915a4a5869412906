import type { NextConfig } from 'next';

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  // Native or dynamic parts that a bundle would break.
  serverExternalPackages: ['knex', 'mysql2', 'opentype.js', 'pino', 'sharp', '@tus/server', '@tus/file-store'],
  // Types and lint are checks of their own, in npm test.
  typescript: { ignoreBuildErrors: true },
  images: { unoptimized: true },
  devIndicators: false,
};

export default config;
