/** Core, server and the parts of the application that need no screen. */
const esm = [
  "prosemirror-.*",
  "orderedmap",
  "w3c-keyname",
  "rope-sequence",
  "idb",
  "zustand",
  "fflate",
  "fast-check",
  "pure-rand",
]
const transformIgnorePatterns = [
  `node_modules/(?!(${esm.join("|")}|expo|@expo|expo-.*|react-native|@react-native|jest-expo)/)`,
]

/** As it ships; where a test stands in for a module, that has to come before what it imports, which only the other one sees to. */
const native = { "\\.[jt]sx?$": `${__dirname}/jest.transform.js` }
const mocking = { "\\.[jt]sx?$": ["babel-jest", { configFile: `${__dirname}/babel.config.js` }] }

const project = (name, folder, transform) => ({
  displayName: name,
  preset: "jest-expo/node",
  rootDir: `${__dirname}/${folder}`,
  testMatch: ["<rootDir>/test/**/*.test.ts"],
  transform,
  transformIgnorePatterns,
  setupFiles: [`${__dirname}/jest.seed.js`],
})

module.exports = {
  // Nothing else runs beside them.
  maxWorkers: "100%",
  // No test says how fast a machine is; what hangs is told after two minutes.
  testTimeout: 120_000,
  projects: [
    project("core", "packages/core", native),
    project("server", "apps/server", native),
    project("web", "apps/web", mocking),
  ],
}
