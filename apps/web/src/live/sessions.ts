/** Which tab works under which session's name: each holds a lock of that name for as long as it lives. */

const lockOf = (client: string) => `biblon-session-${client}`
/** Where the browser has no locks, a record that has not been touched for so many milliseconds counts as left. */
const untouched = 60_000

/**
 * Takes hold of a session's name until `ended`. The browser gives it to one tab only, however many ask at once.
 * @param kept when its record was written, in milliseconds since 1970
 * @returns whether this tab has it now
 */
export function takeSession(client: string, ended: Promise<void>, kept = 0): Promise<boolean> {
  if (!navigator.locks) return Promise.resolve(Date.now() - kept > untouched)
  return new Promise((resolve) => {
    navigator.locks
      .request(lockOf(client), { ifAvailable: true }, (lock) => {
        resolve(lock !== null)
        return lock === null ? undefined : ended
      })
      .catch(() => resolve(false))
  })
}
