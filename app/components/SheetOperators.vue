<script setup lang="ts">
/** Buttons and selectors of the machine on its sheet, while a live run goes on without the console. */
const live = useLiveRun()
const { valueOf } = useFrameValues()
const operators = computed(() =>
  live.machine.operables.filter(
    (o) => (o.type === 'button' || o.type === 'selector') && o.spec.name !== 'acknowledge',
  ),
)
</script>

<template>
  <div
    v-if="operators.length"
    class="absolute bottom-2 left-2 flex max-w-[70%] flex-wrap items-end gap-1.5 rounded border border-rule bg-paper/90 p-1.5"
    role="group"
    aria-label="Operator devices"
    data-testid="sheet-operators"
  >
    <template v-for="o in operators" :key="o.key">
      <LiveButton v-if="o.type === 'button'" class="!w-auto" :operable="o" :value="valueOf(o.key)" />
      <div v-else>
        <p class="text-xs text-soft">{{ o.name }}</p>
        <LiveSwitch :operable="o" :value="valueOf(o.key)" />
      </div>
    </template>
  </div>
</template>
