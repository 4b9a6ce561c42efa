import { svelte } from "@sveltejs/vite-plugin-svelte";
import { svelteTesting } from "@testing-library/svelte/vite";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [svelte(), svelteTesting()],
  build: {
    outDir: "../jade_ribbon/static",
    emptyOutDir: true,
    modulePreload: { polyfill: false },
    // One script, read once from the shop's own machine; its size is measured in `make bench`.
    chunkSizeWarningLimit: 700,
    // How long the bundler took is no warning: slow machines build too.
    rolldownOptions: { checks: { bundlerTimings: false } },
  },
  server: { proxy: { "/api": "http://127.0.0.1:8433" } },
  test: {
    environment: "jsdom",
    include: ["src/**/*.test.ts"],
    setupFiles: ["src/tests/setup.ts"],
  },
});
