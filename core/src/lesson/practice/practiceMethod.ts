/** How somebody practises; settings of the teacher. */
export interface PracticeMethod {
  /** Share of the goal at which a piece is begun: 60 % is one common start. */
  readonly startShare: number
  /** Clean repetitions in a row before the tempo rises. */
  readonly clean: number
  /** How many tries a clean repetition takes this student. */
  readonly tries: number
}

export const USUAL_WAY: PracticeMethod = { startShare: 0.6, clean: 3, tries: 2 }
