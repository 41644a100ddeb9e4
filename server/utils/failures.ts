/** What the system says where something cannot be read or written, in words that tell what to do. */
interface SystemError extends Error {
  readonly code?: string
  readonly address?: string
  readonly port?: number
}

const reasons: readonly [RegExp, (folder: string) => string][] = [
  [/^(ENOSPC|EDQUOT|SQLITE_FULL)/, () => 'The disk is full. Make room, then try again.'],
  [
    /^(EACCES|EPERM|EROFS|SQLITE_READONLY|SQLITE_CANTOPEN|SQLITE_PERM)/,
    (folder) =>
      `The data folder "${folder}" cannot be written. Give the server the right to write it, or choose another folder with NUXT_DATA_FOLDER.`,
  ],
  [
    /^(ENOTDIR|EEXIST)/,
    (folder) => `The data folder "${folder}" is a file. Choose another folder with NUXT_DATA_FOLDER.`,
  ],
  [
    /^(SQLITE_NOTADB|SQLITE_CORRUPT)/,
    (folder) =>
      `The database in "${folder}" is damaged or is not one of Oar Bench. Put a copy of it in its place, or choose another folder with NUXT_DATA_FOLDER.`,
  ],
  [/^(SQLITE_BUSY|SQLITE_LOCKED)/, () => 'Another program is using the database. End it, or wait for it.'],
  [/^SQLITE_IOERR/, (folder) => `The disk under the data folder "${folder}" does not work as it should.`],
]

/** What to tell where the data folder or the database fails; none where the failure is another one. */
export function storageFailure(error: Error, folder: string): string | undefined {
  // the database library and the server each put errors around those of SQLite
  for (let cause: unknown = error; cause instanceof Error; cause = cause.cause) {
    const { code } = cause as SystemError
    const reason = typeof code === 'string' && reasons.find(([pattern]) => pattern.test(code))
    if (reason) return reason[1](folder)
  }
  return undefined
}

/** What to tell where the server cannot start. */
export function startFailure(error: Error, folder: string): string {
  const { code, port, address, message } = error as SystemError
  if (code === 'EADDRINUSE')
    return `Port ${port} is taken by another program. End it, or choose another port: PORT=${(port ?? 3000) + 1}.`
  if (code === 'EACCES' && port !== undefined) return `Port ${port} may not be used. Choose one above 1023.`
  if (code === 'EADDRNOTAVAIL') return `This machine has no address ${address}. Choose another HOST.`
  return `Oar Bench cannot start. ${storageFailure(error, folder) ?? message}`
}
