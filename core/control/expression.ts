/**
 * Contacts in series and parallel as text: "S1 + K1 · /S0", with "·" (or "*", "and") in series, "+" (or "or") parallel, "/" (or "not")
 * normally closed, brackets, and "X3 for 5 s" for a step that has been active for a time.
 */
import { parseQuantity } from '../units/text'

export type Expression =
  | { readonly kind: 'contact'; readonly name: string; readonly closed: boolean; readonly at: number }
  | { readonly kind: 'active'; readonly name: string; readonly seconds: number; readonly at: number }
  | { readonly kind: 'series' | 'parallel'; readonly parts: readonly Expression[] }

/** What is wrong with a text, and where: index of a character. */
export interface ExpressionError {
  readonly message: string
  readonly at: number
}
export type Parsed =
  | { readonly ok: true; readonly expression: Expression | undefined }
  | { readonly ok: false; readonly error: ExpressionError }

interface Token {
  readonly text: string
  readonly at: number
  readonly name: boolean
}
class Invalid extends Error {
  constructor(
    message: string,
    readonly at: number,
  ) {
    super(message)
  }
}

// a name has letters, digits and the marks of designations; dot and dash stand within it
const TOKEN = /\s*(?:([\p{L}\p{N}_][\p{L}\p{N}_.-]*)|([()+*/·]))/uy
const MOST_BRACKETS = 40

function tokensOf(text: string): Token[] {
  const tokens: Token[] = []
  TOKEN.lastIndex = 0
  for (let at = 0; text.slice(at).trim(); at = TOKEN.lastIndex) {
    TOKEN.lastIndex = at
    const match = TOKEN.exec(text)
    if (!match) {
      const skipped = text.slice(at).length - text.slice(at).trimStart().length
      throw new Invalid(`"${text[at + skipped]}" has no meaning here.`, at + skipped)
    }
    const word = match[1] ?? match[2]
    tokens.push({ text: word, at: TOKEN.lastIndex - word.length, name: match[1] !== undefined })
  }
  return tokens
}

const WORDS = new Set(['and', 'or', 'not', 'for'])

/** Reads a text; an empty one has no contact: its path is always closed. Never throws. */
export function parseExpression(text: string): Parsed {
  try {
    const tokens = tokensOf(text)
    if (!tokens.length) return { ok: true, expression: undefined }
    const reader = new Reader(tokens, text)
    const expression = reader.parallel(0)
    reader.end()
    return { ok: true, expression }
  } catch (error) {
    if (!(error instanceof Invalid)) throw error
    return { ok: false, error: { message: error.message, at: error.at } }
  }
}

class Reader {
  private i = 0
  constructor(
    private readonly tokens: readonly Token[],
    private readonly text: string,
  ) {}

  private get next(): Token | undefined {
    return this.tokens[this.i]
  }
  private take(...words: readonly string[]): boolean {
    if (!this.next || !words.includes(this.next.text)) return false
    this.i++
    return true
  }
  parallel(depth: number): Expression {
    const parts = [this.series(depth)]
    while (this.take('+', 'or')) parts.push(this.series(depth))
    return joined('parallel', parts)
  }
  private series(depth: number): Expression {
    const parts = [this.one(depth)]
    while (this.take('·', '*', 'and')) parts.push(this.one(depth))
    return joined('series', parts)
  }
  private one(depth: number): Expression {
    const { next } = this
    if (!next) throw new Invalid('A contact is missing at the end.', this.text.length)
    if (depth > MOST_BRACKETS) throw new Invalid('There are too many brackets within each other.', next.at)
    if (this.take('(')) {
      const inner = this.parallel(depth + 1)
      if (!this.take(')')) throw new Invalid('A bracket is not closed.', next.at)
      return inner
    }
    if (this.take('/', 'not')) return negated(this.one(depth + 1))
    if (!next.name || WORDS.has(next.text))
      throw new Invalid(`A contact is expected before "${next.text}".`, next.at)
    this.i++
    if (!this.take('for')) return { kind: 'contact', name: next.text, closed: false, at: next.at }
    return { kind: 'active', name: next.text, seconds: this.time(next), at: next.at }
  }
  private time(after: Token): number {
    const number = this.next
    const unit = this.tokens[this.i + 1]
    const attached = /[a-z]$/.test(number?.text ?? '')
    const read = parseQuantity(attached ? number!.text : `${number?.text ?? ''} ${unit?.text ?? ''}`, 'time')
    if (!read.ok || !(read.si > 0))
      throw new Invalid('After "for" comes a time above 0, such as 2 s.', number?.at ?? after.at)
    this.i += attached ? 1 : 2
    return read.si
  }
  end(): void {
    const { next } = this
    if (next)
      throw new Invalid(
        next.name || next.text === '('
          ? `Between two contacts stands "·" (in series) or "+" (parallel), before "${next.text}".`
          : `"${next.text}" is not expected here.`,
        next.at,
      )
  }
}

const joined = (kind: 'series' | 'parallel', parts: readonly Expression[]): Expression =>
  parts.length === 1
    ? parts[0]
    : { kind, parts: parts.flatMap((part) => (part.kind === kind ? part.parts : [part])) }

/** The opposite, by De Morgan's laws: contacts can only be normally open or closed. */
function negated(expression: Expression): Expression {
  switch (expression.kind) {
    case 'contact':
      return { ...expression, closed: !expression.closed }
    case 'active':
      throw new Invalid('A time of a step cannot be negated.', expression.at)
    default:
      return {
        kind: expression.kind === 'series' ? 'parallel' : 'series',
        parts: expression.parts.map(negated),
      }
  }
}

/** All contacts of an expression, in order. */
export function contactsOf(
  expression: Expression | undefined,
): Exclude<Expression, { readonly kind: 'series' | 'parallel' }>[] {
  if (!expression) return []
  if (expression.kind === 'contact' || expression.kind === 'active') return [expression]
  return expression.parts.flatMap(contactsOf)
}

/** Names of all contacts of an expression, in order. */
export const refsIn = (expression: Expression | undefined): string[] =>
  contactsOf(expression).map(({ name }) => name)

/** What may be known or not. */
export type Known = boolean | undefined
/** Whether an expression passes current, as far as that is known of its contacts. */
export function passes(expression: Expression | undefined, closed: (ref: string) => Known): Known {
  if (!expression) return true
  switch (expression.kind) {
    case 'contact': {
      const now = closed(expression.name)
      return now === undefined ? undefined : now !== expression.closed
    }
    case 'active':
      // active now, but perhaps not yet for so long
      return closed(expression.name) === false ? false : undefined
    default: {
      const decisive = expression.kind === 'parallel'
      let unknown = false
      for (const part of expression.parts) {
        const now = passes(part, closed)
        if (now === decisive) return decisive
        if (now === undefined) unknown = true
      }
      return unknown ? undefined : !decisive
    }
  }
}

/** The text of an expression. @param nameOf what a contact is called */
export function expressionText(
  expression: Expression | undefined,
  nameOf: (name: string) => string = (name) => name,
): string {
  if (!expression) return ''
  switch (expression.kind) {
    case 'contact':
      return `${expression.closed ? '/' : ''}${nameOf(expression.name)}`
    case 'active':
      return `${nameOf(expression.name)} for ${expression.seconds} s`
    case 'series':
      return expression.parts
        .map((part) =>
          part.kind === 'parallel' ? `(${expressionText(part, nameOf)})` : expressionText(part, nameOf),
        )
        .join(' · ')
    case 'parallel':
      return expression.parts.map((part) => expressionText(part, nameOf)).join(' + ')
  }
}
