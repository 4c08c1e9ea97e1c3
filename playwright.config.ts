import { defineConfig } from '@playwright/test'
import { CHROMIUM_FLAGS, chromiumPath } from './e2e/support/chromium'

const PORT = 4390
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
    launchOptions: { executablePath: chromiumPath(), args: CHROMIUM_FLAGS },
    trace: 'off',
  },
  webServer: {
    command: `node node_modules/tsx/dist/cli.mjs server/src/main.ts --web web/dist --demo demo --database :memory: --port ${PORT}`,
    url: `http://127.0.0.1:${PORT}/`,
    env: { LOG_LEVEL: 'warn' },
    reuseExistingServer: false,
  },
})
