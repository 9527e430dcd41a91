import babel from "@rolldown/plugin-babel";
import react, { reactCompilerPreset } from "@vitejs/plugin-react";
import { defineConfig } from "vitest/config";

// Two entries: the workbench, and the public form, which stays small. The server reads the manifest.
// The workbench draws hundreds of blocks: the compiler keeps what a letter typed does not change from being drawn again.
// Not the public form, whose session is an object that changes.
const compiler = reactCompilerPreset({
  sources: (file: string) => file.includes("/src/app/"),
  // What a handler reads may not be there while it is drawn.
  environment: { enableTreatFunctionDepsAsConditional: true },
});

export default defineConfig({
  plugins: [react(), babel({ presets: [compiler] })],
  base: "/static/built/",
  build: {
    outDir: "../codexa/web/static/built",
    emptyOutDir: true,
    manifest: true,
    assetsInlineLimit: 0,
    rollupOptions: { input: { app: "src/app/main.tsx", form: "src/form/main.tsx" } },
  },
  // Properties try hundreds of forms; on a busy machine that takes longer than the usual five seconds.
  test: { environment: "node", setupFiles: ["src/testing/setup.ts"], testTimeout: 60_000, maxWorkers: 2 },
});
