import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { copyFileSync, readFileSync, readdirSync, writeFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { brotliCompressSync, constants, gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'

const root = dirname(fileURLToPath(import.meta.url))

/** Compressed once when it is built, not anew for every visitor. */
function precompressed(): Plugin {
  return {
    name: 'precompressed',
    apply: 'build',
    closeBundle() {
      const assets = join(root, 'dist', 'assets')
      // The kernel goes with its licence.
      const kernel = dirname(
        createRequire(import.meta.url).resolve('replicad-opencascadejs/package.json'),
      )
      copyFileSync(join(kernel, 'LICENSE'), join(assets, 'open-cascade-LICENSE.txt'))
      for (const name of readdirSync(assets).filter((n) => /\.(wasm|js|css)$/.test(n))) {
        const file = join(assets, name)
        const bytes = readFileSync(file)
        // The kernel is so large that more takes longer than it saves.
        const quality = name.endsWith('.wasm') ? 5 : 9
        const params = { [constants.BROTLI_PARAM_QUALITY]: quality }
        writeFileSync(`${file}.br`, brotliCompressSync(bytes, { params }))
        writeFileSync(`${file}.gz`, gzipSync(bytes))
      }
    },
  }
}

export default defineConfig({
  root,
  plugins: [vue(), precompressed()],
  optimizeDeps: { exclude: ['replicad-opencascadejs'] },
  build: { target: 'es2022', outDir: 'dist', chunkSizeWarningLimit: 900 },
  worker: { format: 'es' },
  server: {
    host: '127.0.0.1',
    // The API refuses foreign origins, so the development page passes as the server's own.
    proxy: {
      '/api': {
        target: 'http://127.0.0.1:4317',
        changeOrigin: true,
        headers: { origin: 'http://127.0.0.1:4317' },
      },
    },
  },
})
