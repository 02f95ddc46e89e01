import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react(), tailwindcss()],
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
