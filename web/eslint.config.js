import js from "@eslint/js";
import svelte from "eslint-plugin-svelte";
import globals from "globals";
import ts from "typescript-eslint";

import svelteConfig from "./svelte.config.js";

export default ts.config(
  js.configs.recommended,
  ...ts.configs.strict,
  ...svelte.configs.recommended,
  {
    languageOptions: { globals: globals.browser },
    rules: {
      eqeqeq: "error",
      "no-undef": "off",
      // The window has all of these: a name that nobody declared would be one of them, and empty.
      "no-restricted-globals": [
        "error",
        "name",
        "event",
        "status",
        "length",
        "top",
        "parent",
        "closed",
      ],
    },
  },
  {
    files: ["**/*.svelte", "**/*.svelte.ts"],
    languageOptions: {
      parserOptions: { parser: ts.parser, extraFileExtensions: [".svelte"], svelteConfig },
    },
  },
  { ignores: ["src/api/schema.ts", "dist", "node_modules"] },
);
