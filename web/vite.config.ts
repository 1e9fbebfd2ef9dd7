import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { transformAsync } from "@babel/core";
import react from "@vitejs/plugin-react";
import { defineConfig, type Plugin } from "vite";

/** Compresses once, at build time: the program serves the .gz beside each file. */
function gzipped(): Plugin {
  return {
    name: "gzipped",
    apply: "build",
    // Only what is written is final: the build fills in the code until then.
    writeBundle({ dir = "dist" }, bundle) {
      for (const name of Object.keys(bundle).filter((name) => /\.(js|css)$/.test(name))) {
        const path = join(dir, name);
        writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }));
      }
    },
  };
}

/** The React Compiler: a part of the screen is drawn anew only where what it shows is new. */
function compiled(): Plugin {
  return {
    name: "compiled",
    enforce: "pre",
    transform: {
      filter: { id: /\/src\/.*\.tsx?$/ },
      handler: (code, filename) =>
        transformAsync(code, {
          filename,
          babelrc: false,
          configFile: false,
          sourceMaps: true,
          parserOpts: { plugins: ["typescript", "jsx"] },
          plugins: [["babel-plugin-react-compiler", { panicThreshold: "none" }]],
        }).then((made) => ({ code: made?.code ?? code, map: made?.map ?? null })),
    },
  };
}

export default defineConfig({
  plugins: [compiled(), react(), gzipped()],
  build: { target: "es2022", sourcemap: false, assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  server: { proxy: { "/api": "http://127.0.0.1:4750" } },
});
