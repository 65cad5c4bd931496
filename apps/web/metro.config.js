const path = require("path")
const { getDefaultConfig } = require("expo/metro-config")
const { withNativeWind } = require("nativewind/metro")

const config = getDefaultConfig(__dirname)

/** What a package's own name for a file stands for in the browser. */
const forBrowser = (target) =>
  typeof target === "object" && target !== null ? forBrowser(target.browser ?? target.import ?? target.default) : target

// Metro does not know the names that packages give to files of their own ("imports" in package.json).
const { resolveRequest } = config.resolver
config.resolver.resolveRequest = (context, name, platform) => {
  const resolve = resolveRequest ?? context.resolveRequest
  const own = name.startsWith("#") ? context.getPackageForModule(context.originModulePath) : null
  const target = own ? forBrowser(own.packageJson.imports?.[name]) : undefined
  if (target === undefined) return resolve(context, name, platform)
  if (!target.startsWith(".")) return resolve(context, target, platform)
  return { type: "sourceFile", filePath: path.join(own.rootPath, target) }
}

// Modules run when something of them is first used: much of what packages bring along is never.
config.transformer.getTransformOptions = async () => ({ transform: { inlineRequires: true } })

module.exports = withNativeWind(config, { input: "./global.css" })
