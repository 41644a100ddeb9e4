/** A formula as it is computed and as it is shown: one text is parsed once, evaluated and printed from the same tree. */
import { all, create, type MathNode } from 'mathjs/number'
import { viscosityAt } from '../fluid/fluid'
import { nitrogenCompressibility, nitrogenDensity } from '../fluid/nitrogen'

const math = create(all, {})
// functions that formulas may use beside those of arithmetic; SI
math.import({ viscosity: viscosityAt, nitrogenDensity, nitrogenCompressibility })

/** How functions are written where the name in the code is not the usual one. */
const WRITTEN: Readonly<Record<string, string>> = {
  viscosity: 'ν',
  nitrogenDensity: 'ρ_N₂',
  nitrogenCompressibility: 'Z_N₂',
  log: 'ln',
}
const SUPERSCRIPTS: Readonly<Record<string, string>> = { '2': '²', '3': '³', '4': '⁴', '5': '⁵' }
const OPERATORS: Readonly<Record<string, string>> = {
  '*': ' · ',
  '/': ' / ',
  '+': ' + ',
  '-': ' − ',
  '<': ' < ',
  '>': ' > ',
  '<=': ' ≤ ',
  '>=': ' ≥ ',
  '==': ' = ',
  and: ' and ',
  or: ' or ',
}

export interface Formula {
  /** As it stands in the code: names of variables, `*`, `/`, `^`, `c ? a : b`. */
  readonly text: string
  /** Variables that it reads. */
  readonly names: readonly string[]
  /** Its value. @param values SI, by name; each of `names` must be there @returns NaN where it has no real value */
  evaluate(values: Readonly<Record<string, number>>): number
  /** In symbols or numbers: `shown` writes a variable. */
  print(shown: (name: string) => string): string
  /** As a formula of a spreadsheet; nothing where it has a function that spreadsheets do not, or a cell is missing. */
  spreadsheet(cell: (name: string) => string | undefined): string | undefined
  /** The same without the cases that do not apply with these values. */
  printActive(shown: (name: string) => string, values: Readonly<Record<string, number>>): string
}

interface Node extends MathNode {
  readonly name?: string
  readonly op?: string
  readonly args?: Node[]
  readonly content?: Node
  readonly condition?: Node
  readonly trueExpr?: Node
  readonly falseExpr?: Node
  readonly value?: number
  readonly fn?: Node
}

function print(node: Node, shown: (name: string) => string): string {
  const of = (child: Node) => print(child, shown)
  switch (node.type) {
    case 'SymbolNode':
      return node.name === 'pi' ? 'π' : shown(node.name!)
    case 'ConstantNode':
      return String(node.value)
    case 'ParenthesisNode':
      return `(${of(node.content!)})`
    case 'FunctionNode': {
      const name = node.fn!.name!
      const args = node.args!.map(of).join(', ')
      return name === 'sqrt' ? `√(${args})` : `${WRITTEN[name] ?? name}(${args})`
    }
    case 'ConditionalNode': {
      const condition = of(node.condition!).replace(/^\((.*)\)$/, '$1')
      return `${of(node.trueExpr!)} if ${condition}, else ${of(node.falseExpr!)}`
    }
    case 'OperatorNode': {
      const [a, b] = node.args!
      if (!b) return node.op === '-' ? `−${of(a)}` : `${node.op} ${of(a)}`
      if (node.op === '^') {
        const base = of(a)
        // a value with its unit, raised to a power, stands in brackets
        const closed = a.type === 'SymbolNode' && /\s|^−/.test(base) ? `(${base})` : base
        const exponent = b.type === 'ConstantNode' ? SUPERSCRIPTS[String(b.value)] : undefined
        return exponent
          ? `${closed}${exponent}`
          : `${closed}^${b.type === 'ParenthesisNode' ? of(b) : `(${of(b)})`}`
      }
      return `${of(a)}${OPERATORS[node.op!] ?? ` ${node.op} `}${of(b)}`
    }
    default:
      throw new Error(`A formula cannot contain a ${node.type}`)
  }
}

const SPREADSHEET: Readonly<Record<string, string>> = {
  sqrt: 'SQRT',
  max: 'MAX',
  min: 'MIN',
  abs: 'ABS',
  log: 'LN',
  exp: 'EXP',
  sin: 'SIN',
  round: 'ROUND',
}
/** The formula of a spreadsheet for a tree. */
function inSpreadsheet(node: Node, cell: (name: string) => string): string | undefined {
  const all = (nodes: readonly Node[]) => {
    const texts = nodes.map((n) => inSpreadsheet(n, cell))
    return texts.every((t) => t !== undefined) ? texts : undefined
  }
  switch (node.type) {
    case 'SymbolNode':
      return node.name === 'pi' ? 'PI()' : cell(node.name!)
    case 'ConstantNode':
      return String(node.value)
    case 'ParenthesisNode': {
      const [inner] = all([node.content!]) ?? []
      return inner === undefined ? undefined : `(${inner})`
    }
    case 'FunctionNode': {
      const name = SPREADSHEET[node.fn!.name!]
      const args = all(node.args!)
      if (!name || !args) return undefined
      return `${name}(${args.join(',')}${name === 'ROUND' ? ',0' : ''})`
    }
    case 'ConditionalNode': {
      const parts = all([node.condition!, node.trueExpr!, node.falseExpr!])
      return parts && `IF(${parts.join(',')})`
    }
    case 'OperatorNode': {
      const args = all(node.args!)
      if (!args) return undefined
      const { op } = node
      if (args.length === 1) return `(${op}${args[0]})`
      if (op === 'and' || op === 'or') return `${op.toUpperCase()}(${args.join(',')})`
      return `${args[0]}${op === '==' ? '=' : op === '!=' ? '<>' : op}${args[1]}`
    }
    default:
      return undefined
  }
}

/** A tree with each case that applies in the place of its condition; what cannot be told stays. */
const active = (tree: Node, values: Readonly<Record<string, number>>): Node =>
  tree.transform((node) => {
    const { type, condition, trueExpr, falseExpr } = node as Node
    if (type !== 'ConditionalNode') return node
    const known = variablesIn(condition!).every((name) => name in values)
    if (!known) return node
    const chosen = condition!.compile().evaluate(values) ? trueExpr! : falseExpr!
    return active(chosen.type === 'ParenthesisNode' ? chosen.content! : chosen, values)
  }) as Node

/** Names of the variables of a tree; those of functions are none. */
function variablesIn(tree: Node): string[] {
  const functions = new Set<string>()
  const names = new Set<string>()
  tree.traverse((node) => {
    if (node.type === 'FunctionNode') functions.add((node as Node).fn!.name!)
  })
  tree.traverse((node) => {
    const { type, name } = node as Node
    if (type === 'SymbolNode' && name !== 'pi' && !functions.has(name!)) names.add(name!)
  })
  return [...names]
}

/** Reads a formula. @throws Error on a text that does not read */
export function formula(text: string): Formula {
  const tree = math.parse(text) as Node
  // a part that cannot be printed is found when the card is made, not when it is shown
  print(tree, (name) => name)
  const names = variablesIn(tree)
  let compiled: { evaluate(scope: object): unknown } | undefined
  return {
    text,
    names,
    evaluate(values) {
      compiled ??= tree.compile()
      const value = compiled.evaluate(values)
      return typeof value === 'number' ? value : typeof value === 'boolean' ? Number(value) : NaN
    },
    print: (shown) => print(tree, shown),
    spreadsheet(cell) {
      if (!names.every(cell)) return undefined
      return inSpreadsheet(tree, (name) => cell(name)!)
    },
    printActive: (shown, values) => print(active(tree, values), shown),
  }
}
