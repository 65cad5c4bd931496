import hooks from "eslint-plugin-react-hooks"
import { createTypeScriptImportResolver } from "eslint-import-resolver-typescript"
import { importX } from "eslint-plugin-import-x"
import ts from "typescript-eslint"
import { newBeforeSpread } from "./scripts/newBeforeSpread.mjs"

/** What a room may not import. The arrows of docs/architecture.md, held. */
const closed = (files, ...groups) => ({
  files,
  rules: {
    "@typescript-eslint/no-restricted-imports": [
      "error",
      { patterns: groups.map(([group, message]) => ({ group, message })) },
    ],
  },
})
const icons = [["**/drawings.json"], "Icons have names of their own, in ui/icons.ts."]
const apps = [
  ["@biblon/web*", "@biblon/server*", "@biblon/wire*", "**/apps/**"],
  "Core knows nothing of the applications.",
]
const platform = [
  ["node:*", "fs", "path", "react", "react-*", "express", "ws"],
  "Core runs in page, worker and server alike: no DOM, no Node, no network.",
]
const siblings = (...names) => names.map((name) => [`**/${name}`, `**/${name}/**`]).flat()

export default ts.config(
  { ignores: ["**/node_modules", "**/dist", "**/public", "**/.expo", ".cache", "test-results"] },
  ...ts.configs.recommended,
  {
    rules: {
      "@typescript-eslint/no-unused-vars": ["error", { argsIgnorePattern: "^_", varsIgnorePattern: "^_" }],
      "@typescript-eslint/consistent-type-imports": ["error", { fixStyle: "inline-type-imports" }],
      eqeqeq: "error",
      "no-restricted-properties": [
        "error",
        {
          object: "Step",
          property: "fromJSON",
          message: "readStep of core/document keeps our own kinds of steps in every bundle.",
        },
      ],
      "@typescript-eslint/triple-slash-reference": "off",
      "no-console": "off",
    },
  },
  {
    files: ["packages/**/*.ts", "apps/**/*.{ts,tsx}", "e2e/**/*.ts", "bench/**/*.ts", "scripts/**/*.ts"],
    languageOptions: { parserOptions: { projectService: true } },
    // A promise that nobody waits for loses its errors; a kind that is added later asks for its case.
    rules: {
      "@typescript-eslint/no-floating-promises": "error",
      "@typescript-eslint/no-misused-promises": ["error", { checksVoidReturn: false }],
      "@typescript-eslint/await-thenable": "error",
      "@typescript-eslint/switch-exhaustiveness-check": ["error", { considerDefaultExhaustiveForUnions: true }],
    },
  },
  {
    files: ["packages/core/src/{layout,output}/**/*.ts", "apps/web/src/desk/{*,view/**/*}.ts"],
    plugins: { biblon: { rules: { "new-before-spread": newBeforeSpread } } },
    rules: { "biblon/new-before-spread": "error" },
  },
  {
    files: ["packages/*/src/**", "apps/*/src/**"],
    plugins: { "import-x": importX },
    settings: { "import-x/resolver-next": [createTypeScriptImportResolver({ noWarnOnMultipleProjects: true })] },
    // Files do not import one another in a circle, not even for their types.
    rules: { "import-x/no-cycle": "error" },
  },
  { files: ["packages/core/src/document/entries.ts"], rules: { "no-restricted-properties": "off" } },
  { files: ["**/*.js", "**/*.cjs"], rules: { "@typescript-eslint/no-require-imports": "off" } },
  {
    files: [
      "packages/core/src/formats/**",
      "packages/core/src/document/**",
      "packages/core/src/layout/fonts/harfbuzz.ts",
      "packages/core/src/editing/text.ts",
    ],
    rules: { "no-control-regex": "off" },
  },
  closed(["packages/core/src/document/**"], apps, platform, [
    siblings("editing", "layout", "output", "formats", "checking", "brief"),
    "The document knows nothing of what is done with it.",
  ]),
  closed(["packages/core/src/editing/**"], apps, platform, [
    siblings("layout", "output", "formats", "checking", "brief"),
    "Editing works on the document alone.",
  ]),
  closed(["packages/core/src/layout/**"], apps, platform, [
    siblings("editing", "output", "formats", "checking"),
    "Layout reads the document and nothing else.",
  ]),
  closed(["packages/core/src/output/**"], apps, platform, [
    siblings("editing", "formats", "checking"),
    "Output reads finished sheets.",
  ]),
  closed(["packages/core/src/formats/**"], apps, platform, [
    siblings("editing", "layout", "output", "checking"),
    "Formats read and write the document.",
  ]),
  closed(["packages/core/src/checking/**"], apps, platform, [
    siblings("editing", "output", "formats"),
    "Checks read the document and the layout.",
  ]),
  closed(["packages/core/src/sources/**"], apps, platform, [
    siblings("editing", "layout", "output", "checking", "brief"),
    "Sources are cited by the document alone.",
  ]),
  closed(["packages/core/src/brief/**"], apps, platform, [
    siblings("layout", "output", "formats"),
    "A brief judges the document and has editing change it.",
  ]),
  closed(["packages/wire/**"], [["@biblon/*"], "The wire is data only."]),
  closed(["apps/web/**"], icons, [
    ["@biblon/server*", "@biblon/core/node", "@biblon/core/document/reading", "@biblon/core/document/shapes"],
    "The page loads neither the server nor Zod.",
  ]),
  closed(
    ["apps/web/src/desk/*.ts", "apps/web/src/desk/input/**", "apps/web/src/desk/view/**"],
    [
      ["**/commands/**", "**/bars/**", "**/trays/**"],
      "The desk's parts know nothing of the tools, bars and trays that use them: keys are handed in by Desk.tsx.",
    ],
    [
      ["@biblon/server*", "@biblon/core/node", "@biblon/core/document/reading", "@biblon/core/document/shapes"],
      "The page loads neither the server nor Zod.",
    ],
  ),
  closed(
    ["apps/web/src/desk/view/**", "apps/web/src/desk/input/**"],
    [
      ["**/session", "**/commands/**", "**/bars/**", "**/trays/**"],
      "View and input work for any desk: they are told what they need.",
    ],
  ),
  // Workers have scripts of their own: what is pasted is checked there.
  { files: ["apps/web/src/workers/*.worker.ts"], rules: { "@typescript-eslint/no-restricted-imports": "off" } },
  {
    files: ["apps/web/src/ui/icons.ts", "apps/web/test/**"],
    rules: { "@typescript-eslint/no-restricted-imports": "off" },
  },
  closed(["apps/server/**"], [["@biblon/web*"], "The server knows nothing of the page."]),
  {
    files: ["apps/web/**/*.{ts,tsx}"],
    plugins: { "react-hooks": hooks },
    rules: { "react-hooks/rules-of-hooks": "error", "react-hooks/exhaustive-deps": "error" },
  },
  {
    files: ["**/test/**", "e2e/**", "bench/**"],
    rules: {
      "@typescript-eslint/no-explicit-any": "off",
      "no-empty-pattern": "off",
      "@typescript-eslint/no-non-null-assertion": "off",
    },
  },
)
