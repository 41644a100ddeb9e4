import { portKey } from '../sheet/netlist'
import { held } from './holding'
import { nameOfComponent, permanentlyConnected, type Rule } from './rule'

export const holdsBackwards: Rule = {
  id: 'holds-backwards',
  reason: 'A holding valve holds at one of its ports only; towards the other the oil passes its check.',
  check(subject) {
    return held(subject, 'outletPort').flatMap(({ of, holding, motion, edges, tanks }) => {
      const { id } = of.component
      const load = subject.netlist.nodeOf.get(portKey(id, holding.port))!
      // held by both of its ports: a way past it, which other rules find
      if (permanentlyConnected(edges, load, tanks, id).has(motion.outNode)) return []
      return [
        {
          severity: 'warning' as const,
          message: `${nameOfComponent(of)} has the load of ${nameOfComponent(motion.of)} at ${holding.outletPort}: it holds at ${holding.port}, and lets this load go.`,
          remedy: `Exchange its ports: ${holding.port} to the actuator.`,
          location: { component: id, port: holding.outletPort },
        },
      ]
    })
  },
}
