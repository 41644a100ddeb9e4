/** XML as a tree of elements: read with limits, and written. */
import { SaxesParser } from 'saxes'

export interface XmlElement {
  readonly name: string
  readonly attributes: Readonly<Record<string, string>>
  readonly children: readonly XmlElement[]
  readonly text: string
}
export const element = (
  name: string,
  attributes: Readonly<Record<string, string>> = {},
  children: readonly XmlElement[] = [],
  text = '',
): XmlElement => ({ name, attributes, children, text })

const escape = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
export function writeXml({ name, attributes, children, text }: XmlElement, indent = ''): string {
  const own = Object.entries(attributes)
    .map(([key, value]) => ` ${key}="${escape(value)}"`)
    .join('')
  if (!children.length && !text) return `${indent}<${name}${own}/>\n`
  if (!children.length) return `${indent}<${name}${own}>${escape(text)}</${name}>\n`
  return `${indent}<${name}${own}>\n${children.map((c) => writeXml(c, `${indent}  `)).join('')}${indent}</${name}>\n`
}

/** Most elements that a file may have. */
const MOST_ELEMENTS = 200_000
/** @throws Error in plain words where it is no well-formed XML */
export function parseXml(text: string): XmlElement {
  const parser = new SaxesParser()
  interface Open {
    name: string
    attributes: Record<string, string>
    children: XmlElement[]
    text: string
  }
  const open: Open[] = []
  let root: XmlElement | undefined
  let count = 0
  parser.on('error', (error) => {
    throw new Error(`This is not XML: ${error.message}`)
  })
  parser.on('opentag', ({ name, attributes }) => {
    if (++count > MOST_ELEMENTS) throw new Error('The file has far more elements than any control needs.')
    open.push({ name, attributes: { ...(attributes as Record<string, string>) }, children: [], text: '' })
  })
  parser.on('text', (content) => {
    if (open.length) open[open.length - 1].text += content
  })
  parser.on('closetag', () => {
    const closed = open.pop()!
    const done = element(closed.name, closed.attributes, closed.children, closed.text.trim())
    if (open.length) open[open.length - 1].children.push(done)
    else root = done
  })
  parser.write(text).close()
  if (!root) throw new Error('This is not XML: there is no element in it.')
  return root
}
