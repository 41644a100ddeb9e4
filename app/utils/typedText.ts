import { isPrintable, UNPRINTABLE_MESSAGE } from '@oar-bench/core/sheet/schema'

/**
 * What was typed into a field, without space around it. A text with control characters is refused with a message at the field,
 * which then shows what it held before.
 * @param before what the field held @param lines whether it may have several lines @returns nothing where the text is refused
 */
export function typedText(event: Event, before: string, { lines = false } = {}): string | undefined {
  const field = event.target as HTMLInputElement
  const text = field.value.trim()
  if (isPrintable(lines ? text.replaceAll('\n', ' ') : text)) return text
  field.setCustomValidity(`The text ${UNPRINTABLE_MESSAGE}.`)
  field.reportValidity()
  field.addEventListener('input', () => field.setCustomValidity(''), { once: true })
  field.value = before
  return undefined
}
