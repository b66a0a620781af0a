// What the compiler does not see in the scripts of the pages.
import js from "./requirements/scripts/node_modules/@eslint/js/src/index.js";
import globals from "./requirements/scripts/node_modules/globals/index.js";

export default [
  js.configs.recommended,
  {
    files: ["**/*.js"],
    languageOptions: { ecmaVersion: 2022, sourceType: "module", globals: globals.browser },
    rules: {
      eqeqeq: "error",
      "no-shadow": "error",
      "no-var": "error",
      "prefer-const": "error",
      "no-unused-vars": ["error", { args: "after-used", ignoreRestSiblings: true }],
      "max-lines": ["error", { max: 400 }],
    },
  },
];
