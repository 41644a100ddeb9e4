import { defineKind, quantity } from '../kind'
import { rectangle } from '../symbol'

/** The outline of a manifold or a group; it has no ports and does nothing to the oil. */
export const enclosure = defineKind({
  name: 'enclosure',
  label: 'Enclosure',
  family: 'lines',
  searchTerms: ['enclosure', 'manifold', 'outline', 'block', 'group', 'frame'],
  designationLetter: 'Z',
  description: 'A chain line around parts that sit in one block.',
  ports: [],
  role: 'enclosure',
  parameters: {
    width: quantity('Width in modules', 'ratio', '20', 2, 400),
    height: quantity('Height in modules', 'ratio', '14', 2, 400),
  },
  symbol(v) {
    const [w, h] = [Math.round(v.width), Math.round(v.height)]
    return {
      shapes: [{ ...rectangle(0, 0, w, h, 'none'), dash: 'chain' }],
      ports: {},
      // only its edge is in the way of anything
      box: { x: 0, y: 0, w: 0, h: 0 },
      captionAt: { x: 0.4, y: -1, anchor: 'start' },
    }
  },
  model: () => ({}),
  describeState: () => 'Only an outline.',
})
