import vue from '@vitejs/plugin-vue'
import elementStyles from 'unplugin-element-plus/vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [
    vue(),
    // Of the component library's styles those of the components that are used.
    elementStyles({}),
    // Compressed once here, so that the server need not for each who asks.
    compression({
      algorithms: [defineAlgorithm('brotliCompress'), defineAlgorithm('gzip')],
      include: /\.(js|css|html|svg|json|wasm)$/,
      threshold: 512,
    }),
  ],
  server: { proxy: { '/api': 'http://127.0.0.1:8765' } },
  build: {
    // The chart library and the component library make two large chunks of
    // their own; they are loaded once and from the same machine.
    chunkSizeWarningLimit: 1200,
  },
  test: { environment: 'node', include: ['src/**/*.test.ts'] },
})
