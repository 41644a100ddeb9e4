<script setup lang="ts">
useTheme()
holdTabLock()
</script>

<template>
  <NuxtPage />
</template>
