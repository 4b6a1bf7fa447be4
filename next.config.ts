import type { NextConfig } from 'next';

const config: NextConfig = {
  reactStrictMode: true,
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
