<script setup lang="ts">
/** What can be done with what was pointed at, at the pointer. */
import { keyTexts, labelOf } from '../commands/command'
import { onClickOutside } from '@vueuse/core'

const { at } = defineProps<{ at: { x: number; y: number } }>()
const emit = defineEmits<{ close: [] }>()
const { enabled } = useCommands()
const shown = computed(() =>
  enabled.value.filter((c) => ['Edit', 'Arrange'].includes(c.group) && !['undo', 'redo'].includes(c.name)),
)
const menu = useTemplateRef<HTMLElement>('menu')
const items = () => [...menu.value!.querySelectorAll<HTMLElement>('[role=menuitem]')]
const place = ref({ left: '0', top: '0' })
onMounted(() => {
  const { width, height } = menu.value!.getBoundingClientRect()
  place.value = {
    left: `${Math.min(at.x, window.innerWidth - width - 8)}px`,
    top: `${Math.min(at.y, window.innerHeight - height - 8)}px`,
  }
  items()[0]?.focus()
})
onClickOutside(menu, () => emit('close'))
function onKey(event: KeyboardEvent) {
  event.stopPropagation()
  const list = items()
  const now = list.indexOf(document.activeElement as HTMLElement)
  const to = { ArrowDown: now + 1, ArrowUp: now - 1, Home: 0, End: list.length - 1 }[event.key]
  if (event.key === 'Escape' || event.key === 'Tab') emit('close')
  else if (to !== undefined) list[(to + list.length) % list.length].focus()
  else return
  event.preventDefault()
}
</script>

<template>
  <div
    ref="menu"
    role="menu"
    aria-label="What can be done here"
    class="menu fixed min-w-56 py-1"
    :style="place"
    data-testid="sheet-menu"
    @keydown="onKey"
    @pointerdown.stop
  >
    <button
      v-for="command in shown"
      :key="command.name"
      role="menuitem"
      class="menu-item justify-between"
      @click="(command.run(), emit('close'))"
    >
      {{ labelOf(command) }} <kbd class="text-[12px] text-soft">{{ keyTexts(command)[0] }}</kbd>
    </button>
  </div>
</template>
