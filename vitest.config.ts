import { availableParallelism } from 'node:os'
import { defineConfig } from 'vitest/config'
import vue from '@vitejs/plugin-vue'

/** Tests of one folder. What only computes is loaded once for many of its files, which saves minutes. */
const project = (name: string, computes: boolean): object => ({
  extends: true,
  test: { name, include: [`${name}/test/**/*.test.ts`], isolate: !computes },
})

export default defineConfig({
  plugins: [vue()],
  test: {
    // Properties of thousands of sections take a while on a busy machine.
    testTimeout: 300_000,
    hookTimeout: 120_000,
    // All cores, unless other work runs beside it: Vitest by itself would leave one of two idle.
    maxWorkers: Number(process.env['LATHICA_WORKERS'] ?? availableParallelism()),
    projects: [
      project('core', true),
      project('kernel', true),
      project('server', false),
      project('web', false),
      project('cli', false),
    ],
  },
})
