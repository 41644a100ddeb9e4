import { highestPressures } from './pressure'
import type { Rule } from './rule'
import { resolvePipe } from '../sheet/resolve'

export const pipeAboveRating: Rule = {
  id: 'pipe-above-rating',
  reason: 'A pipe or hose that is used above its rating bursts sooner or later, and at once with a shock.',
  check({ sheet, netlist, show }) {
    const highest = highestPressures(netlist)
    return sheet.pipes.flatMap((pipe) => {
      const { rating } = resolvePipe(pipe)
      const node = netlist.nodeOfPipe.get(pipe.id)
      if (rating === undefined || node === undefined || !(highest[node] > rating)) return []
      return [
        {
          severity: 'warning' as const,
          message: `The line ${pipe.name ?? pipe.id} is rated for ${show(rating, 'pressure')}; it may come to ${show(highest[node], 'pressure')}.`,
          remedy: 'Choose a stronger pipe or hose, or limit the line to its rating.',
          location: { pipe: pipe.id },
        },
      ]
    })
  },
}
