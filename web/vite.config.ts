import vue from '@vitejs/plugin-vue'
import { fileURLToPath } from 'node:url'
import { ElementPlusResolver } from 'unplugin-vue-components/resolvers'
import Components from 'unplugin-vue-components/vite'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  plugins: [
    vue(),
    Components({
      dirs: [],
      dts: 'src/components.d.ts',
      resolvers: [ElementPlusResolver({ importStyle: 'css' })],
    }),
  ],
  resolve: { alias: { '@': fileURLToPath(new URL('./src', import.meta.url)) } },
  build: { outDir: 'target/classes/static', emptyOutDir: true, chunkSizeWarningLimit: 900 },
  // The application takes requests from its own pages only, so they come under its own address.
  server: {
    proxy: {
      '/api': {
        target: 'http://127.0.0.1:8470',
        changeOrigin: true,
        headers: { Origin: 'http://127.0.0.1:8470' },
      },
    },
  },
  test: {
    environment: 'jsdom',
    server: { deps: { inline: ['element-plus'] } },
    isolate: false,
    setupFiles: ['src/test/fresh.ts'],
    include: ['src/**/*.spec.ts'],
    reporters: ['default'],
    // A machine that is busy with other work may take ten times as long for a screen; what hangs is still told.
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
})
