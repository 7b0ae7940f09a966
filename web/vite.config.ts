import react from "@vitejs/plugin-react";
import { defineConfig } from "vite";

export default defineConfig({
  plugins: [react()],
  base: "/static/",
  // The sheet's lettering is the core's own font file: what the board shows is what is plotted.
  server: { fs: { allow: [".."] }, proxy: { "/api": "http://127.0.0.1:8000" } },
  build: { target: "es2022", chunkSizeWarningLimit: 1500 },
});
