import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: {
    outDir: "dist/app",
    emptyOutDir: true,
    chunkSizeWarningLimit: 1500, // the engraver, which is loaded only where a score is shown
  },
  server: { proxy: { "/api": "http://127.0.0.1:7320" } },
  test: { include: ["src/**/*.test.{ts,tsx}"] },
});
