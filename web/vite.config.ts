import { readdirSync, readFileSync } from 'node:fs'
import { constants } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import elementStyles from 'unplugin-element-plus/vite'
import { compression, defineAlgorithm } from 'vite-plugin-compression2'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

/** Lists the files of the program, for the service worker to keep. */
const listOfFiles: Plugin = {
  name: 'list-of-files',
  generateBundle(_options, bundle) {
    const files = Object.keys(bundle).filter((f) => f !== 'index.html' && !/\/sw-/.test(f))
    this.emitFile({ type: 'asset', fileName: 'files.json', source: JSON.stringify(files) })
  },
}

const tests = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .filter((f) => f.endsWith('.test.ts'))
  .map((f) => `src/${f}`)
/** Tests that put something else in a module's place, and so need all modules anew. */
const alone = tests.filter((f) => readFileSync(f, 'utf8').includes('vi.mock('))

export default defineConfig({
  plugins: [
    vue(),
    // Of the component library's styles those of the components that are used; tests draw none.
    process.env.VITEST ? undefined : elementStyles({}),
    listOfFiles,
    // Compressed once here, so that the server need not for each who asks. A tenth less by
    // brotli's best would take twelve times as long, most of a build.
    compression({
      algorithms: [
        defineAlgorithm('brotliCompress', { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }),
        defineAlgorithm('gzip'),
      ],
      include: /\.(js|css|html|svg|json|wasm)$/,
      threshold: 512,
    }),
  ],
  server: { proxy: { '/api': 'http://127.0.0.1:8765' } },
  build: {
    reportCompressedSize: false,
    // The chart library and the component library make two large chunks of
    // their own; they are loaded once and from the same machine.
    chunkSizeWarningLimit: 1200,
    // What the PDF library would load to draw web pages; here it draws drawings.
    rollupOptions: {
      external: ['html2canvas', 'dompurify', 'canvg'],
      checks: { pluginTimings: false },
    },
  },
  test: {
    environment: 'node',
    // A machine may be busy, and a test that passes does not wait.
    testTimeout: 90_000,
    hookTimeout: 90_000,
    // What a test sets it sets back, so that all share the modules once they are loaded: a
    // third of the time.
    projects: [
      {
        extends: true,
        test: {
          name: 'together',
          isolate: false,
          include: tests.filter((f) => !alone.includes(f)),
        },
      },
      { extends: true, test: { name: 'alone', include: alone } },
    ],
  },
})
