import js from "@eslint/js";
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
    plugins: { "react-hooks": hooks },
    rules: {
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
    // The only fetch is in api/ and, for visitors, in form/transport.ts.
    files: ["src/**/*.{ts,tsx}"],
    ignores: ["src/api/**", "src/form/transport.ts"],
    rules: { "no-restricted-globals": ["error", "fetch"] },
  },
);
