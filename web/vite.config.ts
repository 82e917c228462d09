import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [vue()],
  server: { proxy: { '/api': 'http://127.0.0.1:8765' } },
  build: {
    // The chart library and the component library make two large chunks of
    // their own; they are loaded once and from the same machine.
    chunkSizeWarningLimit: 1200,
  },
  test: { environment: 'node', include: ['src/**/*.test.ts'] },
})
