import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { brotliCompressSync, gzipSync } from "node:zlib";
import { defineConfig, type Plugin } from "vite";
import { VitePWA } from "vite-plugin-pwa";

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

/** Names the bundles of each view in the page, so that the server can have the browser fetch at once those of the view it opens. */
const preloaded = (): Plugin => ({
  name: "preloaded",
  apply: "build",
  transformIndexHtml: {
    order: "post",
    handler(_, { bundle, filename }) {
      if (!filename.endsWith("index.html")) return [];
      const chunks = Object.values(bundle ?? {}).filter((c) => c.type === "chunk");
      const byName = new Map(chunks.map((c) => [c.fileName, c]));
      const entry = new Set(chunks.filter((c) => c.isEntry).flatMap((c) => [c.fileName, ...c.imports]));
      const needs = (name: string, found = new Set<string>()): Set<string> => {
        if (entry.has(name) || found.has(name)) return found;
        found.add(name);
        for (const next of byName.get(name)?.imports ?? []) needs(next, found);
        return found;
      };
      return chunks.flatMap((c) => {
        const view = /features\/(\w+)\/\w+View\.tsx$/.exec(c.facadeModuleId ?? "")?.[1];
        return [...(view ? needs(c.fileName) : [])].map((name) => ({
          tag: "link",
          attrs: {
            rel: "modulepreload",
            crossorigin: true,
            href: `/${name}`,
            fetchpriority: "low",
            "data-view": view,
          },
          injectTo: "head" as const,
        }));
      });
    },
  },
});

/**
 * The bench opens without a server: its page and all bundles are kept by the browser once it was opened. No other view is, nor anything
 * that was read: what is shown is what the server says, or what the bench itself has kept.
 */
const kept = VitePWA({
  injectRegister: null,
  manifest: false,
  workbox: {
    globPatterns: ["assets/*.{js,css,woff2}", "mark.svg"],
    navigateFallback: null,
    skipWaiting: true,
    clientsClaim: true,
    cleanupOutdatedCaches: true,
    inlineWorkboxRuntime: true,
    sourcemap: false,
    runtimeCaching: [
      {
        urlPattern: ({ request, url }) => request.mode === "navigate" && url.pathname.startsWith("/bench/"),
        handler: "NetworkFirst",
        options: { cacheName: "bench-page", networkTimeoutSeconds: 3 },
      },
    ],
  },
});

export default defineConfig({
  plugins: [react(), tailwindcss(), preloaded(), precompressed(), kept],
  build: {
    outDir: "../Lowfell.Server/wwwroot",
    emptyOutDir: true,
    rolldownOptions: { input: { index: "index.html", pair: "pair.html" } },
    // The content policy allows no data: fonts and no inline scripts.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
  server: { proxy: { "/api": "http://127.0.0.1:5210" } },
});
