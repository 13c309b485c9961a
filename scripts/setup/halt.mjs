/** A reason to stop that one sentence explains to the person at the terminal. */
export class Halt extends Error {}

/** Runs a script's main part; a Halt is printed as its sentence alone. */
export async function main(act) {
  try {
    await act()
  } catch (error) {
    console.error(error instanceof Halt ? `\n${error.message}` : error)
    process.exitCode = 1
  }
}

/** What of a caught error a person can use: the disk is full, the folder is closed, or the message itself. */
export function plainReason(error) {
  if (error.code === 'ENOSPC') return 'The disk is full; make room and start again.'
  if (error.code === 'EACCES' || error.code === 'EROFS')
    return `There is no right to write to ${error.path ?? 'the folder'}; give it, or copy the project to a folder of your own.`
  return error.message
}
