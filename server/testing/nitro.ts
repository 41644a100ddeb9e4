/** What Nitro gives the routes, for tests without Nitro. */
let folder = ''
export const useRuntimeConfig = () => ({ dataFolder: folder })
export const setDataFolder = (path: string) => (folder = path)
