import type { NextConfig } from 'next';

/** What goes along with every answer; what a page may load is told by the page itself, in src/proxy.ts. */
const EVERYWHERE = [
  { key: 'X-Content-Type-Options', value: 'nosniff' },
  // Nothing to other sites; our own requests keep their Origin, which a stricter policy takes from some of them.
  { key: 'Referrer-Policy', value: 'same-origin' },
  {
    key: 'Permissions-Policy',
    value: 'camera=(), microphone=(), geolocation=(), payment=(), usb=(), display-capture=(), interest-cohort=()',
  },
  { key: 'Cross-Origin-Opener-Policy', value: 'same-origin' },
  { key: 'Cross-Origin-Resource-Policy', value: 'same-origin' },
];

/** Of answers that are no page: should a browser show one as such, nothing in it runs or loads. */
const ANSWER_POLICY = "default-src 'none'; sandbox; frame-ancestors 'none'";

const config: NextConfig = {
  poweredByHeader: false,
  reactStrictMode: true,
  // Native or dynamic parts that a bundle would break.
  serverExternalPackages: ['knex', 'mysql2', 'opentype.js', 'pino', 'sharp', '@tus/server', '@tus/file-store'],
  // Types and lint are checks of their own, in npm test.
  typescript: { ignoreBuildErrors: true },
  images: { unoptimized: true },
  devIndicators: false,
  headers: async () => [
    { source: '/:path*', headers: EVERYWHERE },
    { source: '/api/:path*', headers: [{ key: 'Content-Security-Policy', value: ANSWER_POLICY }] },
  ],
};

export default config;
