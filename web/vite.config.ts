import { gzipSync } from "node:zlib";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** Compresses once, at build time: the program serves the .gz beside each file. */
function gzipped(): Plugin {
  return {
    name: "gzipped",
    apply: "build",
    generateBundle(_, bundle) {
      for (const file of Object.values(bundle)) {
        if (!/\.(js|css)$/.test(file.fileName)) continue;
        const source = file.type === "chunk" ? file.code : file.source;
        this.emitFile({ type: "asset", fileName: `${file.fileName}.gz`, source: gzipSync(source, { level: 9 }) });
      }
    },
  };
}

export default defineConfig({
  plugins: [react(), gzipped()],
  build: { target: "es2022", sourcemap: false, assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": "http://127.0.0.1:4750" } },
});
