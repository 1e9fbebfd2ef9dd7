import { createHash } from "node:crypto";
import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import { transformAsync } from "@babel/core";
import react from "@vitejs/plugin-react";
import { build, defineConfig, type Plugin } from "vite";

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

/** The service worker, built on its own: it has to be at the root, and knows every file that the page may load. */
function serviceWorker(): Plugin {
  return {
    name: "service-worker",
    apply: "build",
    async writeBundle({ dir = "dist" }, bundle) {
      // A letter of another script is drawn in the device's own font while there is no network.
      const other = /-(cyrillic|greek|vietnamese)/;
      const files = Object.keys(bundle).filter((name) => /\.(js|css|woff2)$/.test(name) && !other.test(name));
      const revision = (path: string) => createHash("sha256").update(readFileSync(path)).digest("hex").slice(0, 16);
      const shell = [
        { url: "/", revision: revision(join(dir, "index.html")) },
        { url: "/blade.svg", revision: revision("public/blade.svg") },
        ...files.map((name) => ({ url: `/${name}`, revision: null })),
      ];
      await build({
        configFile: false,
        publicDir: false,
        logLevel: "warn",
        define: { SHELL: JSON.stringify(shell) },
        build: {
          target: "es2022",
          outDir: dir,
          emptyOutDir: false,
          license: { fileName: "licenses-of-the-worker.md" },
          rolldownOptions: {
            input: "src/worker/serviceWorker.ts",
            output: { format: "iife", entryFileNames: "service-worker.js" },
          },
        },
      });
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
  plugins: [compiled(), react(), gzipped(), serviceWorker()],
  build: {
    target: "es2022",
    sourcemap: false,
    license: { fileName: "licenses.md" },
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
  },
  server: { proxy: { "/api": "http://127.0.0.1:4750" } },
});
