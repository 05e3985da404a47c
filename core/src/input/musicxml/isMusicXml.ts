/** True for a text that is a score in MusicXML, by its root element. */
export const isMusicXml = (text: string): boolean =>
  /^\s*(?:<\?xml|<!DOCTYPE|<!--|<score-)/.test(text) &&
  /<score-(?:partwise|timewise)[\s>]/.test(text.slice(0, 20_000))
