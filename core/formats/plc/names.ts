/** Names of variables in a program of IEC 61131-3, for contacts, coils and steps of a control. */

/** Words of the language that no variable may be called by. */
const RESERVED = new Set(
  (
    'AND OR XOR NOT MOD IF THEN ELSE ELSIF END_IF CASE OF END_CASE FOR TO BY DO END_FOR WHILE END_WHILE REPEAT UNTIL END_REPEAT EXIT RETURN ' +
    'TRUE FALSE NULL VAR VAR_INPUT VAR_OUTPUT VAR_IN_OUT VAR_EXTERNAL VAR_GLOBAL VAR_TEMP END_VAR AT CONSTANT RETAIN NON_RETAIN ' +
    'PROGRAM END_PROGRAM FUNCTION END_FUNCTION FUNCTION_BLOCK END_FUNCTION_BLOCK CLASS END_CLASS METHOD END_METHOD INTERFACE END_INTERFACE ' +
    'NAMESPACE END_NAMESPACE USING THIS SUPER TYPE END_TYPE STRUCT END_STRUCT ARRAY REF REF_TO TASK RESOURCE END_RESOURCE CONFIGURATION ' +
    'END_CONFIGURATION ON WITH STEP END_STEP INITIAL_STEP TRANSITION END_TRANSITION ACTION END_ACTION FROM PRIORITY ' +
    'BOOL BYTE WORD DWORD LWORD SINT INT DINT LINT USINT UINT UDINT ULINT REAL LREAL TIME LTIME DATE STRING WSTRING CHAR WCHAR ' +
    'TON TOF TP CTU CTD CTUD R_TRIG F_TRIG SR RS EN ENO ABS SQRT LN LOG EXP SIN COS TAN ADD SUB MUL DIV GT GE EQ LE LT NE SEL MAX MIN LIMIT MUX MOVE ' +
    'LEN LEFT RIGHT MID CONCAT INSERT DELETE REPLACE FIND SHL SHR ROR ROL LD ST S R N L D P SD DS SL CAL JMP RET'
  ).split(' '),
)

/** Gives each reference a name of its own: letters, digits and single underscores, no digit first, whatever the case. */
export class VariableNames {
  private readonly byRef = new Map<string, string>()
  private readonly taken = new Set<string>()

  /** The name of a reference, made at its first use: "V2.coilA" is V2_coilA. */
  of(ref: string): string {
    const known = this.byRef.get(ref)
    if (known !== undefined) return known
    const plain = ref
      .replace(/[^A-Z0-9]+/gi, '_')
      .replace(/_$/, '')
      .replace(/^(?=\d)/, '_')
    const base = plain || 'x'
    let name = base
    for (let i = 2; RESERVED.has(name.toUpperCase()) || this.taken.has(name.toUpperCase()); i++)
      name = `${base}_${i}`
    this.byRef.set(ref, name)
    this.taken.add(name.toUpperCase())
    return name
  }
}

/** A duration as IEC 61131-3 writes it. @param seconds s */
export const timeLiteral = (seconds: number): string => `T#${Number(seconds.toFixed(6))}s`

const UNITS: Readonly<Record<string, number>> = { d: 86400, h: 3600, m: 60, s: 1, ms: 1e-3, us: 1e-6 }
/** Reads a duration of IEC 61131-3, such as T#1m30s or TIME#250ms. @returns s; nothing where it is none */
export function secondsOf(literal: string): number | undefined {
  const body = /^(?:T|TIME)#(.{1,60})$/i.exec(literal.replaceAll('_', ''))?.[1]
  if (body === undefined) return undefined
  const parts = body.split(/(?<=[a-z])(?=\d)/i).map((part) => /^(\d+(?:\.\d+)?)(ms|us|[dhms])$/i.exec(part))
  if (parts.includes(null)) return undefined
  return parts.reduce((sum, part) => sum + Number(part![1]) * UNITS[part![2].toLowerCase()], 0)
}
