/** What the tests use of the evaluator of spreadsheets, which brings no types. */
declare module 'fast-formula-parser' {
  interface Position {
    readonly row: number
    readonly col: number
    readonly sheet?: string
  }
  export default class FormulaParser {
    constructor(options: {
      readonly onCell: (at: Position) => number | string
      readonly onRange: () => never
      readonly functions?: Readonly<Record<string, (...values: { value: number }[]) => number>>
    })
    parse(formula: string, at: Position): unknown
  }
}
