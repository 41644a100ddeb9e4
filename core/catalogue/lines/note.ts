import { defineKind, quantity } from '../kind'
import { text } from '../symbol'
import { textWidth } from '../text-width'

const LINE = 1.3

/** Words on the sheet; they do nothing to the oil. */
export const note = defineKind({
  name: 'note',
  label: 'Text',
  family: 'lines',
  searchTerms: ['text', 'note', 'remark', 'words', 'heading', 'comment'],
  designationLetter: 'Z',
  excludedFromPartsList: true,
  role: 'text',
  description: 'Free words on the sheet: a heading, a remark, an instruction.',
  ports: [],
  parameters: {
    text: { type: 'text', label: 'Text', default: 'Text' },
    size: quantity('Height of the letters, in modules', 'ratio', '1.4', 0.5, 10),
  },
  symbol(v) {
    const lines = v.text.split('\n')
    const width = Math.max(v.size / 2, ...lines.map((words) => textWidth(words, v.size)))
    const height = lines.length * LINE * v.size
    return {
      shapes: lines.map((words, i) => text(0, (i + 0.5) * LINE * v.size - height / 2, words, v.size)),
      ports: {},
      box: { x: -width / 2, y: -height / 2, w: width, h: height },
    }
  },
  model: () => ({}),
  describeState: () => 'Only words.',
})
