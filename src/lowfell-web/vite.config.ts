import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";
import { defineConfig, type Plugin } from "vite";

/** Puts the compressed forms of every asset beside it, so that serving costs nothing. */
const precompressed = (): Plugin => ({
  name: "precompressed",
  apply: "build",
  writeBundle({ dir }) {
    const assets = join(dir!, "assets");
    for (const name of readdirSync(assets).filter((n) => /\.(js|css|svg)$/.test(n))) {
      const bytes = readFileSync(join(assets, name));
      writeFileSync(join(assets, `${name}.br`), brotliCompressSync(bytes));
      writeFileSync(join(assets, `${name}.gz`), gzipSync(bytes, { level: 9 }));
    }
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), precompressed()],
  build: {
    outDir: "../Lowfell.Server/wwwroot",
    emptyOutDir: true,
    // The content policy allows no data: fonts and no inline scripts.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
  server: { proxy: { "/api": "http://127.0.0.1:5210" } },
});
