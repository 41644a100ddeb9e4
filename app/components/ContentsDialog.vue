<script setup lang="ts">
/** The sheet as a list: every component, its connections, and its state in the run. */
import { valuesInForce } from '@oar-bench/core/simulate/values-in-force'
import { valuesOrDefaults } from '@oar-bench/core/sheet/geometry'
import { buildNetlist, portKey } from '@oar-bench/core/sheet/netlist'
import { findKind } from '@oar-bench/core/catalogue'
import { valuesAt, localAt } from '@oar-bench/core/simulate/playback'
import { nameOf } from '@oar-bench/core/sheet/schema'

const sheetDocument = useSheetDocument()
const selection = useSelection()
const editor = useEditorUi()
const runs = useSimulationRuns()
const { show } = useUnits()

const open = useDialog('contents')
const rows = computed(() => {
  if (!open.value) return []
  const { netlist } = buildNetlist(sheetDocument.sheet)
  const named = new Map(sheetDocument.sheet.components.map((c) => [c.id, nameOf(c)]))
  const shown = runs.outdated ? undefined : runs.shown
  const frame = shown && valuesAt(shown.result, runs.time, new Float64Array(shown.result.columns.length))
  return sheetDocument.sheet.components.map((component) => {
    const kind = findKind(component.kind)
    const ports = (kind?.ports ?? []).flatMap((port) => {
      const index = netlist.nodeOf.get(portKey(component.id, port.name))
      const node = index === undefined ? undefined : netlist.nodes[index]
      const others = (node?.ports ?? [])
        .filter((p) => p.component !== component.id || p.port !== port.name)
        .map((p) => `${named.get(p.component)} ${p.port}`)
      if (!others.length && port.mayStayOpen) return []
      return [{ port: port.name, text: others.length ? others.join(', ') : 'open' }]
    })
    const local = shown && frame && localAt(shown.result, frame, component)
    return {
      id: component.id,
      designation: named.get(component.id)!,
      kind: kind?.label ?? component.kind,
      ports,
      doing:
        local && kind?.describeState
          ? kind.describeState(local, valuesInForce(kind, valuesOrDefaults(component), local.u), show)
          : '',
    }
  })
})
function go(id: string) {
  open.value = false
  selection.select([id])
  editor.view?.reveal(id)
}
</script>

<template>
  <DialogBox v-model:open="open" title="The sheet as a list" testid="contents" width="max-w-4xl">
    <p v-if="!rows.length" class="text-soft">There is nothing on the sheet yet.</p>
    <table v-else class="w-full text-left">
      <thead>
        <tr class="border-b border-rule text-[13px] text-soft">
          <th class="py-1 pr-3 font-normal">Designation</th>
          <th class="pr-3 font-normal">Component</th>
          <th class="pr-3 font-normal">Connected to</th>
          <th v-if="rows.some((r) => r.doing)" class="font-normal">At {{ runs.time.toFixed(2) }} s</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="row in rows" :key="row.id" class="border-b border-rule align-top">
          <th class="py-1 pr-3 font-normal">
            <button class="font-lettering font-medium hover:text-accent" @click="go(row.id)">
              {{ row.designation }}
            </button>
          </th>
          <td class="py-1 pr-3">{{ row.kind }}</td>
          <td class="py-1 pr-3">
            <span v-for="p in row.ports" :key="p.port" class="block">
              <span class="font-lettering font-medium">{{ p.port }}</span> – {{ p.text }}
            </span>
          </td>
          <td v-if="rows.some((r) => r.doing)" class="py-1">{{ row.doing }}</td>
        </tr>
      </tbody>
    </table>
  </DialogBox>
</template>
