/** Opens and migrates the database before the first request. */
export default defineNitroPlugin(() => {
  useStore()
})
