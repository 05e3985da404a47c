/** What a note states about how it and what follows is played, until another note states otherwise. */
export const EXPRESSIONS = {
  /** Loudness. */
  dynamic: ['pp', 'p', 'mp', 'mf', 'f', 'ff'],
  /** What touches the string. */
  touch: ['flesh', 'nail', 'pick'],
  /** Where on its length the string is plucked. */
  pluckAt: ['bridge', 'hole', 'neck'],
  /** Slower from here on, to the end or until the tempo is taken up again. */
  pace: ['rit', 'aTempo'],
} as const

export type ExpressionPart = keyof typeof EXPRESSIONS
export type Expression = { readonly [P in ExpressionPart]?: (typeof EXPRESSIONS)[P][number] }

export type ExpressionWord = NonNullable<Expression[ExpressionPart]>

export const EXPRESSION_PARTS = Object.keys(EXPRESSIONS) as readonly ExpressionPart[]

/** What is stated at each of some notes in order of time, the statements before it included. */
export function* stating<N extends Expression>(notes: Iterable<N>): Generator<readonly [N, Expression]> {
  let now: Expression = {}
  for (const note of notes) {
    const { dynamic, touch, pluckAt, pace } = note
    now = {
      ...now,
      ...(dynamic ? { dynamic } : {}),
      ...(touch ? { touch } : {}),
      ...(pluckAt ? { pluckAt } : {}),
      ...(pace ? { pace } : {}),
    }
    yield [note, now]
  }
}
