/** The walkthrough of a run as Markdown (CommonMark): each state with its facts. */
import type { Sentence } from '../explain/sentence'
import type { WalkthroughState } from '../explain/walkthrough'
import { instantText } from '../explain/words'
import type { Show } from '../catalogue/kind'

/** Headings under which the facts of a state stand, in this order. */
const SECTIONS: readonly { readonly title: string; readonly kinds: readonly Sentence['kind'][] }[] = [
  { title: 'What begins it', kinds: ['cause', 'effect', 'warning'] },
  { title: 'What moves', kinds: ['moving', 'path'] },
  { title: 'What stands still', kinds: ['still'] },
  { title: 'Pressures', kinds: ['pressure'] },
  { title: 'Power', kinds: ['loss'] },
  { title: 'Until', kinds: ['end'] },
]
/** The facts of a state under their headings; headings without facts are left out. */
export const sectionsOf = (
  state: WalkthroughState,
): { readonly title: string; readonly sentences: readonly Sentence[] }[] =>
  SECTIONS.map(({ title, kinds }) => ({
    title,
    sentences: state.sentences.filter((s) => kinds.includes(s.kind)),
  })).filter(({ sentences }) => sentences.length)

/** How often a state and those before it come again, in a sentence; empty where they do not. */
export function repeatsText({ repeats }: WalkthroughState, show: Show): string {
  if (!repeats) return ''
  const { states, times, until } = repeats
  const which = states === 1 ? 'This state comes' : `The last ${states} states come`
  return `${which} again ${times} times in all, until ${instantText(until, show)}.`
}

const escaped = (text: string) => text.replace(/([\\`*_[\]<>#])/g, '\\$1')

export interface WalkthroughHeading {
  readonly title: string
  /** Variant, schedule, date. */
  readonly line: string
}
/** What is true of every walkthrough, and stands under its title. */
export const WALKTHROUGH_NOTE =
  'Computed from a simulation of the drawn circuit; check it on the machine before you rely on it. Local codes and the judgement of a qualified person come first.'

export function walkthroughToMarkdown(
  states: readonly WalkthroughState[],
  { title, line }: WalkthroughHeading,
  show: Show,
): string {
  const lines = [`# ${escaped(title)}`, '', escaped(line), '', WALKTHROUGH_NOTE, '']
  states.forEach((state, i) => {
    lines.push(`## ${i + 1}. ${instantText(state.t, show)}: ${escaped(state.summary)}`, '')
    for (const section of sectionsOf(state)) {
      lines.push(`**${section.title}**`, '')
      for (const { text } of section.sentences) lines.push(`- ${escaped(text)}`)
      lines.push('')
    }
    const repeats = repeatsText(state, show)
    if (repeats) lines.push(repeats, '')
  })
  return lines.join('\n')
}
