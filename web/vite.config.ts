import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { createHash } from "node:crypto";
import { readdirSync, readFileSync } from "node:fs";
import type { Plugin } from "vite";
import { defineConfig } from "vitest/config";

/** Names a build by everything that it is made from: what was kept by another one is not read. */
function build(): string {
  const sum = createHash("sha256");
  const files = ["package-lock.json", "index.html", "family.html", "vite.config.ts"];
  for (const folder of ["src", "public"])
    for (const f of readdirSync(folder, { recursive: true, withFileTypes: true }))
      if (f.isFile()) files.push(`${f.parentPath}/${f.name}`);
  for (const f of files.sort()) sum.update(f).update(readFileSync(f));
  return sum.digest("hex").slice(0, 16);
}

/** The texts of the fonts' licences ship with the page, as the licence asks for. */
const licences = (): Plugin => ({
  name: "licences",
  generateBundle() {
    for (const font of readdirSync("node_modules/@fontsource-variable"))
      this.emitFile({
        type: "asset",
        fileName: `licences/${font}.txt`,
        source: readFileSync(`node_modules/@fontsource-variable/${font}/LICENSE`),
      });
  },
});

export default defineConfig({
  define: { __BUILD__: JSON.stringify(build()) },
  plugins: [react(), tailwindcss(), licences()],
  build: {
    outDir: "dist/app",
    emptyOutDir: true,
    rollupOptions: { input: ["index.html", "family.html"] },
    chunkSizeWarningLimit: 1500, // the engraver, which is loaded only where a score is shown
  },
  // The server refuses what comes from another site: it must see the host that the browser sees.
  server: { proxy: { "/api": { target: "http://127.0.0.1:7320", changeOrigin: false } } },
  test: { include: ["src/**/*.test.{ts,tsx}"] },
});
