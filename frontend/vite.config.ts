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

const SHARED =
  /\/src\/(ui\/in_storage|text\/visitor|fields\/(input|late|LengthTold|shown_options)|form\/(Banner|Notices|Progress|brand|facts|press|snapshot|titles|unpaid))\.tsx?$/;

export default defineConfig({
  plugins: [react(), babel({ presets: [compiler] })],
  base: "/static/built/",
  build: {
    outDir: "../codexa/web/static/built",
    emptyOutDir: true,
    manifest: true,
    assetsInlineLimit: 0,
    rolldownOptions: {
      input: { app: "src/app/main.tsx", form: "src/form/main.tsx" },
      // What every form needs and the workbench, too, is one piece: each of a dozen small ones costs bytes and a request.
      output: { codeSplitting: { groups: [{ name: "shared", test: SHARED }] } },
    },
  },
  // Properties try hundreds of forms; on a busy machine that takes longer than the usual five seconds.
  test: { environment: "node", setupFiles: ["src/testing/setup.ts"], testTimeout: 60_000, maxWorkers: 2 },
});
