<script setup lang="ts">
/** A button that opens a panel beside it, kept inside the window. */
import { autoUpdate, flip, offset, shift, size, useFloating, type Placement } from '@floating-ui/vue'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'

const {
  placement = 'top-start',
  testid = undefined,
  panelClass = undefined,
  buttonClass = 'button',
  title = undefined,
} = defineProps<{
  testid?: string
  panelClass?: string
  buttonClass?: string
  title?: string
  placement?: Placement
}>()
const button = useTemplateRef<{ $el: HTMLElement }>('button')
const panel = useTemplateRef<{ $el: HTMLElement }>('panel')
const reference = computed(() => button.value?.$el)
const floating = computed(() => panel.value?.$el)
const { floatingStyles } = useFloating(reference, floating, {
  strategy: 'fixed',
  placement: () => placement,
  whileElementsMounted: autoUpdate,
  middleware: [
    offset(4),
    flip(),
    shift({ padding: 8 }),
    size({
      padding: 8,
      apply({ availableHeight, elements }) {
        elements.floating.style.maxHeight = `${Math.max(120, availableHeight)}px`
      },
    }),
  ],
})
</script>

<template>
  <Popover>
    <PopoverButton ref="button" :class="buttonClass" :title="title" :data-testid="testid"
      ><slot name="button"
    /></PopoverButton>
    <PopoverPanel
      ref="panel"
      v-slot="{ close }"
      class="menu overflow-auto"
      :class="panelClass"
      :style="floatingStyles"
    >
      <slot :close="close" />
    </PopoverPanel>
  </Popover>
</template>
