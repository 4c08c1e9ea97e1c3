import { defineConfig } from '@playwright/test'
import { CHROMIUM_FLAGS, chromiumPath } from './e2e/support/chromium'

const PORT = 4390
const launched = (...more: readonly string[]) => ({
  executablePath: chromiumPath(),
  args: [...CHROMIUM_FLAGS, ...more],
})
const report = process.env['LATHICA_BROWSER_REPORT']

export default defineConfig({
  testDir: 'e2e',
  workers: 1,
  // What is waited for comes at once where a machine is free; a busy one is given the time.
  timeout: 240_000,
  expect: { timeout: 45_000 },
  forbidOnly: process.env['CI'] !== undefined,
  reporter: report === undefined ? 'list' : [['list'], ['json', { outputFile: report }]],
  use: {
    baseURL: `http://127.0.0.1:${PORT}`,
    viewport: { width: 1280, height: 800 },
    trace: 'off',
  },
  // The solid is drawn where a walk looks at it: without a graphics card that takes a quarter of the time of the others.
  projects: [
    {
      ...{ name: 'plain', grepInvert: /@solid/ },
      use: {
        launchOptions: launched('--disable-3d-apis'),
        // Windows that are still opening are not clicked into. The other walks see them move.
        contextOptions: { reducedMotion: 'reduce' },
      },
    },
    { name: 'solid', grep: /@solid/, use: { launchOptions: launched() } },
  ],
  webServer: {
    command: `node node_modules/tsx/dist/cli.mjs server/src/main.ts --web web/dist --demo demo --database :memory: --port ${PORT}`,
    url: `http://127.0.0.1:${PORT}/`,
    env: { LOG_LEVEL: 'warn' },
    reuseExistingServer: false,
  },
})
