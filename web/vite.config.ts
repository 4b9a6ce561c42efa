import { svelte } from "@sveltejs/vite-plugin-svelte";
import { svelteTesting } from "@testing-library/svelte/vite";
import { VitePWA } from "vite-plugin-pwa";
import { defineConfig } from "vitest/config";

/** The station a module is of: what opens first is Plan's; the camera's reader stays apart. */
const stationOf = (id: string): string | null =>
  /src\/stations\/scan\//.test(id) ? null : (/src\/stations\/(\w+)\//.exec(id)?.[1] ?? null);

export default defineConfig({
  plugins: [
    svelte(),
    svelteTesting(),
    VitePWA({
      strategies: "injectManifest",
      srcDir: "src/offline",
      filename: "worker.ts",
      injectRegister: false,
      // The reader says when a newer version is taken: nothing is pulled from under the hands.
      registerType: "prompt",
      injectManifest: { globPatterns: ["**/*.{js,css,html,svg,png,woff2}"] },
      manifest: {
        name: "Jade Ribbon",
        short_name: "Jade Ribbon",
        description: "Choose, set up, run and track band saw blades by computation",
        display: "standalone",
        start_url: "/",
        background_color: "#f4efe4",
        theme_color: "#083b31",
        icons: [
          { src: "/icon-192.png", sizes: "192x192", type: "image/png" },
          { src: "/icon-512.png", sizes: "512x512", type: "image/png" },
          {
            src: "/icon-maskable-512.png",
            sizes: "512x512",
            type: "image/png",
            purpose: "maskable",
          },
        ],
      },
    }),
  ],
  build: {
    outDir: "../jade_ribbon/static",
    emptyOutDir: true,
    modulePreload: { polyfill: false },
    // One script, read once from the shop's own machine; its size is measured in `make bench`.
    chunkSizeWarningLimit: 700,
    // How long the bundler took is no warning: slow machines build too.
    rolldownOptions: {
      checks: { bundlerTimings: false },
      output: {
        // A station is one script and one sheet: 140 small files took longer to fetch, and to keep
        // for a day without the network, than what is in them.
        codeSplitting: {
          groups: [
            { name: "framework", test: /node_modules\/(svelte|esm-env|clsx|openapi)/, priority: 3 },
            { name: "shared", test: /src\/(lib|parts|api|drawings|offline)\//, priority: 2 },
            { name: stationOf, test: /src\/stations\//, priority: 1 },
          ],
        },
      },
    },
  },
  // The table of units is the core's own.
  server: { fs: { allow: [".."] }, proxy: { "/api": "http://127.0.0.1:8433" } },
  test: {
    environment: "jsdom",
    // Each file in a context of its own, not in a process: the same isolation in a quarter of the time.
    pool: "vmThreads",
    include: ["src/**/*.test.ts"],
    setupFiles: ["src/tests/setup.ts"],
  },
});
