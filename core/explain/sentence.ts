/** A fact about a run in words, with its instant and its place. */
export type SentenceKind =
  'cause' | 'effect' | 'moving' | 'path' | 'still' | 'pressure' | 'loss' | 'warning' | 'end'
export interface Sentence {
  readonly kind: SentenceKind
  readonly text: string
  /** Instant that it is about, s. */
  readonly at: number
  /** Its place on the sheet. */
  readonly part?: string
  /** Line whose oil it follows. */
  readonly line?: number
}
