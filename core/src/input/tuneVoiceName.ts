/** Names of tracks and parts that most likely sing or play the tune. */
export const TUNE_VOICE_NAME =
  /\b(melod\w*|tune|voice|vocals?|lead|sing(?:ers?|ing)?|solo|soprano|descant)\b/i
