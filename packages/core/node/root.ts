/** The folder of the project: where a program was started says nothing of it, so each program of ours names it. */
export function projectRoot(): string {
  return process.env.BIBLON_ROOT ?? process.cwd()
}
