/** In programs for Node, which pack with what Node has: fflate makes its tables as it is loaded, here only where something of it is used. */
for (const name of ["deflateSync", "gunzipSync", "unzipSync", "unzlibSync", "zlibSync"])
  Object.defineProperty(exports, name, {
    enumerable: true,
    get: () => require("../node_modules/fflate/lib/node.cjs")[name],
  })
