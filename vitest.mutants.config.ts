import { defineConfig } from 'vitest/config'

/** The tests that changed code is tried by: those of one folder of core, or the files that are named. */
export default defineConfig({
  test: {
    include: (process.env['MUTANT_TESTS'] ?? 'core/test/**/*.test.ts').split(','),
    isolate: false,
    testTimeout: 60_000,
  },
})
