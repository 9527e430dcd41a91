import js from "@eslint/js";
import { createTypeScriptImportResolver } from "eslint-import-resolver-typescript";
import imports from "eslint-plugin-import-x";
import hooks from "eslint-plugin-react-hooks";
import tseslint from "typescript-eslint";

export default tseslint.config(
  { ignores: ["node_modules", "src/api/generated"] },
  js.configs.recommended,
  ...tseslint.configs.strict,
  {
    files: ["scripts/**"],
    languageOptions: { globals: { process: "readonly", URL: "readonly", console: "readonly" } },
  },
  {
    files: ["src/**/*.{ts,tsx}"],
    plugins: { "react-hooks": hooks, "import-x": imports },
    settings: {
      "import-x/resolver-next": [createTypeScriptImportResolver()],
      "import-x/extensions": [".ts", ".tsx"],
      "import-x/parsers": { "@typescript-eslint/parser": [".ts", ".tsx"] },
    },
    rules: {
      // Types alone may point both ways: nothing of them is there when the code runs.
      "import-x/no-cycle": ["error", { ignoreExternal: true }],
      "react-hooks/rules-of-hooks": "error",
      "react-hooks/exhaustive-deps": "error",
      // A list's length is checked where it is indexed; the compiler's noUncheckedIndexedAccess finds the rest.
      "@typescript-eslint/no-non-null-assertion": "off",
    },
  },
  {
    // The public form stays small: nothing of the workbench, no MUI.
    files: ["src/form/**", "src/fields/**/Input.tsx", "src/fields/inputs.ts"],
    rules: {
      "no-restricted-imports": [
        "error",
        { patterns: ["@mui/*", "@emotion/*", "**/app/**", "@tanstack/*", "react-router"] },
      ],
    },
  },
  {
    // The only fetch is in api/ and, for visitors, in form/transport.ts and where visits are counted.
    files: ["src/**/*.{ts,tsx}"],
    ignores: ["src/api/**", "src/form/transport.ts", "src/form/counting.ts"],
    rules: { "no-restricted-globals": ["error", "fetch"] },
  },
);
