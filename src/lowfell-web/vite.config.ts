import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    outDir: "../Lowfell.Server/wwwroot",
    emptyOutDir: true,
    // The content policy allows no data: fonts and no inline scripts.
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
  },
  server: { proxy: { "/api": "http://127.0.0.1:5210" } },
});
