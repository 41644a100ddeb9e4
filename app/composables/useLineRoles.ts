/** Lines coloured by what they are for: the second way to look at a circuit beside its pressures. */
import { createSharedComposable } from '@vueuse/core'
import { computed } from 'vue'
import { lineRoleNames, lineRoles, type LineRole, type RoleOfLine } from '@oar-bench/core/sheet/line-roles'
import { buildNetlist } from '@oar-bench/core/sheet/netlist'
import { useEditorUi } from '../stores/editorUi'
import { useSheetDocument } from '../stores/sheetDocument'

const INKS: Readonly<Record<Exclude<LineRole, 'supply'>, string>> = {
  working: '#c8641e',
  return: '#4a7fa8',
  suction: '#6f9c58',
  charge: '#8d6cc1',
  case: '#8d8d83',
  pilot: '#b8961e',
  signal: '#1f9a8f',
}
/** Of each pump its own. */
const PUMP_INKS = ['#a12f5e', '#5b4fa8', '#8f3f1e', '#2e6f4f', '#77406f', '#3f5f77']

export const useLineRoles = createSharedComposable(() => {
  const sheetDocument = useSheetDocument()
  const editor = useEditorUi()
  const found = computed(() => {
    if (!editor.lineRoles)
      return { roles: new Map<number, RoleOfLine>(), nodeOfPipe: new Map<string, number>() }
    const { netlist } = buildNetlist(sheetDocument.sheet)
    return { roles: lineRoles(sheetDocument.sheet, netlist), nodeOfPipe: netlist.nodeOfPipe }
  })
  const pumps = computed(() => [
    ...new Set([...found.value.roles.values()].flatMap(({ pump }) => (pump === undefined ? [] : [pump]))),
  ])
  const ink = ({ role, pump }: RoleOfLine) =>
    role === 'supply'
      ? PUMP_INKS[Math.max(0, pumps.value.indexOf(pump ?? '')) % PUMP_INKS.length]
      : INKS[role]
  const textOf = ({ role, pump }: RoleOfLine) =>
    role === 'supply' ? `supply of ${pump}` : lineRoleNames[role]
  const legend = computed(() => {
    const rows = new Map<string, string>()
    for (const role of found.value.roles.values()) rows.set(textOf(role), ink(role))
    return [...rows].map(([text, colour]) => ({ text, colour })).sort((a, b) => a.text.localeCompare(b.text))
  })
  return {
    legend,
    /** Colour of a pipe; none where nothing says what it is for. */
    inkOf(pipe: string): string | undefined {
      const node = found.value.nodeOfPipe.get(pipe)
      const role = node === undefined ? undefined : found.value.roles.get(node)
      return role && ink(role)
    },
  }
})
