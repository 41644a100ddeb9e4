/** Keys of ports and of the ends of pipes. */
import type { PipeEnd } from './schema'

export const portKey = (component: string, port: string) => `${component}.${port}`
export const endKey = (end: PipeEnd) =>
  'junction' in end ? `junction:${end.junction}` : portKey(end.component, end.port)
