/** `size`: see size-command.ts. Exit code 0 with results, 2 with a plain message. */
import { writeSync } from 'node:fs'
import { sizeCommand } from './size-command'

/** All of a text, also where a pipe takes it in parts. */
function write(descriptor: 1 | 2, text: string): void {
  let left = Buffer.from(text)
  while (left.length) {
    try {
      left = left.subarray(writeSync(descriptor, left))
    } catch (error) {
      const { code } = error as NodeJS.ErrnoException
      // the reader has seen enough
      if (code === 'EPIPE') process.exit(0)
      if (code !== 'EAGAIN') throw error
    }
  }
}
const { code, out, error } = sizeCommand(process.argv.slice(2))
write(1, out)
write(2, error)
process.exitCode = code
