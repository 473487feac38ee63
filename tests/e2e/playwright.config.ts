import { defineConfig } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Two lanes of tests have two servers. */
const port = Number(process.env.HARDYBENCH_E2E_PORT ?? 5291);
// Playwright reads this file in several processes; they must agree on one data folder.
process.env.HARDYBENCH_E2E_DATA ??= mkdtempSync(join(tmpdir(), 'hardybench-e2e-'));

export default defineConfig({
  testDir: '.',
  outputDir: `results/${port}`,
  // Far more than any step takes: a busy machine is slow, and no test asserts a time.
  timeout: 900_000,
  expect: { timeout: 240_000 },
  workers: 1,
  reporter: 'list',
  use: {
    baseURL: `http://127.0.0.1:${port}`,
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync']
    }
  },
  webServer: {
    command: `dotnet ../../src/HardyBench.Cli/bin/Release/program/hardybench.dll serve --demo --pack small --port ${port} --data ${process.env.HARDYBENCH_E2E_DATA}`,
    url: `http://127.0.0.1:${port}/api/runs`,
    timeout: 240_000
  }
});
