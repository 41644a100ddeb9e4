/** Dirt is the commonest cause of failure: a filter for the oil, a breather for the air. */
import { motions } from './motion'
import { portsWith, type Rule } from './rule'

export const contamination: Rule = {
  id: 'contamination',
  reason:
    'Most failures of hydraulic machines come from dirt. A filter keeps it out of the oil, a breather out of the air that goes into the tank.',
  check({ netlist }) {
    // a machine that does something, with a pump of its own
    if (!portsWith(netlist, 'suctionPorts').length || !motions(netlist).length) return []
    const tank = netlist.components.find(({ kind }) => kind.sharedItem)
    if (!tank) return []
    const missing = [
      ...(netlist.components.some(({ kind }) => kind.traits?.filters)
        ? []
        : ([['no filter', 'a filter in the return line or the pressure line']] as const)),
      ...(netlist.components.some(({ kind }) => kind.traits?.tankBreather)
        ? []
        : ([['no breather', 'a breather on the tank']] as const)),
    ]
    if (!missing.length) return []
    return [
      {
        severity: 'warning' as const,
        message: `The circuit has ${missing.map(([what]) => what).join(' and ')}: dirt comes in and stays.`,
        remedy: `Draw ${missing.map(([, how]) => how).join(' and ')}, of the fineness that the most sensitive part asks for.`,
        location: { component: tank.component.id },
      },
    ]
  },
}
