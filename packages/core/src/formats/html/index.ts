export { inLocalLook } from "./localLook"
export { readHtml, safeLink } from "./reading"
export { writeHtml } from "./writing"
