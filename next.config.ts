import type { NextConfig } from 'next';

/**
 * The policy of the build's own files. A worker has the policy of the file that it is started from: it may load our
 * scripts and ask our address, and nothing else. (Pages have a nonce besides: see src/proxy.ts.)
 */
const dev = process.env.NODE_ENV === 'development';
const FILES = [
  "default-src 'none'",
  `script-src 'self'${dev ? " 'unsafe-eval'" : ''}`,
  "connect-src 'self'",
  "base-uri 'none'",
  "form-action 'none'",
  "frame-ancestors 'none'",
].join('; ');

const config: NextConfig = {
  reactStrictMode: true,
  headers: async () => [
    {
      source: '/:path*',
      headers: [
        { key: 'X-Content-Type-Options', value: 'nosniff' },
        { key: 'Referrer-Policy', value: 'no-referrer' },
      ],
    },
    { source: '/_next/static/:path*', headers: [{ key: 'Content-Security-Policy', value: FILES }] },
  ],
  poweredByHeader: false,
  // Types are a step of `npm test`; `npm run demo` on a fresh machine need not repeat it.
  typescript: { ignoreBuildErrors: true },
  // The two-command promise: a port left running by hand must never be rebuilt under its feet.
  distDir: process.env.TELLAN_DIST ?? '.next',
  experimental: { optimizePackageImports: ['@mantine/core', '@mantine/hooks', '@tabler/icons-react'] },
  // exceljs' Node entry pulls in file-system streams; the worker needs its browser bundle.
  turbopack: { resolveAlias: { exceljs: 'exceljs/dist/exceljs.min.js' } },
};

export default config;
