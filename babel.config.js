/** What is imported as the program runs, as Jest can have it. */
const required = ({ template }) => {
  const later = template.expression("Promise.resolve().then(() => require(%%name%%))")
  return {
    visitor: {
      CallExpression(path) {
        if (path.node.callee.type === "Import") path.replaceWith(later({ name: path.node.arguments[0] }))
      },
    },
  }
}

/** For Jest alone, and there for what tests of the application; that has its own. */
module.exports = (api) => {
  api.cache(true)
  return { presets: ["babel-preset-expo"], plugins: [required] }
}
