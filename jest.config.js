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

const project = (name, folder) => ({
  displayName: name,
  preset: "jest-expo/node",
  rootDir: `${__dirname}/${folder}`,
  testMatch: ["<rootDir>/test/**/*.test.ts"],
  transform: { "\\.[jt]sx?$": ["babel-jest", { configFile: `${__dirname}/babel.config.js` }] },
  transformIgnorePatterns,
  setupFiles: [`${__dirname}/jest.seed.js`],
})

module.exports = {
  // Nothing else runs beside them.
  maxWorkers: "100%",
  // No test says how fast a machine is; what hangs is told after two minutes.
  testTimeout: 120_000,
  projects: [project("core", "packages/core"), project("server", "apps/server"), project("web", "apps/web")],
}
