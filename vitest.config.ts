import { defineConfig } from 'vitest/config'
import vue from '@vitejs/plugin-vue'

export default defineConfig({
  plugins: [vue()],
  test: {
    include: ['{core,kernel,server,web,cli}/test/**/*.test.ts'],
    exclude: ['e2e/**', '**/node_modules/**'],
    testTimeout: 60_000,
  },
})
