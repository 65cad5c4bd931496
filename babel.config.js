/** For Jest alone; the application has its own. */
module.exports = (api) => {
  api.cache(true)
  return { presets: ["babel-preset-expo"] }
}
