/** TypeScript and modules as Jest can have them: nothing else about the code is made older, so that tests run what ships. */
const { createHash } = require("node:crypto")
const { transformSync, version } = require("esbuild")

const options = {
  format: "cjs",
  target: "node20",
  // What is imported as the program runs is required.
  supported: { "dynamic-import": false },
  sourcemap: true,
  sourcesContent: false,
}
const made = JSON.stringify([version, options])

module.exports = {
  getCacheKey: (source, path) => createHash("sha256").update([made, path, source].join("\0")).digest("hex"),
  process: (source, path) =>
    transformSync(source, { ...options, loader: /\.tsx?$/.test(path) ? "ts" : "js", sourcefile: path }),
}
