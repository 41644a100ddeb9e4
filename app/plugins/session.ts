/** Whoever is no longer signed in is asked for the password; what is not saved stays in the browser meanwhile. */
export default defineNuxtPlugin(() => {
  globalThis.$fetch = $fetch.create({
    onResponseError({ request, response }) {
      const url = typeof request === 'string' ? request : request.url
      if (response.status === 401 && !url.startsWith('/api/session'))
        void navigateTo({ path: '/login', query: { from: useRouter().currentRoute.value.fullPath } })
    },
  }) as typeof $fetch
})
