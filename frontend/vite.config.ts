import react from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

// Two entries: the workbench, and the public form, which stays small. The server reads the manifest.
export default defineConfig({
  plugins: [react()],
  base: "/static/built/",
  build: {
    outDir: "../codexa/web/static/built",
    emptyOutDir: true,
    manifest: true,
    assetsInlineLimit: 0,
    rollupOptions: { input: { app: "src/app/main.tsx", form: "src/form/main.tsx" } },
  },
  test: { environment: "node" },
});
