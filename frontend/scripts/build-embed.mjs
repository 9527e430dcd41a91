// Builds what websites load: each file by itself, without a digest in its name, as its address never changes.
import { build } from "vite";

const files = { 1: "src/embed/embed.ts", notice: "src/embed/notice.ts" };
for (const [name, entry] of Object.entries(files))
  await build({
    configFile: false,
    logLevel: "warn",
    build: {
      outDir: "../codexa/web/static/embed",
      emptyOutDir: name === "1",
      target: "es2022",
      lib: { entry, formats: ["iife"], name: `codexa_${name}`, fileName: () => `${name}.js` },
    },
  });
