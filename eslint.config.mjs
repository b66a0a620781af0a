// What the compiler does not see in the scripts of the pages.
import js from "./requirements/scripts/node_modules/@eslint/js/src/index.js";
import globals from "./requirements/scripts/node_modules/globals/index.js";

const UNDERWAY = ["fetch", "setTimeout", "clearTimeout", "requestAnimationFrame", "requestIdleCallback"];

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
      // The page says when it is at rest: whatever it has under way begins in one place.
      "no-restricted-globals": ["error", ...UNDERWAY],
      "no-restricted-properties": ["error", ...UNDERWAY.map((property) => ({ object: "window", property }))],
    },
  },
  {
    files: ["**/sheet/underway.js"],
    rules: { "no-restricted-globals": "off", "no-restricted-properties": "off" },
  },
  {
    files: ["tests/scripts/*.js"],
    languageOptions: { globals: globals.node },
    rules: { "no-restricted-globals": "off", "no-restricted-properties": "off" },
  },
  { files: ["**/sheet/api.js"], rules: { "no-restricted-globals": ["error", ...UNDERWAY.filter((name) => name !== "fetch")] } },
];
