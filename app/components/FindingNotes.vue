<script setup lang="ts">
/** Findings where they belong, each with its remedy, and with the change that carries it out where there is a safe one. */
import type { Finding } from '@oar-bench/core/sheet/finding'

defineProps<{ findings: readonly Finding[] }>()
</script>

<template>
  <ul v-if="findings.length" class="mb-2 space-y-1">
    <li
      v-for="f in findings"
      :key="f.message"
      class="text-[13px]"
      :class="f.incomplete ? 'text-soft' : f.severity === 'error' ? 'text-error' : 'text-caution'"
    >
      {{ f.message }} <span class="text-soft">{{ f.remedy }}</span>
      <FixButton v-if="f.fix" :fix="f.fix" :plain="f.incomplete" />
    </li>
  </ul>
</template>
