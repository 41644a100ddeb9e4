<script setup lang="ts">
/** Asks for the password of a server that can be reached from other machines. */
useHead({ title: 'Sign in · Oar Bench' })
const route = useRoute()
const password = ref('')
const { problem, attempt } = useAttempt()
/** Back to where the person came from; only within the application. */
const target = computed(() => {
  const from = String(route.query.from ?? '/')
  return /^\/(?![/\\])/.test(from) && !from.startsWith('/login') ? from : '/'
})
const signIn = () =>
  attempt(async () => {
    await $fetch('/api/session', { method: 'POST', body: { password: password.value } })
    password.value = ''
    await navigateTo(target.value)
  })
</script>

<template>
  <main class="flex h-full items-center justify-center bg-paper p-4">
    <form class="w-full max-w-sm space-y-3 rounded border border-rule bg-pane p-6" @submit.prevent="signIn">
      <h1 class="flex items-center gap-2 font-lettering text-2xl font-medium">
        <img src="/icon.svg" alt="" class="size-7" />Oar Bench
      </h1>
      <label class="block">
        <span class="mb-0.5 block text-[13px] text-soft">Password</span>
        <input
          v-model="password"
          type="password"
          class="field"
          autocomplete="current-password"
          autofocus
          data-testid="password"
        />
      </label>
      <p v-if="problem" class="text-error" role="alert">{{ problem }}</p>
      <button class="button-main" :disabled="!password">Sign in</button>
      <p class="text-[13px] text-soft">
        The password was shown when the server was first started, or is set with OAR_BENCH_PASSWORD.
      </p>
    </form>
  </main>
</template>
