import { defineConfig, type BuildOptions, type Plugin } from 'vite'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'

/** Text files are shipped compressed only: the program serves them as they are and stays small. */
function packed(): Plugin {
  return {
    name: 'packed',
    apply: 'build',
    closeBundle() {
      const files = readdirSync('dist', { recursive: true, encoding: 'utf8' })
      for (const file of files.filter((name) => /\.(html|js|css|svg)$/.test(name))) {
        const path = join('dist', file)
        const plain = readFileSync(path)
        writeFileSync(`${path}.gz`, gzipSync(plain, { level: 9 }))
        writeFileSync(`${path}.br`, brotliCompressSync(plain))
        rmSync(path)
      }
    },
  }
}

/** Libraries mark their modules for servers that render; there is none here. */
const onwarn: NonNullable<BuildOptions['rollupOptions']>['onwarn'] = (warning, warn) => {
  if (warning.code !== 'MODULE_LEVEL_DIRECTIVE') warn(warning)
}

export default defineConfig({
  esbuild: { jsx: 'automatic' },
  build: { target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 900, rollupOptions: { onwarn } },
  plugins: [packed()],
  server: { proxy: { '/api': 'http://127.0.0.1:8650' } },
})
