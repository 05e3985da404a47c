/** A voice of a file as it is offered for the melody. */
export interface VoiceOffer {
  readonly id: string
  readonly name: string
  readonly notes: number
}

/** The voices of a file, and which of them is the melody. */
export interface VoicesOffered {
  readonly offered: readonly VoiceOffer[]
  readonly melody: string
}
