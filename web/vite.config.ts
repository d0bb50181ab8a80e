import tailwindcss from "@tailwindcss/vite";
import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { assetsInlineLimit: 0, chunkSizeWarningLimit: 1000 },
  // The glossary of the documents is the interface's.
  server: { fs: { allow: [".", "../docs"] }, proxy: { "/api": "http://127.0.0.1:7420" } },
});
